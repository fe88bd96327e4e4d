# frozen_string_literal: true

module Gorvant
  module Server
    # Rows as JSON.
    module Present
      class << self
        def rig(row)
          content = row[:content]
          {
            id: row[:id],
            name: row[:name],
            version: row[:version],
            revision_id: row[:revision_id],
            revision: row[:number],
            digest: row[:digest],
            archetype: content["archetype"],
            archetype_title: title(Warm.rig(row)),
            changeover: Warm.rig(row).changeover,
            demo: row[:demo],
            created_at: row[:created_at].iso8601
          }
        end

        def visit(row)
          {
            id: row[:id],
            version: row[:version],
            site: row[:site_name],
            unit: row[:unit_name],
            unit_id: row[:unit_id],
            **rig_of(row),
            visit_on: row[:visit_on].iso8601,
            complaint: row[:complaint],
            symptoms: row[:symptoms].to_a,
            symptom_titles: row[:symptoms].map { |key| Catalogue.symptoms.fetch(key).fetch("title") },
            **row.slice(:outdoor_degrees_f, :set_point_degrees_f, :room_degrees_f),
            safety: row[:safety].to_a,
            assumed: Warm.assumed(row).size,
            readings: {
              agree: row[:agreeing],
              disagree: row[:disagreeing]
            },
            marks: marks(row),
            closed_number: row[:closed_number],
            carried_on: row[:carried].to_h["on"],
            demo: row[:demo],
            **(row[:listed_marks] ? {} : desks(row))
          }
        end

        def photo(row)
          {
            id: row[:id],
            visit_id: row[:visit_id],
            of: row[:of],
            fact_key: row[:fact_key],
            note: row[:note],
            width: row[:width],
            height: row[:height],
            created_at: row[:created_at].iso8601
          }
        end

        def setting_profile(row) = { id: row[:id], name: row[:name], labels: row[:labels].to_h }

        # One line of the settings' checklist.
        def setting(item)
          about = Catalogue.facts.fetch(item.key)
          item.to_h.merge(
            kind: about["kind"],
            low: about["low"],
            high: about["high"],
            unit: about["unit"],
            delta: about.fetch("delta", false),
            found_words: Comparison.words(item.key, item.found),
            choices: about.fetch("of", {}).map { |value, says| { value: value, says: says } }
          )
        end

        # A staging run: stages with why not sooner, the curves of its chart, and what is waited for at a time.
        def staging(run, at)
          curves = run.timeline.curves.select { |curve| %w[room outdoor].include?(curve.id) }
          {
            duration_seconds: run.timeline.duration_seconds,
            stages: run.stages.map(&:to_h),
            set_points: run.set_points,
            waiting: at ? run.waiting([at, run.timeline.duration_seconds].min) : [],
            curves:
              curves.map do |curve|
                {
                  id: curve.id,
                  title: curve.title,
                  points: curve.points.map { |second, value| [second, value.round(2)] }
                }
              end,
            findings:
              run.timeline.findings.map do |noticed|
                FindingPresenter.new(noticed.finding).to_h.merge(seconds: noticed.seconds)
              end
          }
        end

        def reading(row, netlist, superseded_by)
          seen = ReadingRow.observation(row)
          {
            id: row[:id],
            visit_id: row[:visit_id],
            rig_revision_id: row[:rig_revision_id],
            circuit: row[:circuit],
            function: row[:function],
            **row.slice(:from_node, :to_node, :place, :value, :value_high, :about, :open, :choice, :isolated),
            where: seen.whereabouts(netlist),
            reads: seen.says,
            instrument: row[:instrument],
            moment: row[:moment].to_h,
            condition: row[:condition].to_h,
            call_title: Catalogue.calls.fetch(row[:condition]["call"]).fetch("title"),
            expected: row[:expected].to_h.then { |expected| expected.empty? ? nil : expected },
            verdict: row[:verdict],
            says: row[:says],
            note: row[:note],
            superseded_by_id: superseded_by,
            **written(row)
          }
        end

        # By whom and when, and what came of it since.
        def written(row)
          {
            taken_at: row[:taken_at].iso8601,
            received_at: row[:received_at].iso8601,
            taken_by: row[:taken_by],
            supersedes_id: row[:supersedes_id],
            retracted_at: row[:retracted_at]&.iso8601
          }
        end

        # What should have been read, of a judged observation; empty where the circuit expects nothing.
        def judged(judged) = judged.expected ? expected(*judged.expected) : {}

        def expected(expected, reason)
          {
            volts_ac: expected.volts_ac&.round(2),
            low_volts_ac: expected.low_volts_ac&.round(2),
            high_volts_ac: expected.high_volts_ac&.round(2),
            klass: expected.klass,
            class_title: Catalogue.words("class.#{expected.klass}"),
            floating: expected.floating,
            says: reason.says,
            links: reason.links
          }
        end

        def ohms(reading)
          { ohms: reading.ohms.finite? ? reading.ohms.round(2) : nil, says: reading.says, links: reading.links }
        end

        def faults(rig)
          netlist = Assembly.netlist(rig)
          Faults::Library
            .everything(rig, netlist)
            .map do |given|
              fault = Fault.parse(given)
              {
                fault: given,
                title: fault.title(netlist),
                is: fault.about["is"],
                shows: fault.about["shows"],
                proof: fault.about["proof"]
              }
            end
        end

        def legend(trace)
          entries =
            Legend
              .entries(trace)
              .map { |entry| entry.to_h.merge(cautions: entry.cautions.map { |key| Catalogue.cautions.fetch(key) }) }
          { entries: entries, marks: Legend.marks.map(&:to_h) }
        end

        def way(way)
          { found: way.found?, says: way.says, stops: way.stops.map(&:to_h), nodes: way.nodes, branches: way.branches }
        end

        def why(chain, at)
          following = chain.next_on
          {
            links: chain.links.map(&:to_h),
            as_designed: chain.as_designed?,
            next_on:
              following &&
                {
                  seconds: following.seconds,
                  in_seconds: following.seconds - at,
                  says: following.says,
                  signal: following.signal
                }
          }
        end

        # Where a reading belongs in a drawing: at its point when it was taken to a C, else at both.
        def taken_at(row)
          ends = [row[:from_node], row[:to_node]]
          ends.one? { |node| node.end_with?(".C") } ? ends.find { |node| !node.end_with?(".C") } : ends.sort.join("|")
        end

        def task(row)
          {
            id: row[:id],
            kind: row[:kind],
            state: row[:state],
            done: row[:done],
            total: row[:total],
            error: row[:error]
          }
        end

        def revision(row)
          {
            id: row[:id],
            number: row[:number],
            digest: row[:digest],
            created_at: row[:created_at].iso8601,
            by: row[:by]
          }
        end

        private

        def rig_of(row)
          rig = Warm.rig(row)
          {
            rig_id: row[:rig_id],
            rig_name: rig.name,
            changeover: rig.changeover,
            rig_revision_id: row[:rig_revision_id],
            rig_revision: row[:revision_number]
          }
        end

        # "Split heat pump, two stages, gas furnace"
        def title(rig)
          stages = rig[:compressor_stages] == 2 ? "two stages" : "one stage"
          [
            rig.layout.fetch("title"),
            stages,
            rig[:backup] == "none" ? "no backup" : Comparison.words("backup", rig[:backup])
          ].join(", ")
        end

        # Each page of a visit by how it stands: some are reckoned up as they are shown, the dear ones were when they
        # were kept.
        # What the desks keep, on which version, and how two of them stand in words; a list has their marks alone.
        # What one desk keeps, and who kept it last.
        def desk(held, version)
          {
            version: version,
            content: held ? held[:content].to_hash : {},
            by: held && held[:by],
            at: held && held[:updated_at].iso8601
          }
        end

        def desks(row)
          record = VisitRecords.of(row)
          {
            desks: row[:desks].versions.to_h { |id, version| [id, desk(row[:desks].all[id], version)] },
            standing: {
              intake: Desks.desk("intake").standing(record).says,
              trace: Desks.desk("trace").standing(record).says
            }
          }
        end

        def marks(row)
          record = VisitRecords.of(row)
          fitted = Warm.fitted_mark(row) { Desks.mark("fitted", record) }
          Desks
            .marks(record, VisitRecords::SHOWN - ["fitted"])
            .merge("fitted" => fitted, **(row[:listed_marks] || row[:desks].marks))
            .merge({ "close_out" => row[:closed_as], "find" => row[:found_mark] }.compact)
            .then { |known| Catalogue.desks.keys.to_h { |id| [id, known.fetch(id, "untouched")] } }
        end
      end
    end
  end
end
