# frozen_string_literal: true

module Gorvant
  module Notation
    # The rungs of a rig, from the circuit that it makes.
    class Printer
      MOST_FEEDS = 12
      # words: as they are printed, with conductors; plain: without.
      Feed = Value.define(:words, :plain)

      def initialize(rig)
        @rig = rig
        @netlist = Assembly.netlist(rig)
        @solution = Settling.settle(@netlist)
        @loops = Loops.new(@solution, hot: Assembly::HOT, home: Assembly::HOME)
        @conductors =
          rig
            .cables
            .flat_map do |cable|
              cable.conductors.map { |conductor| ["#{cable.id}.#{conductor.id}", [cable, conductor]] }
            end
            .to_h
        @jumpers = rig.jumpers.to_h { |jumper| [jumper.id, jumper] }
        @covered = []
      end

      # { load code => [Feed] } in the order of the vocabulary.
      def rungs
        @rungs ||=
          Vocabulary.loads.select { |code| @netlist.branch?(code) }.to_h { |code| [code, feeds(@netlist[code])] }
      end

      # The lines of all rungs, then what no rung holds.
      def lines
        shown = rungs.flat_map { |code, feeds| rung_lines(code, feeds) }
        cables + supply + loose + shown
      end

      private

      def cables
        @rig.cables.map do |cable|
          "#{cable.id}: #{cable.from} - #{cable.to}, #{cable.gauge_awg} AWG, #{format("%g", cable.length_feet)} ft"
        end
      end

      def supply =
        [
          ["R", ("FU" if @netlist.branch?("FU")), ("FLS" if @rig[:float_switch] == "r"), "air_handler.R"].compact.join(
            " > "
          )
        ]

      def rung_lines(code, feeds)
        home = @loops.of(@netlist[code]).home ? " > C" : ""
        return ["R > (#{code})#{home}"] if feeds.empty?

        first, *others = feeds
        [(first.words + ["(#{code})"]).join(" > ") + home] +
          others.map { |feed| "  | #{short(feed, first, code).join(" > ")}" }
      end

      # Up to where it meets the first feed.
      def short(feed, first, code)
        shared = feed.plain.reverse.zip(first.plain.reverse).take_while { |a, b| a == b }.size
        return feed.words + ["(#{code})"] if shared.zero?

        *words, joint = feed.words.first([feed.words.size - shared + 1, feed.words.size].min)
        [*words, joint.sub(/ \[.*/, "")]
      end

      def feeds(load)
        ways = Assembly.by_design(@loops.of(load).feeders)
        ways
          .map { |steps| [steps, feed(steps)] }
          .group_by { |_steps, feed| feed.plain }
          .values
          .first(MOST_FEEDS)
          .map { |same| doubled(same) }
      end

      # Two conductors beside each other are one way, in two colors.
      def doubled(same)
        feeds = same.map(&:last)
        return feeds.first if feeds.one?

        words =
          feeds
            .map(&:words)
            .transpose
            .map do |versions|
              bare = versions.first.sub(/ \[.*/, "")
              sheaths = versions.map { |word| word[/\[(.*)\]/, 1] }.compact.uniq
              sheaths.empty? ? bare : "#{bare} [#{sheaths.join(" + ")}]"
            end
        Feed.new(words: words, plain: feeds.first.plain)
      end

      def feed(steps)
        nodes = [steps.first&.from, *steps.map(&:to)].compact
        last = nodes.rindex { |node| node.end_with?(".R") && node.count(".") == 1 } || 0
        walk = Walk.new(@netlist, @conductors, @jumpers, @rig)
        steps.drop(last).each { |step| walk.pass(step) }
        @covered |= walk.covered
        Feed.new(words: walk.words, plain: walk.plain)
      end

      # Conductors and jumpers that no rung holds, each a line of its own.
      def loose
        rungs
        ways = Hash.new { |hash, key| hash[key] = [] }
        @conductors.each do |id, (cable, conductor)|
          ways[[cable, conductor.from, conductor.to]] << conductor unless @covered.include?(id)
        end
        wires =
          ways.map do |(cable, from, to), conductors|
            "#{cable.from}.#{from || Vocabulary::CAPPED} " \
              "[#{mark(cable)}#{conductors.map { |conductor| Notation.sheath(conductor) }.join(" + ")}] > " \
              "#{cable.to}.#{to || Vocabulary::CAPPED}"
          end
        wires +
          @jumpers
            .except(*@covered)
            .map { |_id, jumper| "#{jumper.place}.#{jumper.from} > #{jumper.place}.#{jumper.to}" }
      end

      def mark(cable) = Notation.cable_mark(@rig, cable)

      # Turns steps into words.
      class Walk
        attr_reader :words, :plain, :covered

        def initialize(netlist, conductors, jumpers, rig)
          @netlist = netlist
          @conductors = conductors
          @jumpers = jumpers
          @rig = rig
          @words = ["R"]
          @plain = ["R"]
          @covered = []
        end

        def pass(step)
          branch = step.branch
          conductor = @conductors[branch.id]
          @start ||= step.from
          # R itself leads on.
          add(@start) if @words.one? && (conductor || @jumpers.key?(branch.id)) && @start.count(".") == 1
          if conductor
            lead(branch.id, *conductor)
          elsif @jumpers.key?(branch.id)
            @covered << branch.id
          elsif branch.switching? && branch.component != "THERMOSTAT"
            add(word(branch))
          end
          arrive(step.to)
        end

        private

        def add(word)
          @words << word
          @plain << word
        end

        def lead(id, cable, conductor)
          @covered << id
          at = @words.rindex { |word| word.include?(".") } || -1
          @words[at] = "#{@words[at]} [#{Notation.cable_mark(@rig, cable)}#{Notation.sheath(conductor)}]"
        end

        def word(branch)
          return Vocabulary::OUTPUTS.key(branch.id) if Vocabulary::OUTPUTS.value?(branch.id)

          branch.kind == :contact ? "#{branch[:relay]}/#{branch[:rest] == :closed ? "nc" : "no"}" : branch.component
        end

        def arrive(node)
          if node.count(".") == 1
            add(node)
          elsif node == Vocabulary::PINS["M"]
            add("M")
          end
          tap = Vocabulary::PINS["T1"]
          near = @netlist.branches_at(tap).find { |one| one.kind == :wire }&.other_end(tap)
          add("T1") if near == node && !@plain.include?("T1")
        end
      end
    end
  end
end
