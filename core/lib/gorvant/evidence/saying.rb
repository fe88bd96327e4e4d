# frozen_string_literal: true

module Gorvant
  # One line of the bench, as a person says or dictates it, made into what a reading is. What can be meant in two ways
  # is given in both; what was not understood is left over, and nothing is guessed of it.
  class Saying
    # given: the fields of an Observation, and the "note" of a fault code, as JSON has them. call, at: as said or
    # remembered; nil where neither. left: words that say nothing here.
    Understood = Value.define(:given, :call, :at, :left)
    MOST_WORDS = 40
    MOST_WAYS = 24
    MOST_SHOWN = 2
    TWOS = %w[to two too].freeze
    NUMBERED = %w[y why wye w u you heat cool].freeze # what a 2 may follow
    METER = "high_impedance" # taken for the meter where nobody names one: it proves less

    # rig: whose points can be meant. call, at, meter: remembered from the line before; chosen: { call:, at:, meter: }
    # that stand whatever the line says. units: as Measures.chosen names them, those that the person reads in.
    def initialize(rig, call: nil, at: nil, meter: nil, chosen: {}, units: [])
      @rig = rig
      @call = call
      @at = at
      @meter = meter
      @chosen = chosen
      @units = units
      @netlist = Assembly.netlist(rig)
    end

    # [Understood], the likeliest first, two at most; empty where nothing was understood.
    def read(text)
      ways = spellings(words_of(text))
      found = ways.flat_map { |words| understood(words) }.uniq(&:given)
      least = found.map { |one| one.left.size }.min
      found.select { |one| one.left.size == least }.first(MOST_SHOWN)
    end

    # Words of a line: letters and numbers, a point only within a number; hyphens and dashes as spaces, but as "minus"
    # where one stands before a number that nothing is joined to; "isn't" as "is not".
    def words_of(text)
      signed = text.to_s.downcase.tr("µμ", "u").gsub(/n['’‘]t\b/, " not").gsub(/(?<=\A|\s)[-−](?=\d)/, "minus ")
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

    # [Understood] of words in one spelling.
    def understood(words)
      parts = Parts.new(words, vocabulary)
      given = readings(parts, @chosen[:at] || parts.first(:at) || @at)
      call = @chosen[:call] || parts.unspent(:call) || @call
      at = @chosen[:at] || parts.first(:at) || @at
      given.map { |one| Understood.new(given: one, call: call, at: at, left: parts.left) }
    end

    # "Not 24" is no reading: what it is instead nobody said. Only what is seen has an opposite.
    def readings(parts, at)
      seen = seen(parts)
      return seen if seen.any? || parts.denied_number?

      [stopped(parts) || looked_up(parts) || across(parts) || placed(parts) || points(parts, at)].compact
    end

    def stopped(parts)
      return nil unless parts.any?(:stopped) && parts.number

      parts.use(:stopped, :minutes)
      { "function" => "minutes", "place" => "since_stop", **parts.amount }
    end

    # A setting or a selector of this unit, by a value that it can have.
    def looked_up(parts)
      facts = vocabulary.fetch("facts").slice(*Observation.readable_facts(@rig))
      fact, span = parts.said(facts.transform_values { |about| about["says"] }).first
      return nil unless fact

      about = facts.fetch(fact)
      choices = parts.said(about.fetch("choices", {})).reject { |_value, said| span.cover?(said) }
      values = about["choices"] ? choices.map(&:first).uniq : [number_of_fact(parts, about["unit"])]
      return nil unless values.one? && can_be?(fact, values.first)

      parts.spend([span, *choices.map(&:last)])
      parts.use(*about["unit"] ? %i[degrees degrees_f degrees_c] : [:minutes])
      { "function" => "looked_up", "place" => fact, "choice" => values.first }
    end

    # A number as a fact has it; nil where a range is said, or none.
    def number_of_fact(parts, unit)
      return nil unless parts.number && parts.number.last.nil?

      value = parts.amount(signed: true)["value"]
      if unit
        said = vocabulary.dig("measured", unit, "says").find { |word, _measure| parts.unit?(word) } or return nil
        value = in_core({ "value" => value }, said.last)["value"]
      end
      value == value.to_i ? value.to_i : value
    end

    def can_be?(fact, value) =
      !value.nil? && Rig::Check.new(@rig).value(fact, value, Catalogue.facts.fetch(fact)).empty?

    # [given] of something that is seen, with what it does. A number makes it a measurement, but of a code that flashes;
    # two things in one line are no reading; what is denied is what else it can be.
    def seen(parts)
      about = vocabulary.fetch("seen")
      places = parts.said(about.transform_values { |one| one["says"] })
      place = places.first&.first
      note = place && Catalogue.evidence.dig("functions", "seen", "places", place, "note")
      return [] if place.nil? || places.any? { |other, _span| other != place } || (parts.measured? && !note)

      spans = places.map(&:last)
      choices = choices_of(about.fetch(place)["choices"], spans, parts)
      parts.spend(spans) if choices.any?
      choices.map do |choice|
        given = { "function" => "seen", "place" => place, "choice" => choice }
        note && choice == "code" ? given.merge("note" => parts.text) : given
      end
    end

    # What it does, as said; what is left of its choices, where that is denied.
    def choices_of(choices, places, parts)
      if parts.any?(:untold)
        parts.use(:untold)
        return [Observation::UNTOLD]
      end

      said = parts.said(choices)
      spans = said.map(&:last)
      denied = parts.denied(spans, places)
      parts.spend(spans)
      parts.use(:denied)
      against, named = said.partition { |_choice, span| denied.include?(span) }.map { |list| list.map(&:first).uniq }
      return named - against if named.any? || against.empty?

      others = choices.keys - against
      others.size <= MOST_SHOWN ? others : []
    end

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

      { "function" => "volts_ac", **ends, **parts.amount, **meter(parts) }
    end

    # The voltmeter: chosen, said, or that of the line before.
    def meter(parts)
      said = parts.first(:meter)
      parts.use(:meter)
      { "instrument" => @chosen[:meter] || said || @meter || METER }
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
      ends = { "from_node" => nodes[0], "to_node" => nodes[1], **parts.amount(may_open: true) }
      parts.ohms? ? { "function" => "ohms", **ends } : { "function" => "volts_ac", **ends, **meter(parts) }
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
  end
end
