# frozen_string_literal: true

module Gorvant
  module Desks
    # The end of a visit: what was found and done, the failed reading repeated, every call run once, and all put back.
    # What has to be put back, and what is still missing, follows from the visit's own records.
    module CloseOut
      # A failed reading and its repeat: reads, before and after the repair; after nil while it is not repeated.
      Pair = Value.define(:before, :after)
      # field: JSON pointer into what the desk keeps; problem: what is missing, in words.
      Missing = Value.define(:field, :problem)

      class << self
        include Telling

        # What the desk may hold of parsed JSON: see Keeping. Raises BadRecord.
        def keep(given, rig) = Keeping.keep(given, rig)

        def standing(record)
          return closed(record) if record.closed_as
          return Standing::UNTOUCHED if record.close_out.empty?

          Standing.of(
            "close_out",
            wrong: false,
            looked_at: [words("begun")],
            taken: [words("not_closed")],
            count: missing(record).size
          )
        end

        # [PutBack], with the two that no visit is without.
        def put_back(record)
          places = record.places.map { |place| Naming.place(record.rig, place) }
          opened = places.empty? ? "opened_none" : "opened"
          [
            PutBack.new(
              id: "covers",
              says: Catalogue.words("put_back.covers_#{opened}", places: places.join(", ")),
              never_left: true,
              cautions: ["line_voltage"]
            ),
            PutBack.new(
              id: "safeties",
              says: Catalogue.words("put_back.safeties"),
              never_left: true,
              cautions: ["safeties"]
            )
          ]
        end

        # How a line stands: "back" (ticked, or by the records), "left" with a reason, or "open".
        def state(line, record)
          said = record.close_out.fetch("put_back", {})[line.id]
          return "left" if said.is_a?(Hash)

          said == "back" || line.by_record ? "back" : "open"
        end

        def call_list(record) =
          CallList.new(
            record.rig,
            outdoor_degrees_f: record.outdoor_degrees_f,
            said: record.close_out.fetch("calls", {})
          )

        # [Pair] of the readings that did not agree before the repair, each with the last of the same after it.
        def repeats(record)
          repaired = record.close_out["repaired_at"]
          before, after = record.reads.partition { |read| repaired.nil? || read.at < repaired }
          before
            .select { |read| read.verdict == "disagrees" }
            .map do |read|
              later = repaired ? after : before.drop(before.index(read) + 1)
              Pair.new(before: read, after: later.reverse.find { |other| same?(read, other) })
            end
            .uniq { |pair| [place_of(pair.before), pair.after&.id || pair.before.id] }
        end

        # What Find goes by: the unit before anybody put it right.
        def before_repair(reads, kept)
          repaired = kept.dig("close_out", "repaired_at")
          repaired ? reads.select { |read| read.at < repaired } : reads
        end

        # Whether what was worked on is the defrost, of which one natural one is to be seen.
        def defrost?(record)
          record.defrost.any? ||
            record.symptoms.any? { |key| Catalogue.symptoms.dig(key, "opens", "page") == "defrost" }
        end

        def left_off?(record) = !record.close_out["left_off"].to_s.strip.empty?

        # [Missing] before the job can be closed.
        def missing(record)
          kept = record.close_out
          [
            *written(kept),
            *answer(record, kept),
            *(calls_missing(record) unless left_off?(record)),
            *repeat_missing(record, kept),
            *put_back_missing(record),
            *natural_missing(record, kept)
          ]
        end

        # The mark of a closing: agrees only when nothing was left, every call was run as expected or at low voltage,
        # and every failed reading agrees now.
        def mark(record)
          return "disagrees" if left_off?(record) || still_wrong?(record)

          nothing_left?(record) ? "agrees" : "so_far"
        end

        private

        def still_wrong?(record)
          record.close_out["answered"] == "no" || said(record).any? { |one| one["as"] == "otherwise" } ||
            repeats(record).any? { |pair| pair.after&.verdict == "disagrees" }
        end

        def nothing_left?(record)
          kept = record.close_out
          said(record).all? { |one| one["how"] && one["how"] != "not_run" } && kept["answered"] != "partly" &&
            repeats(record).all? { |pair| pair.after&.verdict == "agrees" } &&
            Desks.put_back(record).none? { |line| state(line, record) == "left" } &&
            (!defrost?(record) || kept["natural_defrost"] == "seen")
        end

        # What was said of each call, {} where nobody said.
        def said(record) = call_list(record).lines.map { |line| line.said || {} }

        def words(key, **fields) = Catalogue.words("close_out.#{key}", **fields)

        def closed(record)
          Standing.new(mark: record.closed_as, says: words("closed_#{record.closed_as}"), looked_at: [], taken: [])
        end

        # --- what is missing

        def missed(field, key, **fields) = Missing.new(field: "/#{field}", problem: words(key, **fields))
        def blank?(kept, key) = kept[key].to_s.strip.empty?

        def written(kept)
          [
            (missed("cause", "cause_unsaid") unless kept["cause"]),
            (missed("finding", "finding_blank") if kept["cause"] == "written" && blank?(kept, "finding")),
            (missed("done", "done_blank") if blank?(kept, "done")),
            (missed("plain", "plain_blank") if blank?(kept, "plain"))
          ].compact
        end

        def answer(record, kept)
          return record.told ? [missed("answered", "answered_unsaid")] : [] unless kept["answered"]
          return [] unless kept["answered"] == "yes"
          return [missed("answered", "answered_off")] if left_off?(record)

          if repeats(record).any? { |pair| pair.after&.verdict == "disagrees" }
            [missed("answered", "answered_unlike")]
          else
            []
          end
        end

        def calls_missing(record)
          list = call_list(record)
          list.lines.filter_map do |line|
            says = list.missing(line)
            Missing.new(field: "/calls/#{line.id}", problem: "#{line.title}: #{says}") if says
          end
        end

        def repeat_missing(record, kept)
          open = repeats(record).select { |pair| pair.after.nil? }
          open.any? && blank?(kept, "not_repeated") ? [missed("not_repeated", "repeat_missing", count: open.size)] : []
        end

        def put_back_missing(record)
          Desks.put_back(record).filter_map { |line| line_missing(line, record) }
        end

        def line_missing(line, record)
          state = state(line, record)
          return nil if state == "back" || (line.never_left && left_off?(record))
          return missed("put_back/#{line.id}", "never_left", says: line.says) if line.never_left
          return missed("put_back/#{line.id}", "line_open", says: line.says) if state == "open"

          why = record.close_out.dig("put_back", line.id, "left")
          missed("put_back/#{line.id}", "line_why", says: line.says) if why.strip.empty?
        end

        def natural_missing(record, kept)
          defrost?(record) && kept["natural_defrost"].nil? ? [missed("natural_defrost", "natural_unsaid")] : []
        end

        # --- readings

        def place_of(read) =
          read
            .observation
            .to_h
            .slice(:function, :from_node, :to_node, :place, :isolated)
            .merge(call: read.condition.call)
        def same?(read, other) = place_of(read) == place_of(other)
      end
    end
  end
end
