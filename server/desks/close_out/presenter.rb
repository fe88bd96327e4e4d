# frozen_string_literal: true

module Gorvant
  module Server
    # The closing of a visit as JSON.
    module Present
      class << self
        def close_out(record)
          {
            put_back: Desks.put_back(record).map { |line| put_back(line, record) },
            calls: call_lines(Desks::CloseOut.call_list(record)),
            repeats: Desks::CloseOut.repeats(record).map { |pair| repeat(pair, record.rig) },
            missing: Desks::CloseOut.missing(record).map(&:to_h),
            defrost: Desks::CloseOut.defrost?(record),
            sections: VisitReport::SECTIONS.map { |id| section(id) }
          }
        end

        def closing(row)
          {
            id: row[:id],
            number: row[:number],
            mark: row[:mark],
            digest: row[:digest],
            by: row[:by],
            at: row[:created_at].iso8601,
            reopened_at: row[:reopened_at]&.iso8601,
            reopened_by: row[:reopened_by_name],
            reopened_why: row[:reopened_why]
          }
        end

        # A reading that arrived after the closing.
        def addendum(row, netlist)
          seen = ReadingRow.observation(row)
          {
            id: row[:id],
            where: seen.whereabouts(netlist),
            reads: seen.says,
            call_title: Catalogue.calls.fetch(row[:condition]["call"]).fetch("title"),
            taken_at: row[:taken_at].iso8601,
            received_at: row[:received_at].iso8601,
            by: row[:taken_by]
          }
        end

        private

        def put_back(line, record)
          said = record.close_out.fetch("put_back", {})[line.id]
          line.to_h.merge(
            state: Desks::CloseOut.state(line, record),
            left: said.is_a?(Hash) ? said["left"] : nil,
            cautions: line.cautions.map { |key| Catalogue.cautions.fetch(key) }
          )
        end

        def call_lines(list)
          list.lines.map do |line|
            line.to_h.merge(
              missing: list.missing(line),
              cautions: line.cautions.map { |key| Catalogue.cautions.fetch(key) }
            )
          end
        end

        def repeat(pair, rig)
          seen = pair.before.observation
          {
            where: seen.whereabouts(Assembly.netlist(rig)),
            call: pair.before.condition.call,
            call_title: Catalogue.calls.fetch(pair.before.condition.call).fetch("title"),
            function: seen.function,
            from_node: seen.from_node,
            to_node: seen.to_node,
            before: half(pair.before),
            after: pair.after && half(pair.after)
          }
        end

        def half(read) = { id: read.id, reads: read.observation.says, verdict: read.verdict, at: read.at }

        def section(id) =
          { id: id, title: Catalogue.words("report.section_#{id}"), always: VisitReport::ALWAYS.include?(id) }
      end
    end
  end
end
