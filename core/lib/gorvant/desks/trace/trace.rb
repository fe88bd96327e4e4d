# frozen_string_literal: true

module Gorvant
  module Desks
    # What was read against what should be. Readings agree as far as calls were read.
    module Trace
      def self.standing(record)
        calls = Outputs.calls(record.rig)
        read = record.agreeing_calls & calls
        Standing.of("trace", wrong: record.disagreeing.positive?, looked_at: titles(read), taken: titles(calls - read))
      end

      # What was done by hand and what was taken apart to be read.
      def self.put_back(record) = Acts.new(record.rig, record.reads).lines + isolated(record)

      # Every reading that stands, as it was held against the circuit.
      def self.report(record)
        return [Blocks.text(Catalogue.words("report.no_readings"))] if record.reads.empty?

        netlist = Assembly.netlist(record.rig)
        rows = record.reads.last(MOST_PRINTED).map { |read| row(read, netlist) }
        left = record.reads.size - rows.size
        [
          (Blocks.text(Catalogue.words("report.readings_left", count: left)) if left.positive?),
          Blocks.table(%w[when call where read held by].map { |key| Catalogue.words("report.head_#{key}") }, rows)
        ].compact
      end

      MOST_PRINTED = 600

      def self.row(read, netlist)
        [
          Blocks.at(read.at),
          titles([read.condition.call]).first,
          read.observation.whereabouts(netlist),
          "#{Blocks.sign(read.verdict)} #{read.observation.says}",
          read.held.to_s,
          Blocks.cell([read.note, read.by].reject { |part| part.to_s.empty? }.join(", "))
        ]
      end
      private_class_method :row

      def self.isolated(record)
        netlist = Assembly.netlist(record.rig)
        apart = record.reads.select { |read| read.observation.isolated }
        apart
          .map { |read| read.observation.whereabouts(netlist) }
          .uniq
          .map do |where|
            PutBack.new(id: PutBack.id("isolated", where), says: Catalogue.words("put_back.isolated", where: where))
          end
      end
      private_class_method :isolated

      def self.titles(ids) = ids.map { |id| Catalogue.calls.fetch(id).fetch("title") }
      private_class_method :titles
    end
  end
end
