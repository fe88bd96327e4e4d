# frozen_string_literal: true

module Gorvant
  module Server
    class ReadingRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:from_node).filled(:string, max_size?: LINE)
        required(:to_node).filled(:string, max_size?: LINE)
        required(:value_volts_ac).filled(NUMBER, gteq?: 0.0, lteq?: 1000.0)
        required(:instrument).filled(:string, included_in?: Meter.instruments.keys)
        required(:condition).value(:hash)
        required(:taken_at).filled(:time)
        optional(:note).value(:string, max_size?: TEXT)
        optional(:supersedes_id).filled(:string, format?: UUID)
      end

      rule(:note).validate(:plain_text)
      rule(:from_node, :to_node) do
        if values[:from_node] == values[:to_node]
          key(:to_node).failure("is the same point as from_node; put the probes on two points")
        end
      end
    end
  end
end
