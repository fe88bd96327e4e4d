# frozen_string_literal: true

module Gorvant
  module Server
    # What a circuit answers, whether it is reached by a rig or by a visit.
    class Answers
      # What is live, worked out once for each rig revision and condition; with a drawing of it where one is asked for.
      def trace(row, input)
        condition = condition(input[:condition], row)
        trace =
          recalled("trace", row[:digest], condition.to_json_hash) do
            TracePresenter.new(Warm.trace(row, condition)).to_h(moments(row, condition))
          end
        return trace unless input[:drawing]

        "#{trace.delete_suffix("}")},\"scene\":#{drawn(row, condition, input[:drawing], "/drawing")}}"
      end

      # The table of what an instrument should show, point to point.
      def expected(row, input)
        condition = condition(input[:condition], row)
        recalled("expected", row[:digest], condition.to_json_hash, input[:instrument]) do
          TracePresenter.new(Warm.trace(row, condition)).expected(input[:instrument])
        end
      end

      # What the meter should show between two points: volts, or ohms with the power off.
      def measurement(row, input)
        trace = Warm.trace(row, condition(input[:condition], row))
        points = known(trace, input, :from_node, :to_node)
        if input[:function] == "ohms"
          Present.ohms(trace.ohms(*points, isolated: input.fetch(:isolated, false)))
        else
          Present.expected(*trace.reading(*points, input[:instrument]))
        end
      end

      # One view of the circuit as a Scene.
      def drawing(row, input) = drawn(row, condition(input[:condition], row), input.except(:condition))

      # [Scene, state in words] of the same, for a file.
      def scene(row, input)
        condition = condition(input[:condition], row)
        trace = Warm.trace(row, condition)
        options = input.except(:condition, :view).merge(taken_for(row, input[:view], condition))
        [at("/load") { Views.scene(input[:view], trace, options) }, Views.state_words(trace)]
      end

      # Codes, symbols and line styles of the rig in hand, as they stand.
      def legend(row, input)
        condition = condition(input[:condition], row)
        recalled("legend", row[:digest], condition.to_json_hash) { Present.legend(Warm.trace(row, condition)) }
      end

      # What happens over time, thinned to what a width can show.
      def timeline(row, input)
        recalled("timeline", row[:digest], input) do
          timeline = run(row, input)
          TimelinePresenter.new(
            timeline,
            from: input.fetch(:from_seconds, 0.0),
            to: [input.fetch(:to_seconds, Float::INFINITY), timeline.duration_seconds].min,
            width: input.fetch(:width, 1200)
          ).to_h
        end
      end

      # Why something is on or off at a time, and when it will be otherwise.
      def why(row, input)
        timeline = run(row, input)
        at = [input[:at_seconds], timeline.duration_seconds].min
        Present.why(Chain.new(timeline, input[:signal], at), input[:at_seconds])
      end

      # The Timeline of a script.
      def run(row, input)
        Warm.timeline(row, Script.parse(deep_strings(input[:script]), input[:duration_seconds]))
      end

      # The shortest way for 24 V to a point, or what lies between two.
      def way(row, input)
        trace = Warm.trace(row, condition(input[:condition], row))
        Present.way(Way.new(trace, *known(trace, input, :to_node, :from_node)))
      end

      # Every single fault that the rig can have, with its words.
      def faults(row, _input = nil) = recalled("faults", row[:digest]) { { faults: Present.faults(Warm.rig(row)) } }

      private

      # The instants of a defrost that can be shown; none for another call.
      def moments(row, condition) = condition.call == "defrost" ? Warm.moments(row) : {}

      # [node] of these fields, nil of what is left out. Raises BadCondition at what is no point of the unit.
      def known(trace, input, *fields)
        fields.each { |field| at("/#{field}") { trace.netlist.fetch_node(input[field]) } if input[field] }
        input.values_at(*fields)
      end

      def at(field)
        yield
      rescue UnknownNode, UnknownBranch => e
        raise BadCondition.new(field: field, problem: e.message)
      end

      # A drawing as text. asked: view and options; field: where they stand in what was sent.
      def drawn(row, condition, asked, field = "")
        options = asked.except(:view).merge(taken_for(row, asked[:view], condition))
        recalled("drawing", row[:digest], condition.to_json_hash, asked[:view], options) do
          trace = Warm.trace(row, condition)
          ScenePresenter.new(at("#{field}/load") { Views.scene(asked[:view], trace, options) }).to_h
        end
      end

      # In one unrolled loop: over a point stands what was read there to C, over a device what was read across it. Only
      # a visit has any.
      def taken_for(row, view, condition)
        return {} unless @readings && view == "focus"

        mine = @readings.standing_in(row[:id], condition.call)
        { taken: mine.to_h { |one| [Present.taken_at(one), mark(one)] } }
      end

      def mark(one)
        reads = ReadingRow.observation(one).says.delete_suffix(" V")
        "#{reads} #{one[:verdict] == "agrees" ? "=" : "≠"}"
      end
    end
  end
end
