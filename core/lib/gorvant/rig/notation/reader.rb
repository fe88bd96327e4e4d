# frozen_string_literal: true

require "strscan"

module Gorvant
  module Notation
    # One word of a rung and where it stands. text: as printed; cable: id or nil; sheaths: [[colors and splices]] of the
    # conductors that lead on from it, nil where nothing is said.
    Word = Value.define(:text, :line, :column, :length, :cable, :sheaths, defaults: { cable: nil, sheaths: nil })

    class Word
      def terminal? = text.include?(".")
      def load? = text.start_with?("(")
      def place = text.split(".").first
      # nil for a capped end.
      def terminal = text.split(".").last.then { |name| name == Vocabulary::CAPPED ? nil : name }
    end

    # A rung as typed: feeds, each a list of Words from R on; the first is the whole way, the others join it.
    Rung = Value.define(:feeds) { def load = feeds.first.find(&:load?) }
    # A cable that is written down: as Rig::Cable but for conductors.
    CableLine = Value.define(:id, :from, :to, :gauge_awg, :length_feet)
    # A fact that no rung shows. value: as in a rig file.
    FactLine = Value.define(:key, :value, :word)

    # Text to rungs, cables and facts. Raises BadNotation with every word to blame.
    class Reader
      MOST_LINES = 400
      MOST_COLUMNS = 600
      MOST_PROBLEMS = 20
      CABLE =
        /\A\s*([a-z][a-z0-9_]*):\s*(\S+)\s*[-–]\s*([^\s,]+)\s*,\s*(\d+)\s*AWG\s*,\s*(\d+(?:\.\d+)?)\s*(ft|m)\s*\z/i

      attr_reader :rungs, :cables, :facts

      def initialize(text)
        @problems = []
        @rungs = []
        @cables = []
        @facts = []
        lines = text.to_s.lines(chomp: true)
        if lines.size > MOST_LINES
          raise BadNotation.new([problem(MOST_LINES + 1, 1, 1, "", "a rig has at most #{MOST_LINES} lines")])
        end

        lines.each_with_index { |line, i| read(line, i + 1) if @problems.size < MOST_PROBLEMS }
        raise BadNotation.new(@problems) if @problems.any?
      end

      private

      def problem(line, column, length, word, says, suggestion = nil)
        {
          "line" => line,
          "column" => column,
          "length" => length,
          "word" => word,
          "problem" => says,
          "suggestion" => suggestion
        }
      end

      def blame(line, column, length, word, says, suggestion = nil) =
        @problems << problem(line, column, length, word, says, suggestion)

      def read(line, number)
        bare = line.sub(/#.*/, "")
        return if bare.strip.empty?
        if line.size > MOST_COLUMNS
          return blame(number, MOST_COLUMNS, 1, "", "the line is longer than #{MOST_COLUMNS} characters")
        end

        case bare
        when /\A\s*with\b/i
          fact(bare, number)
        when /\A[^>(\[]*:[^>]*\z/
          cable(bare, number)
        when /\A\s*\|/
          more(bare, number)
        else
          rung(bare, number)
        end
      end

      def rung(line, number)
        words = path(line, 0, number)
        @rungs << Rung.new(feeds: [words]) if words
      end

      # Another feed of the rung above.
      def more(line, number)
        at = line.index("|")
        if @rungs.empty? || @rungs.last.load.nil?
          return blame(number, at + 1, 1, "|", "has no rung above it that it could feed")
        end

        words = path(line, at + 1, number)
        @rungs[-1] = @rungs.last.with(feeds: @rungs.last.feeds + [words]) if words
      end

      def missing_word(scanner, number, column)
        says = scanner.eos? ? "a word is missing after '>'" : "a word such as outdoor.Y is missing here"
        blame(number, column, 1, scanner.rest[0].to_s, says)
        nil
      end

      def path(line, from, number)
        scanner = StringScanner.new(line)
        scanner.pos = line[0, from].bytesize
        words = []
        clean = true
        loop do
          scanner.skip(/\s+/)
          column = scanner.charpos + 1
          text = scanner.scan(/\([^)>|\[\]]*\)?|[^\s>|\[\]()]+/)
          return missing_word(scanner, number, column) unless text

          word = word(text, number, column)
          clean &&= word
          annotation = sheath(scanner, number)
          clean = false if annotation == :wrong
          words << word.with(**annotation) if word && annotation.is_a?(Hash)
          words << word if word && annotation.nil?
          scanner.skip(/\s+/)
          break if scanner.eos?
          next if scanner.skip(/>/)

          rest = scanner.rest
          blame(number, scanner.charpos + 1, rest.size, rest.strip[0, 30], "a '>' belongs between two words")
          return nil
        end
        clean ? words : nil
      end

      def word(text, number, column)
        if text.start_with?("(") && !text.end_with?(")")
          blame(number, column, text.size, text, "has no closing parenthesis", "#{text.strip})")
          return nil
        end
        known = Vocabulary.find(text.delete(" "))
        return Word.new(text: known, line: number, column: column, length: text.size) if known

        near = Vocabulary.nearest(text) if @problems.size < MOST_PROBLEMS
        blame(number, column, text.size, text[0, 40], "is no word of a rung#{"; nearest is #{near}" if near}", near)
        nil
      end

      # "[yellow]", "[yellow /attic/ white]", "[red + black]", "[cable_c: yellow]"
      def sheath(scanner, number)
        scanner.skip(/[ \t]+/)
        return nil unless scanner.peek(1) == "["

        column = scanner.charpos + 1
        text = scanner.scan(/\[[^\[\]]*\]/)
        unless text
          blame(number, column, 1, "[", "has no closing bracket")
          scanner.terminate
          return :wrong
        end
        body = text[1..-2]
        cable = body[/\A\s*([a-z][a-z0-9_]*)\s*:/, 1]
        body = body.sub(/\A\s*[a-z][a-z0-9_]*\s*:/, "")
        sheaths = body.split("+", -1).map { |one| one.split(%r{\s*/\s*}, -1).map(&:strip) }
        if sheaths.any? &&
             sheaths.all? { |one| one.size.odd? && one.all? { |name| name.match?(/\A[A-Za-z][A-Za-z0-9 _-]{0,29}\z/) } }
          return { cable: cable, sheaths: sheaths }
        end

        blame(
          number,
          column,
          text.size,
          text[0, 40],
          "says no color; write [yellow], or [yellow /attic/ white] where it changes at a splice"
        )
        :wrong
      end

      def cable(line, number)
        match = CABLE.match(line)
        places = match && [match[2], match[3]].map { |name| Vocabulary::PLACES[name.downcase] }
        if match.nil? || places.include?(nil)
          return(
            blame(
              number,
              1,
              line.size,
              line.strip[0, 40],
              "is no cable; write cable_a: wall - air_handler, 18 AWG, 42 ft"
            )
          )
        end

        @cables << CableLine.new(
          id: match[1].downcase,
          from: places[0],
          to: places[1],
          gauge_awg: match[4].to_i,
          length_feet: match[6].downcase == "m" ? Measures.from("m", match[5].to_f).round(1) : match[5].to_f
        )
      end

      # "with backup none", "with safeties LPS, HPS"
      def fact(line, number)
        match = /\A\s*with\s+(\S+)\s+(.+?)\s*\z/i.match(line)
        return blame(number, 1, line.size, line.strip[0, 40], "says no fact; write with transformer_va 40") unless match

        key = match[1].downcase
        column = line.index(match[1]) + 1
        about = Catalogue.facts[key]
        unless about
          near = Nearest.of(key, Catalogue.facts.keys)
          return(
            blame(number, column, key.size, key[0, 40], "is no fact of a rig#{"; nearest is #{near}" if near}", near)
          )
        end
        @facts << FactLine.new(
          key: key,
          value: value(about, match[2]),
          word: Word.new(text: match[2][0, 60], line: number, column: line.index(match[2]) + 1, length: match[2].size)
        )
      end

      # As a rig file has it; what does not fit is told by the rig's own check.
      def value(about, text)
        case about["kind"]
        when "flag"
          { "yes" => true, "no" => false }.fetch(text.downcase, text)
        when "number"
          number(text) || text
        when "table"
          text.split(",").map { |pair| pair.split(":", 2).map { |one| number(one) || one.strip } }
        when "list"
          text.downcase == "none" ? [] : text.split(/[\s,]+/)
        else
          about["of"].keys.find { |key| key.to_s == text } || text
        end
      end

      # Whole where it is; nil for none.
      def number(text) = Float(text, exception: false)&.then { |number| number == number.round ? number.round : number }
    end
  end
end
