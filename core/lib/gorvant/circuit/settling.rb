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
      positions.each_key { |id| netlist[id] }
      @positions = positions
      @held = held
      @broken = held.filter_map { |id, state| id if state == :open && !netlist[id].switching? }.to_set
      @movers = @broken.empty? ? netlist.movers : netlist.movers.reject { |branch| @broken.include?(branch.id) }
      @blown = []
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
      @netlist.switching.each_with_object({}) do |branch, closed|
        id = branch.id
        closed[id] =
          if @blown.include?(id) then false
          elsif (held = @held[id]) then held == :closed
          else branch.behaviour.closed?(branch, working, @positions[id])
          end
      end
    end

    private

    # A section that follows nothing keeps its answers itself.
    def solve(closed)
      @netlist.sections.each_with_object({}) do |section, volts|
        volts.merge!(section.solve(closed, open: @broken, volts: volts))
      end
    end

    def wants(volts, working)
      @movers.each_with_object({}) do |branch, wanted|
        id = branch.id
        wanted[id] = (volts[branch.to] - volts[branch.from]).abs >= branch.behaviour.works_above_volts_ac(branch, working[id])
      end
    end

    def move_one(working, wanted)
      id = working.keys.find { |key| working[key] != wanted[key] }
      working.merge(id => wanted[id])
    end

    def fuse_opens?(volts, closed, working)
      @netlist.fuses.any? do |fuse|
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
