# frozen_string_literal: true

module Gorvant
  module Server
    # What the pages of a visit or a rig ask, answered from its row: the same here and, with the engine taken along, on
    # a device without signal. No HTTP, no database, no gem. A row is a Hash with digest, content (the rig file), and of
    # a visit its weather, its desks and what it was told. input: the question as a request's `parse` gives it.
    class Answers
      # memory: keeps answers as text (`recall(kind, *parts) { text }`, `get(key)`).
      # readings: of visits (`of_standing(visit_id)`, `standing_in(visit_id, call)`); nil where there are none.
      def initialize(memory, readings = nil)
        @memory = memory
        @readings = readings
      end

      # Keys as they came in JSON, from a parsed condition. row: a rig's, or a visit's, whose weather holds where the
      # condition says none. What the rig does not follow is left out, so that answers which are the same are worked out
      # once.
      def condition(hash, row)
        given = deep_strings(hash)
        weather =
          (
            if row[:outdoor_degrees_f] && given.is_a?(Hash) && !given.key?("outdoor_degrees_f")
              { "outdoor_degrees_f" => row[:outdoor_degrees_f] }
            else
              {}
            end
          )
        Condition.parse(weather.empty? ? given : given.merge(weather)).for_rig(Warm.rig(row))
      end

      def deep_strings(value)
        case value
        when Hash
          value.to_h { |key, inner| [key.to_s, deep_strings(inner)] }
        when Array
          value.map { |inner| deep_strings(inner) }
        else
          value
        end
      end

      # What a row of readings holds of what was read; what was expected is worked out here, from the visit's own rig
      # revision, never taken from outside.
      def reading(row, input)
        condition = condition(input[:condition], row)
        trace = Warm.trace(row, condition)
        observation = Observation.parse(deep_strings(input), trace)
        judged = Held.against(trace, observation)
        input.slice(:moment, :taken_at, :note, :supersedes_id).merge(
          visit_id: row[:id],
          rig_revision_id: row[:rig_revision_id],
          condition: condition.to_json_hash,
          **ReadingRow.columns(observation, judged, Present.judged(judged))
        )
      end

      # Rows of readings as JSON, in their order.
      def readings(row, rows)
        netlist = Warm.netlist(row)
        later = rows.to_h { |one| [one[:supersedes_id], one[:id]] }
        rows.map { |one| Present.reading(one, netlist, later[one[:id]]) }
      end

      # What a spoken line is taken for, and what it says after that, to be looked at before it is kept. units: those
      # that the person reads in, and means where none is said.
      def saying(row, input, units = [])
        remembered = input.slice(:call, :at, :meter)
        line = SayingLine.new(Warm.rig(row), **remembered, chosen: input.fetch(:chosen, {}), units: units)
        told = line.read(input[:text])
        { ways: told.ways.map { |way| said(way, row) }, rest: told.rest }
      end

      private

      attr_reader :memory

      def said(way, row)
        trace = Warm.trace(row, condition({ "call" => way.call || "off" }, row))
        observation = Observation.parse(way.given, trace)
        {
          given: way.given,
          title: Observation.functions.fetch(observation.function).fetch("title"),
          where: observation.whereabouts(Warm.netlist(row)),
          reads: observation.says,
          call: way.call,
          at: way.at,
          meter: way.given["instrument"],
          note: way.given["note"],
          left: way.left
        }
      end

      def recalled(kind, *parts) = memory.recall(kind, *parts) { JSON.generate(yield) }
    end
  end
end
