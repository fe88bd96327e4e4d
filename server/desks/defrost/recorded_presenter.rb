# frozen_string_literal: true

module Gorvant
  module Server
    module Present
      class << self
        # A logger's record as it stands.
        def log(row)
          told = row[:told]&.to_hash
          {
            id: row[:id],
            name: row[:name],
            state: row[:state],
            version: row[:version],
            demo: row[:demo],
            created_at: row[:created_at].iso8601,
            problems: row[:problems].to_a,
            mapping: row[:mapping]&.to_hash,
            columns: row[:mapping] ? RecordHour.order(row[:mapping]["columns"].keys) : [],
            rows: told&.fetch("rows"),
            from: told&.fetch("from"),
            to: told&.fetch("to"),
            interval_seconds: told&.fetch("interval_seconds"),
            of_files: !row[:live],
            live: row[:state] == "live" ? heard(row, told) : nil
          }
        end

        # What a file looks like; kept: how files with these columns were read before.
        def log_head(head, mapping, kept)
          {
            names: head.names,
            rows: head.rows,
            separator: head.separator,
            decimal_comma: head.decimal_comma,
            encoding: head.encoding,
            skip: head.skip,
            mapping:
              (
                if kept
                  mapping.to_json_hash.merge(kept.slice("columns", "time", "order", "zone", "daylight_saving"))
                else
                  mapping.to_json_hash
                end
              ),
            kept: !kept.nil?,
            doubts: mapping.doubts
          }
        end

        def judgement(log, story, rig)
          judge = RecordedJudge.new(story, rig)
          on_off = on_off(log)
          {
            from: story.from,
            to: story.to,
            columns: story.columns,
            on_off: on_off.transform_values { |one| { over: one.over, always: one.always } },
            runs: story.runs.size,
            run_hours: (story.run_seconds / 3600).round(1),
            told: Desks::Defrost::RecordTold.new(log[:told].to_hash, on_off, story: story).lines,
            verdicts: verdicts(judge.verdicts),
            defrosts: story.defrosts.each_with_index.map { |one, i| recorded_defrost(one, i, judge) },
            schools: judge.schools.map { |id, (fit, of)| school(id, fit, of) },
            **ClockProfile.of(rig).to_h.slice(:starts_degrees_f, :ends_degrees_f)
          }
        end

        private

        # { column => OnOff }
        def on_off(log) = log[:on_off].to_hash.transform_values { |one| OnOff.new(**one.transform_keys(&:to_sym)) }

        def school(id, fit, of) = { school: id, title: Catalogue.words("defrost.school_#{id}"), fit: fit, of: of }

        # How long ago the last row came, and from when on that is too long.
        def heard(row, told)
          {
            from: row[:heard_from],
            seconds_ago: row[:heard_at] && (Time.now - row[:heard_at]).round(1),
            quiet_after_seconds: Formats::LiveRows.quiet_after_seconds(told&.fetch("interval_seconds"))
          }
        end

        def recorded_defrost(one, index, judge)
          by = judge.ended_by(one)
          {
            number: index + 1,
            start: one.start,
            end: one.end,
            seconds: one.seconds,
            ended_by: by,
            ended_by_title: Catalogue.words("recorded.by_#{by || "unknown"}"),
            outdoor_degrees_f: one.outdoor,
            coil_start_degrees_f: one.coil_start,
            coil_end_degrees_f: one.coil_end,
            run_minutes: one.run_seconds && (one.run_seconds / 60).round(1),
            frost_kg: one.frost_kg,
            path: one.path,
            beside: judge.beside(one)
          }
        end
      end
    end
  end
end
