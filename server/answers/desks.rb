# frozen_string_literal: true

module Gorvant
  module Server
    # What the desks of a visit answer.
    class Answers
      # The wiring as it is kept, or as it is being entered.
      def wiring(row, input)
        found = input[:as_found] ? row[:desks].as_found(deep_strings(input[:as_found])) : row[:desks].as_found
        recalled("wiring", row[:digest], found) do
          rig = Warm.rig(row)
          WiringPresenter.new(WiringCheck.new(rig, AsFound.parse(found, rig))).to_h
        end
      end

      # The settings as they are kept, or as they are being read.
      def settings(row, input)
        found = row[:desks].as_found
        if input[:settings]
          today = Desks.as_found(row[:desks].kept).merge("settings" => deep_strings(input[:settings]))
          found = row[:desks].as_found(today)
        end
        recalled("settings", row[:digest], found, row[:set_point_degrees_f], row[:outdoor_degrees_f]) do
          checked(row, found)
        end
      end

      # How the thermostat stages with them.
      def staging(row, input)
        rig = Warm.rig(row)
        given = input.key?(:settings) ? [{ "settings" => deep_strings(input[:settings]) }] : []
        found = row[:desks].as_found(*given)
        script = Script.parse(deep_strings(input[:script]), input[:duration_seconds])
        fitted = rig.set(AsFound.parse(found, rig).settings)
        Warm.dear { Present.staging(StagingRun.new(fitted, script), input[:at_seconds]) }
      end

      # How a defrost stands now, as far as it is known.
      def outlook(row, input)
        found = input[:as_found] ? row[:desks].as_found : nil
        recalled("outlook", row[:digest], input, row[:outdoor_degrees_f], found) do
          Present.outlook(DefrostOutlook.new(Warm.rig(row), moment(row, input, found)))
        end
      end

      # One run history under every school of timing.
      def schools(row, input)
        history =
          input[:text] ? Formats::RunHistoryCsv.read(input[:text]) : RunHistory.parse(deep_strings(input[:history]))
        profile = ClockProfile.of(Warm.rig(row))
        schools =
          Schools.new(
            history,
            profile,
            seen: input.fetch(:seen, []).map(&:to_f),
            counts_on: deep_strings(input.fetch(:counts_on, {}))
          )
        Present.schools(history, schools, profile)
      end

      def forced_test(row, input)
        record = ForcedTest.parse(deep_strings(input[:test]))
        recalled("forced_test", row[:digest], record.to_h) do
          Present.forced_test(ForcedTest.new(Warm.rig(row), record))
        end
      end

      # A coil switch as it was read at temperatures, held against its points.
      def coil_switch(row, input)
        rig = Warm.rig(row)
        own = CoilSwitch.of(rig)
        switch =
          CoilSwitch.new(
            closes_degrees_f: input.fetch(:closes_degrees_f, own.closes_degrees_f),
            opens_degrees_f: input.fetch(:opens_degrees_f, own.opens_degrees_f),
            inclusive: own.inclusive
          )
        points =
          input[:points].map do |point|
            CoilSwitch::Noted.new(degrees_f: point["degrees_f"].to_f, state: point["state"])
          end
        {
          closes_degrees_f: switch.closes_degrees_f,
          opens_degrees_f: switch.opens_degrees_f,
          verdicts: Present.verdicts(switch.check(points, assumed: assumed(rig, input, switch)))
        }
      end

      # A thermistor, measured alone, held against its maker's table. tables: [ThermistorTable] that the crew knows.
      def thermistor(input, table, tables)
        points =
          input[:points].map do |point|
            ohms = point["ohms"]
            ThermistorTable::Point.new(
              degrees_f: point["degrees_f"].to_f,
              ohms: ohms.is_a?(Numeric) ? ohms.to_f : Float::INFINITY
            )
          end
        verdicts = table.check(points, others: tables)
        verdicts << ThermistorTable.pair(*input[:pair].values_at(:coil_degrees_f, :air_degrees_f)) if input[:pair]
        {
          verdicts: Present.verdicts(verdicts),
          table: Present.sensor_table(table),
          points: points.map { |point| Present.measured(table, point) }
        }
      end

      # The visit as its desks take it, with what was read.
      def record(row)
        reads = @readings.of_standing(row[:id]).map { |one| VisitRecords.read(one) }
        VisitRecords.of(row, kept: row[:desks].kept, reads: reads)
      end

      # From the complaint and what was read to why, and what to measure next; nil while its signatures are not there,
      # and, where a first look at them will do (`early`), that is not there either.
      def find(row, input)
        finders = Finders.new(memory, @readings)
        library = finders.library(row) || (input[:early] && finders.first_library(row)) or return
        words = Desks::Find::Words.new(finders.finder(row, library, input))
        answer = words.to_h
        answer[:about] = words.about(input[:about]) if input[:about]
        answer
      end

      # The tests from here on; nil while its signatures are not there.
      def road_map(row, input)
        finders = Finders.new(memory, @readings)
        library = finders.library(row) or return
        words = Desks::Find::Words.new(finders.finder(row, library, input))
        Warm.dear { words.road_map { |clues| finders.finder(row, library, input.merge(further: clues)) } }
      end

      # The report of a visit as it stands. find: what Find says where the finding is from it; photos: rows of the
      # visit's; by: who asks for it.
      def report(row, record, find, photos:, by:, crew:)
        wanted = record.close_out.fetch("photos", [])
        chosen = photos.select { |one| wanted.include?(one[:id]) }
        about =
          VisitReport::About.new(
            site: row[:site_name],
            unit: row[:unit_name],
            visit_on: row[:visit_on].iso8601,
            complaint: row[:complaint].to_s,
            find: find,
            photos: chosen.map { |one| [one[:id], one[:of].tr("_", " "), one[:note].to_s] },
            names: [*record.reads.map(&:by), by].uniq,
            crew: crew
          )
        VisitReport.new(record, about).to_h
      end

      # The same as a draft, with the sections that its desk leaves out.
      def draft(row, find, **whose)
        record = record(row)
        report(row, record, find, **whose).merge(
          "leave_out" => record.close_out.fetch("leave_out", []),
          "draft" => true,
          "addenda" => []
        )
      end

      private

      def checked(row, found)
        rig = Warm.rig(row)
        as_found = AsFound.parse(found, rig)
        check = SettingsCheck.new(rig, as_found, set_point_degrees_f: row[:set_point_degrees_f])
        lines = BenchList.new(check.rig, outdoor_degrees_f: row[:outdoor_degrees_f]).lines
        {
          standing: check.standing.to_h,
          items: check.items.map { |item| Present.setting(item) },
          findings: check.findings.map { |finding| FindingPresenter.new(finding).to_h },
          bench:
            lines.map { |line| line.to_h.merge(cautions: line.cautions.map { |key| Catalogue.cautions.fetch(key) }) },
          terminals: (rig.terminals("wall") - %w[R C]).map { |terminal| Naming.letter(rig, terminal) }
        }
      end

      def moment(row, input, found)
        rig = Warm.rig(row)
        outdoor =
          input[:outdoor_degrees_f] || row[:outdoor_degrees_f] || Catalogue.profile.dig("bench", "outdoor_degrees_f")
        DefrostOutlook::Moment.new(
          call: input.fetch(:call, "heat"),
          outdoor_degrees_f: outdoor,
          coil_degrees_f: input[:coil_degrees_f],
          counted_minutes: input[:counted_minutes],
          humidity_percent: input[:humidity_percent],
          switches: Condition.parse("switches" => deep_strings(input.fetch(:switches, {}))).switches,
          faults: found ? WiringCheck.new(rig, AsFound.parse(found, rig)).faults_on_recorded : []
        )
      end

      # Points that nobody has read off the switch are the profile's.
      def assumed(rig, input, switch)
        read =
          input.key?(:closes_degrees_f) ||
            %w[coil_switch_closes_degrees_f coil_switch_opens_degrees_f].all? do |key|
              rig.facts[key] && !rig.facts[key].assumed?
            end
        return [] if read

        points = { closes: switch.closes_degrees_f, opens: switch.opens_degrees_f }
        [Catalogue.words("sensor.points_assumed", **points.transform_values { |degrees| format("%g", degrees) })]
      end
    end
  end
end
