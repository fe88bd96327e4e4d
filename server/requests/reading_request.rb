# frozen_string_literal: true

module Gorvant
  module Server
    # A reading taken at the unit.
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

    # What to expect between two points.
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

    # What is live under a condition.
    class TraceRequest < Request
      json do
        required(:condition).value(:hash)
        optional(:instrument).filled(:string, included_in?: Meter.instruments.keys)
      end
    end

    # A drawing of what is live under a condition.
    class DrawingRequest < Request
      json do
        required(:condition).value(:hash)
        required(:view).filled(:string, included_in?: Views::ALL.keys)
        optional(:opened).value(:array, max_size?: ROWS).each(
          :string,
          included_in?: LoopView::Grid::FUNCTIONS.keys + ["all"]
        )
        optional(:at_rest).filled(:bool)
        optional(:panel).filled(:bool)
        optional(:load).filled(:string, max_size?: 40)
      end

      rule(:view, :load) do
        if values[:view] == "focus" && !values[:load]
          key(:load).failure("is missing; name the loop to unroll, such as CC")
        end
      end
    end

    # What lies between two points, or between R and one.
    class WayRequest < Request
      json do
        required(:condition).value(:hash)
        required(:to_node).filled(:string, max_size?: LINE)
        optional(:from_node).maybe(:string, max_size?: LINE)
      end
    end

    # A run over time, or the stretch of it that a width can show.
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

    # Why a signal stands as it does at a time.
    class WhyRequest < Request
      json do
        required(:script).value(:hash)
        required(:duration_seconds).filled(NUMBER)
        required(:signal).filled(:string, max_size?: 60)
        required(:at_seconds).filled(NUMBER, gteq?: 0.0)
      end
    end

    # Temperatures as CSV.
    class CourseRequest < Request
      json { required(:text).filled(:string, max_size?: 200_000) }
    end

    # Rungs as they were typed. against: "archetype" or the id of a rig to compare with.
    class NotationRequest < Request
      json do
        required(:text).value(:string, max_size?: 40_000)
        required(:name).filled(:string, max_size?: 120)
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
        optional(:view).filled(:string, included_in?: %w[loops ladder connections])
        optional(:panel).filled(:bool)
        optional(:against).maybe(:string, max_size?: 40)
      end
    end

    # A rig file to keep in the library.
    class RigRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:rig).value(:hash)
      end

      rule(:rig).validate(:named_rig)
    end

    # A changed rig, with the version that the change was made on.
    class RevisionRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:rig).value(:hash)
      end

      rule(:rig).validate(:named_rig)
    end

    # Answers of the composer: on top of a rig file, or from nothing.
    class CompositionRequest < Request
      json do
        required(:name).filled(:string, max_size?: 120)
        required(:facts).value(:hash)
        optional(:base).maybe(:hash)
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
      end

      rule(:name).validate(:plain_text, :named)
    end
  end
end
