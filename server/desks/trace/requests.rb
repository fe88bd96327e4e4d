# frozen_string_literal: true

module Gorvant
  module Server
    # The outside of a reading; what it reads is Observation's to check against the rig in hand.
    class SayingRequest < Request
      METERS = Observation.functions.fetch("volts_ac").fetch("instruments")

      json do
        required(:text).filled(:string, max_size?: 200)
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
        optional(:at).filled(:string, included_in?: %w[wall air_handler outdoor])
        optional(:meter).filled(:string, included_in?: METERS)
        optional(:chosen).hash do
          optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
          optional(:at).filled(:string, included_in?: %w[wall air_handler outdoor])
          optional(:meter).filled(:string, included_in?: METERS)
        end
      end
    end

    class ReadingsTableRequest < Request
      json { required(:text).filled(:string, max_size?: 1_000_000) }
    end

    class ReadingRequest < Request
      MOST_MINUTES = 60 * 24 * 30
      MOST_AHEAD_SECONDS = 60.0 * 60 * 24 * 366 * 10

      json do
        required(:id).filled(:string, format?: UUID)
        required(:function).filled(:string, max_size?: 40)
        optional(:from_node).maybe(:string, max_size?: LINE)
        optional(:to_node).maybe(:string, max_size?: LINE)
        optional(:place).maybe(:string, max_size?: LINE)
        optional(:value).maybe(NUMBER)
        optional(:value_high).maybe(NUMBER)
        optional(:about).filled(:bool)
        optional(:open).filled(:bool)
        optional(:isolated).filled(:bool)
        optional(:choice)
        optional(:instrument).maybe(:string, max_size?: 40)
        required(:condition).value(:hash)
        optional(:moment).hash do
          optional(:compressor_stopped_minutes).filled(NUMBER, gteq?: 0.0, lteq?: MOST_MINUTES)
          optional(:coil_degrees_f).filled(NUMBER, gteq?: -80.0, lteq?: 200.0)
          optional(:outdoor_degrees_f).filled(NUMBER, gteq?: -80.0, lteq?: 150.0)
          optional(:device_ahead_seconds).filled(NUMBER, gteq?: -MOST_AHEAD_SECONDS, lteq?: MOST_AHEAD_SECONDS)
        end
        required(:taken_at).filled(:time)
        optional(:note).value(:string, max_size?: TEXT)
        optional(:supersedes_id).filled(:string, format?: UUID)
      end

      rule(:note).validate(:plain_text)
    end
  end
end
