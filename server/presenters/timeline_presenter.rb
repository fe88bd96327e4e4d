# frozen_string_literal: true

module Gorvant
  module Server
    # A run over time as JSON: all events with their causes; signals and curves of one stretch, thinned to its width;
    # and the condition of every instant, so that any drawing can show it.
    class TimelinePresenter
      def initialize(timeline, from:, to:, width:)
        @timeline = timeline
        @window = Window.new(timeline, from: [from, to - 1].min.clamp(0.0, nil), to: to, width: width)
      end

      def to_h
        {
          duration_seconds: @timeline.duration_seconds,
          from_seconds: @window.from,
          to_seconds: @window.to,
          events: @timeline.events.map(&:to_h),
          signals: @window.signals.map(&:to_h),
          curves: @window.curves.map(&:to_h),
          first_lanes: @timeline.first_lanes,
          first_curves: @timeline.first_curves,
          instants: @timeline.instants,
          conditions: @timeline.conditions.map(&:to_json_hash),
          refrigerant: Refrigerant.of(@timeline).map(&:to_h),
          findings:
            @timeline.findings.map do |noticed|
              FindingPresenter.new(noticed.finding).to_h.merge(seconds: noticed.seconds)
            end
        }
      end
    end
  end
end
