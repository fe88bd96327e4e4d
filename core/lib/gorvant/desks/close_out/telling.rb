# frozen_string_literal: true

module Gorvant
  module Desks
    module CloseOut
      # What the desk has for a report.
      module Telling
        # What was done, and after it: parts, the repeats, every call, and all that was put back or left.
        def report(record)
          kept = record.close_out
          [
            (Blocks.own(kept["done"]) unless blank?(kept, "done")),
            (Blocks.facts([[words("parts"), Blocks.cell(kept["parts"])]]) unless blank?(kept, "parts")),
            *repeated(record),
            Blocks.table(%w[call how_run expected_live works came_out].map { |key| head(key) }, call_rows(record))
          ].compact
        end

        # [[says, how it stands, why]] of what had to be put back.
        def put_back_rows(record)
          Desks
            .put_back(record)
            .map do |line|
              state = state(line, record)
              why =
                state == "left" ? Blocks.cell(record.close_out.dig("put_back", line.id, "left")) : line.by_record.to_s
              [
                line.says,
                words("state_#{state}"),
                state == "back" && record.close_out.dig("put_back", line.id) ? "" : why
              ]
            end
        end

        private

        def head(key) = Catalogue.words("report.head_#{key}")

        def repeated(record)
          pairs = repeats(record)
          return [] if pairs.empty?

          netlist = Assembly.netlist(record.rig)
          rows = pairs.map { |pair| pair_row(pair, netlist) }
          why = record.close_out["not_repeated"]
          [
            Blocks.table(%w[where before after].map { |key| head(key) }, rows),
            (Blocks.own("#{words("why_not_repeated")} #{why}") if pairs.any? { |pair| pair.after.nil? } && why)
          ].compact
        end

        def pair_row(pair, netlist)
          title = Catalogue.calls.fetch(pair.before.condition.call)["title"]
          [
            "#{pair.before.observation.whereabouts(netlist)}, #{title}",
            "≠ #{pair.before.observation.says}",
            (
              if pair.after
                "#{Blocks.sign(pair.after.verdict)} #{pair.after.observation.says}"
              else
                words("not_repeated")
              end
            )
          ]
        end

        def call_rows(record)
          call_list(record).lines.map do |line|
            said = line.said || {}
            how = words("how_#{said["how"] || (left_off?(record) ? "left_off" : "unsaid")}")
            came = [said["as"] && words("as_#{said["as"]}"), said["note"]].compact.reject(&:empty?).join(": ")
            [line.title, how, line.expect.join(" "), line.works.join(", "), Blocks.cell(came)]
          end
        end
      end
    end
  end
end
