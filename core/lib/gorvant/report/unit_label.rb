# frozen_string_literal: true

module Gorvant
  # What goes on a sticker inside the panel: how the unit is set up, in a few words.
  module UnitLabel
    FACTS = %w[
      changeover
      defrost_interval_minutes
      defrost_limit_minutes
      outdoor_thermostat_closes_degrees_f
      compressor_balance_degrees_f
      auxiliary_balance_degrees_f
    ].freeze

    class << self
      # [[title, words]]; what nobody has read says so.
      def lines(rig)
        FACTS
          .select { |key| rig.asks?(key) && shown?(rig, key) }
          .map do |key|
            value = Comparison.words(key, rig[key])
            [
              Catalogue.facts.fetch(key)["title"],
              rig.assumed.include?(key) ? Catalogue.words("report.unread", value: value) : value
            ]
          end
      end

      private

      def shown?(rig, key) = !key.end_with?("balance_degrees_f") || rig[:balance_points]
    end
  end
end
