# frozen_string_literal: true

module Gorvant
  # A netlist solved for one set of positions: volts at every node, which loads work, what conducts.
  class Solution
    attr_reader :netlist, :volts, :working, :closed, :open, :blown, :before_blowing, :cycle

    # volts: { node => volts_ac to the reference of its section }. working: { load id => bool }.
    # closed: { switching branch id => bool }. open: ids of broken branches of other kinds. blown: ids of open fuses.
    # before_blowing: the Solution that blew the first fuse, or nil. cycle: Solutions of a chatter, or empty.
    def initialize(netlist:, volts:, working:, closed:, open:, blown: [], before_blowing: nil, cycle: [])
      @netlist = netlist
      @volts = volts.freeze
      @working = working.freeze
      @closed = closed.freeze
      @open = open.freeze
      @blown = blown.freeze
      @before_blowing = before_blowing
      @cycle = cycle.freeze
    end

    # Sets of nodes that wire, contacts and loads hold together as things stand.
    def islands =
      @islands ||=
        Islands.new(netlist.nodes, netlist.branches.select { |branch| conducts?(branch) }, netlist.references)

    def chatter? = cycle.any?
    # Ids of the coils that never settle.
    def chattering =
      cycle
        .flat_map { |state| state.working.select { |_id, on| on }.keys }
        .tally
        .reject { |_id, times| times == cycle.size }
        .keys
        .sort

    def working?(id) = !!working[id]
    def volts_across(branch) = (volts[branch.to] - volts[branch.from]).abs
    def floating?(node) = islands.floating?(node)

    # Amps through a branch, RMS.
    def amps(branch)
      return 0.0 unless conducts?(branch)

      drive = branch.behavior.source? ? branch.behavior.volts_ac(branch, volts) : 0.0
      ((volts[branch.to] - volts[branch.from] - drive) * branch.behavior.siemens(branch)).abs
    end

    # Whether current can pass the branch as things stand.
    def conducts?(branch)
      return false unless branch.behavior.stamped?

      branch.switching? ? closed[branch.id] : !open.include?(branch.id)
    end
  end
end
