# frozen_string_literal: true

module Gorvant
  # A way in which a circuit differs from what was meant. Each kind knows how it changes a netlist: by holding branches open
  # or closed (`held`), or by adding a branch (`netlist`). Adding a class with `register` adds a kind.
  class Fault
    class << self
      def register(kind) = (Fault.registry[kind] = self)
      def registry = @registry ||= {}

      # From parsed JSON, e.g. {"kind": "open", "at": "DTS"}. field: JSON pointer for errors.
      def parse(given, field)
        kind = registry[given["kind"]] or
          raise BadCondition.new(field: "#{field}/kind", problem: "unknown kind of fault '#{given['kind']}'; known are #{registry.keys.join(', ')}")
        kind.new(given, field)
      end

      # [netlist, held] with all faults of a condition in.
      def inject(netlist, faults)
        faults.each_with_index.inject([netlist, {}]) do |(changed, held), (given, i)|
          parse(given, "/condition/faults/#{i}").inject(changed, held)
        end
      end
    end

    def initialize(given, field)
      @given = given
      @field = field
    end

    private

    def wrong(problem) = raise(BadCondition.new(field: "#{@field}/at", problem: problem))

    def branch(netlist)
      netlist[@given["at"].to_s]
    rescue UnknownBranch => e
      wrong(e.message)
    end
  end

  module Faults
    # A conductor, joint, coil or load that no longer conducts, or a wire taken off.
    class Open < Fault
      register "open"
      def inject(netlist, held) = [netlist, held.merge(branch(netlist).id => :open)]
    end

    # A switch or contact that does not move.
    class Stuck < Fault
      Fault.registry["stuck_open"] = self
      Fault.registry["stuck_closed"] = self

      def inject(netlist, held)
        branch = branch(netlist)
        wrong("'#{branch.id}' is neither switch nor contact, so it cannot be stuck") unless branch.switching?
        [netlist, held.merge(branch.id => @given["kind"] == "stuck_open" ? :open : :closed)]
      end
    end

    # Two points that touch and should not.
    class Short < Fault
      register "short"

      def inject(netlist, held)
        first, second = points(netlist)
        id = "short.#{[first, second].sort.join('~')}"
        bridge = Branch.new(id: id, kind: :wire, from: first, to: second,
                            props: { ohms: Catalogue.profile.fetch("joint_ohms"), label: "short #{netlist.label(first)}–#{netlist.label(second)}" }.freeze)
        [netlist.with(bridge), held]
      end

      private

      def points(netlist)
        points = @given["at"]
        wrong("has to be two different points") unless points.is_a?(Array) && points.size == 2 && points.uniq.size == 2
        points.map { |node| netlist.fetch_node(node) }
      rescue UnknownNode => e
        wrong(e.message)
      end
    end
  end
end
