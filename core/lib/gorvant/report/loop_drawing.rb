# frozen_string_literal: true

module Gorvant
  # The loop that a finding breaks, drawn with the break marked and the readings that stand on it.
  module LoopDrawing
    class << self
      # faults: of the finding, as JSON has them. condition: of the reading that failed, nil for none. taken: { node or
      # pair => words } as the focus view has it. A block, or nil where the finding opens no loop.
      def block(rig, faults, condition, taken: {})
        return nil if faults.empty?

        found = [condition, *calls(rig)].compact.uniq.lazy.filter_map { |one| broken(rig, faults, one) }.first or
          return nil
        trace, load = found
        scene = Views.scene("focus", trace, { load: load, taken: taken })
        Blocks.drawing(scene.title, Formats::Svg.dump(scene, state: Views.state_words(trace)))
      end

      private

      def calls(rig) = Outputs.calls(rig).map { |id| Condition.new(call: id) }

      # [trace of the unit with the faults, load that they stop], nil where they stop none in this call.
      def broken(rig, faults, condition)
        whole = Trace.new(rig, condition.with(faults: []))
        trace = Trace.new(rig, condition.with(faults: faults))
        load = whole.loads.find { |one| one.on && !trace.works?(one.code) && low_voltage?(trace, one.code) }
        load ||= whole.loads.find { |one| one.on && !trace.works?(one.code) }
        load && [trace, load.code]
      rescue BadCondition
        nil
      end

      def low_voltage?(trace, code) = trace.low_voltage?(trace.netlist[code].from)
    end
  end
end
