# frozen_string_literal: true

module Gorvant
  module Practice
    # The hidden unit at one instant of the bench: its circuit, solved, and what eye, ear and hand find.
    class UnitAt
      attr_reader :condition, :timeline, :at

      # rig: as it really is; seconds: of the run; truth: Truth; bench_seconds: of the bench.
      def initialize(rig, timeline, seconds, truth, bench_seconds)
        @rig = rig
        @timeline = timeline
        @at = seconds
        @truth = truth
        @there = truth.there?(bench_seconds)
        @condition = with_fuse(timeline.condition_at(seconds))
      end

      def trace = @trace ||= Trace.new(@rig, condition)
      def solution = trace.solution

      # Expected of a meter between two points, nil where the unit as it stands does not have them.
      def volts(from, to, instrument)
        return nil unless [from, to].all? { |node| trace.netlist.node?(node) }

        trace.meter(instrument).read(from, to)
      end

      def ohms(from, to, isolated)
        return nil unless [from, to].all? { |node| trace.netlist.node?(node) }

        trace.ohms(from, to, isolated: isolated).ohms
      end

      def body = @body ||= Diagnosis::Body.new(@rig, hypothesis, solution, Diagnosis::Points.new(trace.netlist))
      def signal?(id) = timeline.signals.any? { |one| one.id == id } && timeline.value_at(id, at) == true
      def defrosting? = signal?("defrost")
      def holding? = signal?("hold")

      # °F of a curve: coil, outdoor, room.
      def degrees(curve)
        points = timeline.curves.find { |one| one.id == curve }&.points or return nil
        before = points.reverse_each.find { |second, _value| second <= at } || points.first
        after = points.find { |second, _value| second > at } || before
        return before[1] if after[0] == before[0]

        before[1] + ((after[1] - before[1]) * (at - before[0]) / (after[0] - before[0]))
      end

      # Minutes since the compressor last stopped in this run; nil where it runs, or never stopped.
      def stopped_minutes
        return nil if signal?("COMP")

        last = timeline.last_event("COMP", at)
        last && ((at - last.seconds) / 60.0)
      end

      # Minutes for which a signal has been on, nil where it is off.
      def live_minutes(id)
        return nil unless signal?(id)

        last = timeline.last_event(id, at)
        (at - (last ? last.seconds : 0.0)) / 60.0
      end

      # { joint => node that it is on, nil for on none } of the field wires at a place.
      def landings(place)
        netlist = trace.netlist
        off = condition.faults.select { |fault| fault["kind"] == "lifted" }.map { |fault| fault["at"] }
        Act
          .joints(netlist)
          .select { |id| id.end_with?("@#{place}") }
          .to_h { |id| [id, off.include?(id) ? nil : netlist[id].from] }
      end

      private

      def hypothesis
        whole = @truth.whole
        @there ? whole : whole.with(senses: {}.freeze)
      end

      # Nobody fits a new fuse by the way: once it has gone it stays so.
      def with_fuse(now)
        blown = timeline.signals.any? { |one| one.id == "FU" } && timeline.value_at("FU", at) == false
        return now unless blown

        now.with(faults: now.faults | [{ "kind" => "stuck_open", "at" => "FU" }])
      end
    end
  end
end
