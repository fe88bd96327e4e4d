# frozen_string_literal: true

module Gorvant
  # What moves in a netlist, by position instead of by name, for the loop that settles it: which contact follows which
  # load, and where in the answers of the sections each load has its two ends. A netlist that differs in no switch takes
  # over what another knows of its contacts.
  class Relays
    # A section with where it stands: flags: positions of its switching branches among the netlist's; primaries: { node
    # => place } of what its secondaries follow.
    Part = Struct.new(:section, :flags, :primaries)

    # States whose answers are kept: settling, call after call, comes back to the same few.
    MOST_ANSWERS = 256

    attr_reader :switching, :movers, :ids, :places, :parts, :froms, :tos, :contacts, :fuses, :thresholds

    def initialize(netlist, known = nil)
      @switching = netlist.switching
      @movers = netlist.movers
      @ids = @movers.map(&:id)
      @places = places_of(netlist.sections)
      # [[volts that pull it in, volts under which it lets go]]
      @thresholds =
        @movers.map { |branch| [false, true].map { |working| branch.behavior.works_above_volts_ac(branch, working) } }
      @froms = @movers.map { |branch| @places.fetch(branch.from) }
      @tos = @movers.map { |branch| @places.fetch(branch.to) }
      @contacts = known&.contacts&.fits?(@switching, @ids) ? known.contacts : Contacts.new(@switching, @ids)
      @parts = netlist.sections.map { |section| part(section) }
      @fuses = netlist.fuses.map { |fuse| fuse_row(fuse) }
      @answers = {} # { [flags, ids of broken branches] => answers }
      freeze
    end

    # The answers of a state; the block works them out.
    def answers(flags, broken)
      @answers[[flags, broken]] ||= begin
        @answers.shift if @answers.size >= MOST_ANSWERS
        yield.freeze
      end
    end

    # { node => volts } of the answers in the order of `places`.
    def named(answers)
      @places.transform_values { |place| answers[place] }
    end

    private

    # { node => its place in the answers of all sections, one after another, each with its reference at the end }
    def places_of(sections)
      offset = 0
      sections.each_with_object({}) do |section, places|
        section.names.each_with_index { |node, i| places[node] = offset + i }
        offset += section.node_count
        places[section.reference] = offset
        offset += 1
      end
    end

    # [fuse, place among the switches, of each end in the answers, siemens]
    def fuse_row(fuse)
      ends = [fuse.from, fuse.to].map { |node| @places.fetch(node) }
      [fuse, @contacts.index.fetch(fuse.id), *ends, fuse.behavior.siemens(fuse)]
    end

    def part(section)
      primaries = section.branches.select { |branch| branch.kind == :secondary }.flat_map { |branch| branch[:primary] }
      Part.new(
        section,
        section.switching_ids.map { |id| @contacts.index.fetch(id) },
        primaries.to_h { |node| [node, @places.fetch(node)] }
      ).freeze
    end

    # How each contact stands with the load that it follows dead, and live, where somebody set its position and where
    # nobody did.
    class Contacts
      attr_reader :index, :follows, :rest, :live

      def initialize(switching, movers)
        @switching = switching
        @movers = movers
        @index = switching.each_with_index.to_h { |branch, i| [branch.id, i] }
        @follows = switching.map { |branch| movers.index(branch.behavior.follows(branch)) }
        @states =
          [nil, true, false].to_h { |position| [position, switching.each_index.map { |i| states_of(i, position) }] }
        @rest, @live = [0, 1].map { |which| @states[nil].map { |pair| pair[which] } }
        freeze
      end

      def fits?(switching, movers) =
        @movers == movers && @switching.size == switching.size &&
          @switching.each_with_index.all? { |branch, i| branch.equal?(switching[i]) }

      # [closed with its load dead, closed with its load live] of the contact at this index. position: where somebody
      # set it, nil for nobody.
      def states(index, position) = @states.fetch(position)[index]

      private

      def states_of(index, position)
        branch = @switching[index]
        follows = @follows[index]
        rest = branch.behavior.closed?(branch, {}, position)
        [rest, follows ? branch.behavior.closed?(branch, { @movers[follows] => true }, position) : rest]
      end
    end
  end
end
