# frozen_string_literal: true

module Gorvant
  # A way in which a circuit differs from what was meant, read from JSON such as {"kind": "open", "at": "DTS"}. Its
  # words stand in core/data/faults.yml; how it changes a circuit, in a class of faults/kinds.rb: what the rig is set up
  # to (`refit`), a netlist with other branches, or branches held open or closed.
  class Fault
    class << self
      def register(*kinds) = kinds.each { |kind| Fault.registry[kind] = self }
      def registry = @registry ||= {}

      # From parsed JSON. field: JSON pointer for errors. Raises BadCondition.
      def parse(given, field = "/fault")
        kind = registry[given["kind"]] or
          raise BadCondition.new(
                  field: "#{field}/kind",
                  problem: "unknown kind of fault '#{given["kind"]}'; known are #{registry.keys.join(", ")}"
                )
        kind.new(given, field)
      end

      def parse_all(list) = list.each_with_index.map { |given, i| parse(given, "/condition/faults/#{i}") }

      # [netlist, held] with all faults in, beside what is held already.
      def inject(netlist, faults, held = {})
        faults.inject([netlist, held]) { |(changed, so_far), fault| fault.inject(changed, so_far) }
      end
    end

    attr_reader :given

    def initialize(given, field)
      @given = given
      @field = field
    end

    def kind = given.fetch("kind")
    def about = Catalogue.faults.fetch(kind)

    # A rig with another set-up, for the faults that lie there.
    def refit(rig) = rig
    # [netlist, held] with this fault in.
    def inject(netlist, held) = [netlist, held]
    # Whether it leaves every voltage as it was.
    def mechanical? = false
    # What a person calls it, on this netlist.
    def title(netlist) = format(about.fetch("title"), at: places(netlist))

    private

    def places(netlist) =
      Array(given["at"]).map { |at| netlist.branch?(at) ? netlist[at].label : netlist.label(at) }.join(" and ")
    def wrong(problem, part = "at") = raise(BadCondition.new(field: "#{@field}/#{part}", problem: problem))

    def branch(netlist, id = given["at"])
      netlist[id.to_s]
    rescue UnknownBranch => e
      wrong(e.message)
    end

    def node(netlist, node, part = "at")
      netlist.fetch_node(node.to_s)
    rescue UnknownNode => e
      wrong(e.message, part)
    end
  end
end
