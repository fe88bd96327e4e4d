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

      def self.titles(ids) = ids.map { |id| Catalogue.calls.fetch(id).fetch("title") }
      private_class_method :titles
    end
  end
end
