# frozen_string_literal: true

require "set"

module Gorvant
  # Finds the state in which every contact agrees with its coil: solve, move contacts, solve again. All coils that want
  # to move do so together; if a state comes back, one at a time; if it still does not settle, the loop is chatter and
  # is returned with its members. A fuse that carries too much opens first and stays open.
  # Inside, loads, contacts and answers go by their positions in the netlist's Relays.
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
      @relays = netlist.relays
      @contacts = @relays.contacts
      @rest = @contacts.rest.dup
      @live = @contacts.live.dup
      positions.each { |id, position| place(id, position) }
      held.each { |id, state| hold(id, state == :closed) if netlist[id].switching? }
      @broken = held.filter_map { |id, state| id if state == :open && !netlist[id].switching? }.to_set
      @broken_ids = @broken.to_a.sort
      @parts = @relays.parts.map { |part| [part, @broken.empty? ? [] : part.section.broken(@broken)] }
      @thresholds = @broken.empty? ? @relays.thresholds : thresholds_of_whole
      @blown = []
    end

    def settle(start)
      working = @relays.ids.map { |id| start[id] || false }
      seen = {}
      single = false
      MOST_STEPS.times do
        Patience.check!
        flags = flags(working)
        answers = solve(flags)
        next seen.clear if fuse_opens?(answers, flags, working)

        wanted = wants(answers, working)
        return solution(answers, working, flags) if wanted == working
        return chatter(working) if seen[[working, single]] && single

        single ||= seen.key?([working, single])
        seen[[working, single]] = true
        working = single ? move_one(working, wanted) : wanted
      end
      chatter(working)
    end

    # { switching branch id => closed? } with nothing working.
    def at_rest = named_contacts(flags([]))

    private

    # Those of broken loads nothing.
    def thresholds_of_whole = @relays.thresholds.zip(@relays.ids).map { |pair, id| pair unless @broken.include?(id) }

    # Where somebody set a switch; its load may still have a say.
    def place(id, position)
      index = @contacts.index[id]
      index ? (@rest[index], @live[index] = @contacts.states(index, position)) : @netlist[id]
    end

    def hold(id, closed)
      index = @contacts.index.fetch(id)
      @rest[index] = @live[index] = closed
    end

    # Whether each contact is closed with these loads working.
    def flags(working)
      follows = @contacts.follows
      flags = @rest.dup
      follows.each_with_index { |load, i| flags[i] = @live[i] if load && working[load] }
      flags
    end

    # Answers of all sections, each with its reference at the end.
    def solve(flags)
      @relays.answers(flags, @broken_ids) do
        @parts.each_with_object([]) do |(part, broken), answers|
          volts = part.primaries.transform_values { |place| answers[place] }
          answers.concat(part.section.unknowns(flags.values_at(*part.flags), broken, volts)) << 0.0
        end
      end
    end

    def wants(answers, working)
      froms = @relays.froms
      tos = @relays.tos
      Array.new(froms.size) do |i|
        threshold = @thresholds[i]
        threshold ? (answers[tos[i]] - answers[froms[i]]).abs >= threshold[working[i] ? 1 : 0] : false
      end
    end

    def move_one(working, wanted)
      index = working.each_index.find { |i| working[i] != wanted[i] }
      index ? working.dup.tap { |moved| moved[index] = wanted[index] } : working
    end

    def fuse_opens?(answers, flags, working)
      @relays.fuses.any? do |fuse, index, from, to, siemens|
        next false unless flags[index]
        next false if fuse.behavior.verdict(fuse, ((answers[to] - answers[from]) * siemens).abs) == :holds

        @before_blowing ||= solution(answers, working, flags)
        hold(fuse.id, false)
        @blown << fuse.id
      end
    end

    def named_contacts(flags) = @relays.switching.each_with_index.to_h { |branch, i| [branch.id, flags[i]] }

    def solution(answers, working, flags, cycle: [])
      loads = @relays.ids.zip(working).to_h
      @broken.each { |id| loads.delete(id) }
      Solution.new(
        netlist: @netlist,
        volts: @relays.named(answers),
        working: loads,
        closed: named_contacts(flags),
        open: @broken,
        blown: @blown.dup,
        before_blowing: @before_blowing,
        cycle: cycle
      )
    end

    # Walks the loop once more and keeps each of its states.
    def chatter(working)
      visited = []
      until visited.any? { |state| state[1] == working } || visited.size > @relays.ids.size + 2
        flags = flags(working)
        answers = solve(flags)
        visited << [answers, working, flags]
        working = move_one(working, wants(answers, working))
      end
      first = visited.index { |state| state[1] == working } || 0
      solution(*visited.last, cycle: visited.drop(first).map { |state| solution(*state) })
    end
  end
end
