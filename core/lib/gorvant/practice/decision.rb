# frozen_string_literal: true

module Gorvant
  module Practice
    # What a learner says that it is: { "kind", "at" => id or [ids], "value" } as practice.yml, `decisions`, asks for.
    # Put together from a kind and a place, so that no list has to hold the answer.
    module Decision
      class << self
        # { kind => what has to be named beside it }
        def kinds = Practice.numbers.fetch("decisions").values.map { |group| group.fetch("kinds") }.inject(:merge)

        # Title of a kind, as it is offered.
        def title(kind) = Practice.numbers.fetch("kinds").fetch(kind)

        # Id of the hypothesis of a library that is meant. Raises BadAct where the unit can have no such thing.
        def resolve(library, given)
          unless given.is_a?(Hash)
            wrong("", "has to be an object such as {\"kind\": \"open\", \"at\": \"cable_a.red\"}")
          end
          kind = given["kind"]
          wrong("/kind", "has to be one of #{kinds.keys.join(", ")}") unless kinds.key?(kind)

          found = library.hypotheses.find { |one| one.kind == kind && !one.steady && meant?(library, one, given) }
          found ? found.id : wrong("/at", "this unit cannot have that there; look at the place again")
        end

        private

        def wrong(field, problem) = raise(BadAct.new(field: "/decision#{field}", problem: problem))

        def meant?(library, one, given)
          ats = Array(given["at"]).map(&:to_s)
          case kinds.fetch(given["kind"])
          when "points"
            nets(library, points(one)) == nets(library, ats)
          when "joint_to"
            one.at == ats.first && nets(library, [one.faults.first["to"]]) == nets(library, [given["value"].to_s])
          when "design"
            one.id == ats.first
          else
            meant_by_itself?(one, ats, given["value"], kinds.fetch(given["kind"]))
          end
        end

        # Of a kind that no net of the unit has to be looked up for.
        def meant_by_itself?(one, ats, value, kind)
          case kind
          when "setting"
            Diagnosis.facts_of(one) == { ats.first => value }
          when "position"
            one.senses["valve"] == value
          when "drift"
            one.at == ats.first && by(one).positive? == (value == "high")
          else
            points(one).sort == ats.sort || one.at == ats.first
          end
        end

        def points(one) = Array(one.faults.first&.fetch("at", nil))

        def by(one) = one.faults.first.fetch("by_degrees_f", 0.0)

        # Points that plain wire joins are one: a short is the same wherever along it one names it.
        def nets(library, nodes)
          netlist = library.situation.netlist
          @nets ||= {}.compare_by_identity
          @nets.shift if @nets.size > 8 && !@nets.key?(netlist)
          islands =
            @nets[netlist] ||= Islands.new(netlist.nodes, netlist.branches.select { |branch| branch.kind == :wire }, [])
          nodes.map { |node| netlist.node?(node) ? islands.root(node) : node }.sort_by(&:to_s)
        end
      end
    end
  end
end
