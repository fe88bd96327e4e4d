# frozen_string_literal: true

module Gorvant
  module Server
    class MeasurementRequest < Request
      json do
        required(:from_node).filled(:string, max_size?: LINE)
        required(:to_node).filled(:string, max_size?: LINE)
        required(:instrument).filled(:string, included_in?: Meter.instruments.keys)
        required(:condition).value(:hash)
        optional(:function).filled(:string, included_in?: %w[volts_ac ohms])
        optional(:isolated).filled(:bool)
      end

      rule(:from_node, :to_node) do
        if values[:from_node] == values[:to_node]
          key(:to_node).failure("is the same point as from_node; put the probes on two points")
        end
      end
    end

    class ConditionRequest < Request
      json { required(:condition).value(:hash) }
    end

    class ExpectedRequest < Request
      json do
        required(:condition).value(:hash)
        required(:instrument).filled(:string, included_in?: Meter.instruments.keys)
      end
    end

    # A view and its options.
    DRAWN =
      Dry::Schema.JSON do
        required(:view).filled(:string, included_in?: Views::ALL.keys)
        optional(:opened).value(:array, max_size?: Request::ROWS).each(
          :string,
          included_in?: LoopView::Grid::FUNCTIONS.keys + ["all"]
        )
        optional(:at_rest).filled(:bool)
        optional(:panel).filled(:bool)
        optional(:load).filled(:string, max_size?: 40)
      end
    NO_LOOP_NAMED = "is missing; name the loop to unroll, such as CC"

    class TraceRequest < Request
      json do
        required(:condition).value(:hash)
        optional(:drawing).hash(DRAWN)
      end

      rule(:drawing) do
        drawing = values[:drawing]
        key(%i[drawing load]).failure(NO_LOOP_NAMED) if drawing && drawing[:view] == "focus" && !drawing[:load]
      end
    end

    class DrawingRequest < Request
      json(DRAWN) { required(:condition).value(:hash) }

      rule(:view, :load) { key(:load).failure(NO_LOOP_NAMED) if values[:view] == "focus" && !values[:load] }
    end

    class WayRequest < Request
      json do
        required(:condition).value(:hash)
        required(:to_node).filled(:string, max_size?: LINE)
        optional(:from_node).maybe(:string, max_size?: LINE)
      end
    end

    class TimelineRequest < Request
      json do
        required(:script).value(:hash)
        required(:duration_seconds).filled(NUMBER)
        optional(:from_seconds).filled(NUMBER, gteq?: 0.0)
        optional(:to_seconds).filled(NUMBER, gt?: 0.0)
        optional(:width).filled(:integer, gteq?: 100, lteq?: 4000)
      end

      rule(:from_seconds, :to_seconds) do
        if values[:to_seconds] && values[:to_seconds] <= values.data.fetch(:from_seconds, 0.0)
          key(:to_seconds).failure("has to be later than from_seconds")
        end
      end
    end

    class WhyRequest < Request
      json do
        required(:script).value(:hash)
        required(:duration_seconds).filled(NUMBER)
        required(:signal).filled(:string, max_size?: 60)
        required(:at_seconds).filled(NUMBER, gteq?: 0.0)
      end
    end

    class CourseRequest < Request
      json { required(:text).filled(:string, max_size?: 200_000) }
    end
  end
end
