# frozen_string_literal: true

module Gorvant
  # The shortest way between two points of a trace, and what lies on it.
  class Way
    # One thing on the way. kind: point, device, cable or load; id: node or branch; open: where it breaks the way.
    Stop = Value.define(:kind, :id, :label, :open, :nodes)

    attr_reader :stops

    # Raises UnknownNode. Without `from` the way begins where 24 V does.
    def initialize(trace, to, from = nil)
      @trace = trace
      @netlist = trace.netlist
      @from = from || (trace.low_voltage?(to) ? Assembly::HOT : Assembly::LINE_HOT)
      [@from, to].each { |node| @netlist.fetch_node(node) }
      @steps = Paths.new(trace.solution, @from).to(to)
      @stops = @steps ? [point(@from), *@steps.flat_map { |step| stops_of(step) }, point(to)].uniq(&:id) : []
    end

    # nil where nothing leads there; then there is no way at all.
    def found? = !@steps.nil?
    def open = stops.select(&:open)
    def nodes = stops.flat_map(&:nodes).uniq
    def branches = @steps ? @steps.map { |step| step.branch.id } : []

    # A sentence.
    def says
      return Catalogue.words("way.none", first: @netlist.label(@from)) unless found?
      return Catalogue.words("way.open", links: open.map(&:label).join(" and ")) if open.any?

      loads = stops.select { |stop| stop.kind == "load" }
      loads.any? ? Catalogue.words("way.load", links: loads.map(&:label).join(" and ")) : Catalogue.words("way.whole")
    end

    private

    def point(node) = Stop.new(kind: "point", id: node, label: @netlist.label(node), open: false, nodes: [node])

    def stops_of(step)
      branch = step.branch
      kind =
        if branch.load?
          "load"
        elsif branch.switching?
          "device"
        else
          branch.component && !branch.id.include?("@") ? "cable" : nil
        end
      here =
        (
          if kind || step.open?
            [
              Stop.new(
                kind: kind || "device",
                id: branch.id,
                label: branch.label,
                open: step.open?,
                nodes: [step.from, step.to]
              )
            ]
          else
            []
          end
        )
      terminal?(step.to) ? here + [point(step.to)] : here
    end

    def terminal?(node) = node.count(".") == 1 || (node.start_with?("outdoor.board.") && @netlist.labels.key?(node))
  end
end
