# frozen_string_literal: true

require "set"

module Gorvant
  # Finds the state in which every contact agrees with its coil: solve, move contacts, solve again. All coils that want to
  # move do so together; if a state comes back, one at a time; if it still does not settle, the loop is chatter and is
  # returned with its members. A fuse that carries too much opens first and stays open.
  class Settling
    MOST_STEPS = 200

    # positions: { switch id => closed? } of switches that somebody or something sets.
    # held: { branch id => :open or :closed } overrides everything: broken, stuck, welded, lifted.
    # start: { load id => working? } to begin from; rest by default.
    def self.settle(netlist, positions: {}, held: {}, start: {})
      new(netlist, positions, held).settle(start)
    end

    def initialize(netlist, positions, held)
      @netlist = netlist
      (positions.keys + held.keys).each { |id| netlist[id] }
      @positions = positions
      @held = held
      @broken = held.filter_map { |id, state| id if state == :open && !netlist[id].switching? }.to_set
      @switching = netlist.branches.select(&:switching?)
      @fuses = @switching.select { |branch| branch.kind == :fuse }
      @movers = netlist.branches.select { |branch| branch.behaviour.works_above_volts_ac(branch, false) && !@broken.include?(branch.id) }
      @blown = []
      @solved = {}
    end

    def settle(start)
      working = @movers.to_h { |branch| [branch.id, start[branch.id] || false] }
      seen = {}
      single = false
      MOST_STEPS.times do
        closed = contacts(working)
        volts = solve(closed)
        next seen.clear if fuse_opens?(volts, closed, working)

        wanted = wants(volts, working)
        return solution(volts, working, closed) if wanted == working
        return chatter(working) if seen[[working, single]] && single

        single ||= seen.key?([working, single])
        seen[[working, single]] = true
        working = single ? move_one(working, wanted) : wanted
      end
      chatter(working)
    end

    # { switching branch id => closed? } with these loads working.
    def contacts(working)
      @switching.to_h do |branch|
        closed =
          if @blown.include?(branch.id) then false
          elsif @held.key?(branch.id) then @held[branch.id] == :closed
          else positioned(branch).behaviour.closed?(positioned(branch), working)
          end
        [branch.id, closed ? true : false]
      end
    end

    private

    def positioned(branch)
      return branch unless @positions.key?(branch.id)

      (@moved ||= {})[branch.id] ||= branch.with(props: branch.props.merge(closed: @positions[branch.id]))
    end

    # Sections whose contacts have not moved are not solved again, unless they follow another section.
    def solve(closed)
      @netlist.sections.each_with_object({}) do |section, volts|
        key = section.branches.filter_map { |branch| branch.id if closed[branch.id] }
        held = @solved[section]
        if held && held[0] == key && !section.follower?
          volts.merge!(held[1])
        else
          answer = section.solve(closed, open: @broken, volts: volts)
          @solved[section] = [key, answer]
          volts.merge!(answer)
        end
      end
    end

    def wants(volts, working)
      @movers.to_h do |branch|
        threshold = branch.behaviour.works_above_volts_ac(branch, working[branch.id])
        [branch.id, (volts[branch.to] - volts[branch.from]).abs >= threshold]
      end
    end

    def move_one(working, wanted)
      id = working.keys.find { |key| working[key] != wanted[key] }
      working.merge(id => wanted[id])
    end

    def fuse_opens?(volts, closed, working)
      @fuses.any? do |fuse|
        next false unless closed[fuse.id]

        state = Solution.new(netlist: @netlist, volts: volts, working: working, closed: closed, open: @broken)
        next false if fuse.behaviour.verdict(fuse, state.amps(fuse)) == :holds

        @before_blowing ||= state
        @blown << fuse.id
      end
    end

    def solution(volts, working, closed, cycle: [])
      Solution.new(netlist: @netlist, volts: volts, working: working, closed: closed, open: @broken, blown: @blown.dup,
                   before_blowing: @before_blowing, cycle: cycle)
    end

    # Walks the loop once more and keeps each of its states.
    def chatter(working)
      states = []
      until states.any? { |state| state.working == working } || states.size > @movers.size + 2
        closed = contacts(working)
        states << solution(solve(closed), working, closed)
        working = move_one(working, wants(states.last.volts, working))
      end
      first = states.index { |state| state.working == working } || 0
      last = states.last
      solution(last.volts, last.working, last.closed, cycle: states.drop(first))
    end
  end
end
