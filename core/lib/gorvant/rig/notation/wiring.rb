# frozen_string_literal: true

module Gorvant
  module Notation
    # The conductors and jumpers that rungs name. Where the text has cables of its own, they hold what it says and no
    # more; else the archetype's wiring fills in what was not said.
    class Wiring
      attr_reader :problems

      # bare: a Rig with facts and no cables; written: [CableLine]; pairs: [[Word, Word]] of terminals that follow each
      # other.
      def initialize(bare, written, pairs)
        @bare = bare
        @written = written
        @problems = []
        @usual = Composer.recompose(bare, bare.facts)
        @runs, @links =
          pairs
            .uniq { |pair| [pair.map(&:text), pair[0].sheaths] }
            .partition { |first, second| first.place != second.place }
        @named = named
      end

      def cables
        bases =
          (
            if @written.empty?
              @usual.cables
            else
              @written.map do |line|
                Cable.new(**line.to_h, conductors: [], provenance: Provenance.new(source: "diagram"))
              end
            end
          )
        bases.map { |cable| cable.with(conductors: numbered(@written.empty? ? merged(cable) : said(cable))) }
      end

      def jumpers
        own =
          @links
            .reject { |first, second| trace?(first, second) }
            .uniq { |pair| pair.map(&:text).sort }
            .map { |first, second| jumper(first, second) }
        return own unless @written.empty?

        own + @usual.jumpers.reject { |usual| own.any? { |one| one.id == usual.id } || mentioned?("wall.E") }
      end

      private

      def mentioned?(text) = (@runs + @links).flatten.any? { |word| word.text == text }

      def jumper(first, second)
        ends = [first.terminal, second.terminal]
        usual = first.place == "wall" && ends.sort == %w[E W2]
        from, to = usual ? %w[W2 E] : ends
        Jumper.new(
          id: usual ? "aux_e" : "#{first.place}_#{from}_#{to}".downcase,
          place: first.place,
          from: from,
          to: to,
          provenance: Provenance.new(source: "diagram")
        )
      end

      # W2 in and W2 out are joined by the board itself, or by its contact.
      def trace?(first, second) = [first.text, second.text].sort == %w[outdoor.W2_in outdoor.W2_out]

      # { cable id => [[from terminal, to terminal, sheath or nil, word]] }
      def named
        @runs.each_with_object(Hash.new { |hash, key| hash[key] = [] }) do |(first, second), found|
          cable = cable_of(first, second) or next
          ends = cable.from == first.place ? [first, second] : [second, first]
          (first.sheaths || [nil]).each do |sheath|
            found[cable.id] << [
              ends[0].terminal,
              ends[1].terminal,
              sheath && (cable.from == first.place ? sheath : sheath.reverse),
              first
            ]
          end
        end
      end

      def cable_of(first, second)
        candidates =
          (@written.empty? ? @usual.cables : @written).select do |cable|
            [cable.from, cable.to].sort == [first.place, second.place].sort
          end
        named = first.cable ? candidates.find { |cable| cable.id == first.cable } : candidates.first
        return named if named

        says =
          (
            if candidates.empty?
              "no cable runs from #{first.place} to #{second.place}; name the terminal between"
            else
              "no cable #{first.cable} runs here"
            end
          )
        @problems << {
          "line" => second.line,
          "column" => second.column,
          "length" => second.length,
          "word" => second.text,
          "problem" => says,
          "suggestion" => nil
        }
        nil
      end

      def said(cable) = @named[cable.id].map { |from, to, sheath, _word| conductor(cable, from, to, sheath) }

      # What was said, in place of what usually starts at the same terminal.
      def merged(cable)
        runs = @named[cable.id]
        kept =
          cable.conductors.reject do |usual|
            runs.any? do |from, to, _sheath, word|
              upstream(cable, word, from, to) == (word.place == cable.from ? usual.from : usual.to)
            end
          end
        kept + runs.map { |from, to, sheath, _word| conductor(cable, from, to, sheath) }
      end

      def upstream(cable, word, from, to) = word.place == cable.from ? from : to

      def conductor(cable, from, to, sheath)
        color = sheath&.first || usual_color(cable, from, to)
        splices =
          (sheath || [])
            .drop(1)
            .each_slice(2)
            .map { |id, after| Splice.new(id: id.downcase.tr(" -", "__"), color: after) }
        Conductor.new(
          id: color.downcase.gsub(/[^a-z0-9]+/, "_"),
          color: color,
          from: from,
          to: to,
          spare: (true unless from && to),
          splices: splices
        )
      end

      def usual_color(cable, from, to)
        usual =
          @usual.cables.find { |one| one.id == cable.id }&.conductors&.find { |one| one.from == from && one.to == to }
        usual&.color || Composer::COLORS.fetch(from || to || "R", "white").tr("_", " ")
      end

      # Two of one color are told apart by number.
      def numbered(conductors)
        taken = Hash.new(0)
        conductors.map do |one|
          number = (taken[one.id] += 1)
          number == 1 ? one : one.with(id: "#{one.id}_#{number}")
        end
      end
    end
  end
end
