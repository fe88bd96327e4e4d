# frozen_string_literal: true

module Gorvant
  module Server
    # The defrost desk as JSON.
    module Present
      class << self
        def verdicts(list) =
          list.map { |one| one.to_h.merge(cautions: one.cautions.map { |key| Catalogue.cautions.fetch(key) }) }

        def outlook(outlook)
          profile = outlook.profile
          lines =
            outlook.checklist.map do |line|
              line.to_h.merge(
                cautions: line.cautions.map { |key| Catalogue.cautions.fetch(key) },
                **%i[expected_volts_ac low_volts_ac high_volts_ac].to_h { |key| [key, line[key]&.round(1)] }
              )
            end
          {
            lamps: outlook.lamps.map(&:to_h),
            following: following(outlook.following),
            checklist: lines,
            school: Catalogue.words("defrost.school_#{profile.school}"),
            assumed: profile.assumed,
            interval_minutes: profile.full_seconds / 60,
            limit_minutes: profile.limit_seconds && (profile.limit_seconds / 60),
            counts: outlook.counts,
            calls: Outputs.calls(outlook.rig),
            measured: outlook.measured?,
            warnings: profile.limit_seconds ? [] : [Catalogue.wording.fetch("defrost.warn_no_limit")],
            air_pressure_switch: outlook.rig[:sensing] == "coil_switch" && outlook.rig[:air_pressure_switch]
          }
        end

        def following(following) =
          following.to_h.merge(
            course: following.course.map { |sight| { after_seconds: sight.after_seconds.round(1), says: sight.says } }
          )

        def schools(history, schools, profile)
          {
            history: history.to_json_hash,
            courses: schools.courses.map { |course| course.to_h.merge(steps: course.steps.map(&:to_h)) },
            differences: schools.differences,
            fitting: schools.fitting,
            own: schools.own,
            lasts_minutes: Catalogue.profile.dig("defrost", "lasts_minutes"),
            interval_minutes: profile.interval_seconds / 60,
            assumed: profile.assumed,
            spans:
              history.spans.transform_values do |list|
                list.map { |from, to| [from, to.finite? ? to : history.minutes] }
              end
          }
        end

        def forced_test(test)
          steps =
            test.steps.map do |step|
              step.to_h.merge(cautions: step.cautions.map { |key| Catalogue.cautions.fetch(key) })
            end
          {
            steps: steps,
            warnings: test.warnings,
            expected_seconds: test.expected_seconds.round(2),
            beside: test.beside.map(&:to_h),
            verdicts: verdicts(test.verdicts),
            left_behind: test.left_behind,
            tally: test.tally,
            questions: test.questions,
            found_interval_minutes: test.found_interval_minutes,
            forced_entry: test.profile.forced_entry,
            factor: test.profile.speed_up_factor,
            interval_minutes: test.profile.interval_seconds / 60
          }
        end

        def sensor_table(table)
          fits = [table.beta_fit, table.steinhart_hart_fit]
          {
            id: table.id,
            title: table.title,
            tolerance_degrees_f: table.tolerance_degrees_f,
            points: table.points,
            own: Ids::UUID.match?(table.id),
            fits:
              fits.map do |fit|
                {
                  kind: fit.kind,
                  coefficients: fit.coefficients,
                  worst_degrees_f: fit.worst_degrees_f.round(3),
                  residuals_degrees_f: fit.residuals_degrees_f.map { |one| one.round(3) }
                }
              end
          }
        end

        def measured(table, point)
          {
            degrees_f: point.degrees_f,
            ohms: point.ohms.finite? ? point.ohms : nil,
            reads_degrees_f: table.degrees_at(point.ohms)&.round(1),
            error_degrees_f: table.error_degrees_f(point)&.round(1)
          }
        end
      end
    end
  end
end
