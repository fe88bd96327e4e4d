# frozen_string_literal: true

module Gorvant
  # One line of the bench, as a person says or dictates it, made into what a reading is. What can be meant in two ways
  # is given in both; what was not understood is left over, and nothing is guessed of it.
  class Saying
    # given: the fields of an Observation, as JSON has them. call, at: as said or remembered; nil where neither. left:
    # words that say nothing here.
    Understood = Value.define(:given, :call, :at, :left)
    MOST_WORDS = 40
    MOST_WAYS = 24
    MOST_SHOWN = 2
    TWOS = %w[to two too].freeze
    NUMBERED = %w[y why wye w u you heat cool].freeze # what a 2 may follow

    # rig: whose points can be meant. call, at: remembered from the line before; chosen: { call:, at: } that stand
    # whatever the line says. units: as Measures.chosen names them, those that the person reads in.
    def initialize(rig, call: nil, at: nil, chosen: {}, units: [])
      @rig = rig
      @call = call
      @at = at
      @chosen = chosen
      @units = units
      @netlist = Assembly.netlist(rig)
    end

    # [Understood], the likeliest first, two at most; empty where nothing was understood.
    def read(text)
      ways = spellings(words_of(text))
      found = ways.filter_map { |words| understood(words) }.uniq(&:given)
      least = found.map { |one| one.left.size }.min
      found.select { |one| one.left.size == least }.first(MOST_SHOWN)
    end

    # Words of a line: letters and numbers, a point only within a number; hyphens and dashes as spaces, but as "minus"
    # where one stands before a number that nothing is joined to.
    def words_of(text)
      signed = text.to_s.downcase.gsub(/(?<=\A|\s)[-−](?=\d)/, "minus ")
      plain = signed.tr("–—−-", " ").gsub(/(?<=[a-z])\.|\.(?!\d)|[^a-z0-9. ]/, " ")
      plain.gsub(/(?<=\d)(?=[a-z])/, " ").split.first(MOST_WORDS)
    end

    private

    def vocabulary = Catalogue.sayings

    # "to" after a letter may be its 2, a number, or only the way to the next point; "oh" may be the terminal or zero.
    def spellings(words)
      words
        .each_with_index
        .inject([[]]) do |ways, (word, i)|
          options = TWOS.include?(word) ? spelled(words, i) : [word]
          ways.flat_map { |way| options.map { |one| way + [one] } }.first(MOST_WAYS)
        end
    end

    # Said "two" is a 2, unless it stands between two terminals; said "to" may be a terminal's 2.
    def spelled(words, index)
      before = index.positive? ? words[index - 1] : nil
      numbered = NUMBERED.include?(before)
      return [("to" if letter?(before) && letter?(words[index + 1])), "two"].compact if words[index] == "two"

      numbered ? %w[to two] : ["to"]
    end

    def letter?(word) = vocabulary.fetch("letters").values.any? { |list| list.include?(word) }

    # Understood of words in one spelling, or nil.
    def understood(words)
      parts = Parts.new(words, vocabulary)
      call = @chosen[:call] || parts.first(:call) || @call
      at = @chosen[:at] || parts.first(:at) || @at
      given = reading(parts, at) or return nil

      Understood.new(given: given, call: call, at: at, left: parts.left)
    end

    def reading(parts, at)
      stopped(parts) || seen(parts) || across(parts) || placed(parts) || points(parts, at)
    end

    def stopped(parts)
      return nil unless parts.any?(:stopped) && parts.number

      parts.use(:stopped, :minutes)
      { "function" => "minutes", "place" => "since_stop", **parts.amount }
    end

    # Something that is seen, with what it does: the longest saying of either. A number makes it a measurement.
    def seen(parts)
      return nil if parts.measured?

      place, saying = longest(parts, vocabulary.fetch("seen").transform_values { |about| about["says"] })
      return nil unless place

      choice, done = longest(parts, vocabulary.dig("seen", place, "choices"))
      return nil unless choice

      parts.spend([saying, done])
      { "function" => "seen", "place" => place, "choice" => choice }
    end

    # [id, saying] of the longest of these sayings that the line has.
    def longest(parts, sayings) =
      sayings
        .flat_map { |id, list| list.map { |saying| [id, saying] } }
        .select { |_id, saying| parts.says?([saying]) }
        .max_by { |_id, saying| saying.size }

    # Across a part, or a part by its ohms.
    def across(parts)
      code = parts.first(:part)
      return nil unless code && @netlist.branch?(code) && parts.amount?
      return nil unless parts.any?(:across) || parts.ohms?

      branch = @netlist[code]
      ends = { "from_node" => branch.from, "to_node" => branch.to }
      parts.use(:part, :across, :ohms, :volts_ac, :alone)
      if parts.ohms?
        return { "function" => "ohms", **ends, "isolated" => parts.any?(:alone), **parts.amount(may_open: true) }
      end

      { "function" => "volts_ac", **ends, **parts.amount }
    end

    # Amps of a load, a temperature or pressure at a named place.
    def placed(parts)
      return nil unless parts.number

      vocabulary
        .fetch("measured")
        .each do |function, about|
          kind = about.fetch("at").to_sym
          place = parts.first(kind)
          word, measure = place && about.fetch("says").find { |said, _measure| parts.unit?(said) }
          next unless word

          parts.use(kind, word.to_sym)
          return { "function" => function, "place" => place, **in_core(parts.amount(signed: true), measure) }
        end
      nil
    end

    # An amount as the core has it. measure: as sayings.yml says what was meant: "core", another unit, or the one of the
    # two that the person reads in.
    def in_core(amount, measure)
      unit, core = measure.split(" or ")
      return amount if unit == "core" || (core && !@units.include?(unit))

      amount.to_h { |key, value| [key, key == "about" ? value : Measures.from(unit, value).round(2)] }
    end

    # Two terminals of a place, or one to C.
    def points(parts, at)
      letters = parts.all(:letter)
      return nil if letters.empty? || letters.size > 2 || !parts.amount? || parts.any?(:part)

      letters = ["C", *letters] if letters.one?
      place = at || "outdoor"
      nodes = letters.map { |letter| node(place, letter) }
      return nil if nodes.any?(&:nil?) || nodes.uniq.one?

      parts.use(:letter, :link, :volts_ac, :ohms)
      {
        "function" => parts.ohms? ? "ohms" : "volts_ac",
        "from_node" => nodes[0],
        "to_node" => nodes[1],
        **parts.amount(may_open: true)
      }
    end

    def node(place, letter)
      name = alias_at(place, letter)
      ["#{place}.#{name}", ("outdoor.board.#{name}" if place == "outdoor")].compact.find { |id| @netlist.node?(id) }
    end

    # O and B may be one terminal; auxiliary heat arrives on W at an air handler that has no W2, and leaves on W2.
    def alias_at(place, letter)
      here = @rig.terminals(place)
      return letter if here.include?(letter)
      return here.include?("OB") ? "OB" : letter if %w[O B].include?(letter)

      other = { "OB" => @rig.changeover, "W2" => "W", "W" => "W2" }[letter]
      here.include?(other) ? other : letter
    end

    # The words of a line, each with what it may mean; the longest sayings first.
    class Parts
      KINDS = {
        letter: "letters",
        at: "places",
        call: "calls",
        part: "parts",
        load: "loads",
        degrees_at: "degrees",
        psi_at: "psi"
      }.freeze
      LISTS = {
        link: "links",
        across: "across",
        about: "about",
        open: "open",
        nothing: "nothing",
        alone: "alone",
        stopped: "stopped"
      }.freeze

      attr_reader :number

      def initialize(words, vocabulary)
        @words = words
        @text = " #{words.join(" ")} "
        @spent = Array.new(words.size, false)
        @found = Hash.new { |all, kind| all[kind] = [] }
        @vocabulary = vocabulary
        find_numbers
        find_words
      end

      def all(kind) = @found[kind].sort_by.with_index { |one, i| [one.first, i] }.map(&:last)
      def first(kind) = all(kind).first
      def any?(kind) = @found.key?(kind) && @found[kind].any?
      # Whether a number is said, and not only "dead" or "nothing".
      def measured? = @measured
      def amount? = !@number.nil? || any?(:open)
      def ohms? = any?(:ohms) || any?(:open)
      # Whether this unit is said; "" is none at all.
      def unit?(word) = word.empty? ? none_of_units? : any?(word.to_sym)
      def none_of_units? = @vocabulary.fetch("units").keys.none? { |unit| any?(unit.to_sym) }
      def says?(list) = list.any? { |saying| @text.include?(" #{saying} ") }

      # Amount as JSON has it. signed: of what can be below zero.
      def amount(may_open: false, signed: false)
        return { "open" => true } if may_open && any?(:open)

        low, high = signed ? @number : @number.map { |value| value&.abs }
        { "value" => low, "value_high" => high, "about" => any?(:about) || nil }.compact
      end

      # What these kinds say is part of the reading.
      def use(*kinds) =
        (kinds + %i[about open nothing]).each { |kind| @found[kind].each { |from, to, _value| spend_at(from, to) } }

      def spend(sayings)
        sayings.each do |saying|
          size = saying.split.size
          @words.each_cons(size).with_index { |words, i| spend_at(i, i + size) if words.join(" ") == saying }
        end
      end

      # Words that are part of nothing.
      def left
        filler = @vocabulary.fetch("filler")
        %i[call at number].each { |kind| @found[kind].each { |from, to, _value| spend_at(from, to) } }
        @words
          .each_with_index
          .reject { |word, i| @spent[i] || filler.include?(word) || word == "to" || word == "and" }
          .map(&:first)
      end

      private

      def spend_at(from, to) = (from...to).each { |i| @spent[i] = true }

      # Every kind of word, the longest sayings first; a word that is taken by a longer saying is taken.
      def find_words
        sayings = KINDS.flat_map { |kind, table| named(kind, @vocabulary.fetch(table)) }
        sayings += LISTS.flat_map { |kind, table| @vocabulary.fetch(table).map { |saying| [saying.split, kind, true] } }
        sayings +=
          @vocabulary.fetch("units").flat_map { |unit, list| list.map { |saying| [saying.split, unit.to_sym, true] } }
        sayings
          .sort_by
          .with_index { |(words, _kind, _value), i| [-words.size, i] }
          .each { |words, kind, value| take(words, kind, value) }
        nothing
      end

      def named(kind, table) = table.flat_map { |id, list| list.map { |saying| [saying.split, kind, id] } }

      def take(words, kind, value)
        @words
          .each_cons(words.size)
          .with_index do |here, i|
            next unless here == words && (i...(i + words.size)).none? { |place| taken?(place, words.size) }

            @found[kind] << [i, i + words.size, value]
            @longest[i] = [@longest[i], words.size].max
            (i...(i + words.size)).each { |place| @longest[place] = [@longest[place], words.size].max }
          end
      end

      def taken?(place, size) = @longest[place] > size

      def nothing
        @number = [0.0, nil] if @number.nil? && !any?(:open) && any?(:nothing)
      end

      # Numbers, and a range where two are joined by a link.
      def find_numbers
        @longest = Array.new(@words.size, 0)
        i = 0
        found = []
        while i < @words.size
          to = nil
          value, used = letter_two?(i) ? nil : SpokenNumber.at(@words, i)
          if value
            from, to, value = with_sign(i, i + used, value)
            found << [from, to, value]
            @found[:number] << found.last
            (from...to).each { |place| @longest[place] = 9 }
          end
          i = to || (i + 1)
        end
        @number = number_of(found)
        @measured = found.any?
      end

      # [from, to, value] with the words that put it below zero: "minus 10", "ten below zero".
      def with_sign(from, to, value)
        return from - 1, to, -value if from.positive? && @vocabulary.fetch("minus").include?(@words[from - 1])

        below = @vocabulary.fetch("below").find { |saying| @words[to, saying.split.size] == saying.split }
        below ? [from, to + below.split.size, -value] : [from, to, value]
      end

      # "why two", "w 2", "t one": a terminal's own number, where another number follows.
      def letter_two?(index)
        return false unless %w[two 2 one 1].include?(@words[index]) && index.positive?

        terminal = %w[y why wye w u you t tee tea heat cool].include?(@words[index - 1])
        terminal &&
          ((index + 1)...@words.size).any? do |i|
            SpokenNumber.at(@words, i) || %w[ol nothing dead zero].include?(@words[i])
          end
      end

      def number_of(found)
        return nil if found.empty? || found.size > 2
        return found[0][2], nil if found.one?

        between = @words[found[0][1]...found[1][0]]
        between == ["to"] && found[1][2] > found[0][2] ? [found[0][2], found[1][2]] : nil
      end
    end
  end
end
