# frozen_string_literal: true

module Gorvant
  class LoopView
    # What a call leaves out of the drawing: functions whose points carry nothing and where nothing is broken or joined
    # to the rest, only as many as it takes for the drawing to fit.
    class Fold
      FITS = 656 # pixels that a screen of 800 leaves for it

      # height: answers the height of the drawing with these functions folded.
      def initialize(trace, opened, &height)
        @trace = trace
        @rig = trace.rig
        @opened = opened
        @height = height
      end

      # Keys of Grid::FUNCTIONS.
      def chosen
        (Grid::FUNCTIONS.keys.select { |name| idle?(name) } - @opened).inject([]) do |folded, name|
          break folded if @height.call(folded) <= FITS

          folded + [name]
        end
      end

      private

      def idle?(name)
        columns = Grid::FUNCTIONS.fetch(name)
        nodes =
          @rig
            .layout
            .fetch("places")
            .keys
            .flat_map { |place| @rig.terminals(place).map { |terminal| [place, terminal] } }
        inside, outside = nodes.partition { |_place, terminal| columns.include?(Grid.key(@rig, terminal)) }
        inside.any? &&
          inside.none? { |place, terminal| %w[live between].include?(@trace.state("#{place}.#{terminal}")) } &&
          apart?(inside, outside) && whole?(inside)
      end

      # No conductor or jumper joins it to another function.
      def apart?(inside, outside)
        ends =
          @rig.cables.flat_map do |cable|
            cable.conductors.map { |conductor| [[cable.from, conductor.from], [cable.to, conductor.to]] }
          end + @rig.jumpers.map { |jumper| [[jumper.place, jumper.from], [jumper.place, jumper.to]] }
        ends.none? { |pair| pair.any? { |one| inside.include?(one) } && pair.any? { |one| outside.include?(one) } }
      end

      # What somebody supposed or broke there has to be seen.
      def whole?(inside)
        condition = @trace.condition
        touched =
          condition.switches.keys + condition.faults.flat_map { |fault| Array(fault["at"]) + [fault["to"]] }.compact
        touched.none? do |at|
          branch = @trace.netlist.branch?(at) ? @trace.netlist[at] : nil
          points = branch ? [branch.from, branch.to] : [at]
          points.any? { |point| inside.any? { |place, terminal| near?(point, "#{place}.#{terminal}") } }
        end
      end

      # Whether a point is a terminal or wire alone lies between.
      def near?(point, terminal)
        return true if point == terminal

        steps = (@ways ||= {})[terminal] ||= Paths.new(@trace.solution, terminal)
        (steps.to(point) || [nil]).all? { |step| step && step.branch.kind == :wire }
      end
    end
  end
end
