# frozen_string_literal: true

module Gorvant
  class RecordedCycles
    # A defrost while it is being read.
    class Draft
      FIELDS = RecordedDefrost.members
      attr_accessor(
        *FIELDS,
        :coldest,
        :stopped,
        :end_coil_at,
        :fan_on,
        :fan_all,
        :supply_before,
        :vapor_start,
        :closed,
        :over
      )

      def initialize(**given)
        @path = []
        @fan_on = @fan_all = 0.0
        given.each { |key, value| public_send(:"#{key}=", value) }
      end

      def value
        self.fan_on_share = (@fan_on / @fan_all).round(3) if @fan_all.positive?
        RecordedDefrost.new(**FIELDS.to_h { |field| [field, rounded(public_send(field))] })
      end

      private

      def rounded(value) = value.is_a?(Float) && value.abs < 1e7 ? value.round(2) : value
    end
  end
end
