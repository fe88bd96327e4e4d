# frozen_string_literal: true

require "did_you_mean"

module Gorvant
  # What is fitted at one unit. facts: { key => Fact } as recorded; what is not recorded takes the catalogue's default
  # and counts as assumed. Checked when made: raises BadRigFile with every problem and its JSON pointer.
  # terminal_names: { node => what the maker prints there }; maker_codes: { component code => the maker's own };
  # factory_colors: { tab of a device => color of the maker's wire on it }.
  Rig =
    Value.define(
      :name,
      :archetype,
      :note,
      :facts,
      :cables,
      :jumpers,
      :terminal_names,
      :maker_codes,
      :factory_colors,
      defaults: {
        note: nil,
        facts: {}.freeze,
        jumpers: [].freeze,
        terminal_names: {}.freeze,
        maker_codes: {}.freeze,
        factory_colors: {}.freeze
      }
    )

  class Rig
    def self.build(**fields)
      rig = new(**fields)
      problems = Check.new(rig).problems
      raise BadRigFile.new(problems) if problems.any?

      rig
    end

    # The value of a fact: as recorded, else as the board family has it, else the catalogue's default.
    def [](key)
      key = key.to_s
      known = Catalogue.facts.fetch(key)
      return facts[key].value if facts.key?(key)

      known["board"] ? Catalogue.boards.fetch(self[:board_family]).fetch(key) : default(known)
    end

    # Whether a fact is asked of this rig at all.
    def asks?(key) =
      Catalogue.facts.fetch(key.to_s).fetch("when", {}).all? { |other, value| Array(value).include?(self[other]) }

    # Keys of the facts that are settings of the thermostat.
    def self.settings = @settings ||= Catalogue.facts.select { |_key, about| about["group"] == "settings" }.keys.freeze

    # Keys of facts that nobody has read or measured here.
    def assumed = Catalogue.facts.keys.select { |key| asks?(key) && (facts[key].nil? || facts[key].assumed?) }

    def layout = Catalogue.archetypes.fetch(archetype)
    # "O" or "B"
    def changeover = self[:changeover]

    # The thermostat's changeover terminal that is live when the equipment of that letter is to be energized; nil where
    # it gives none.
    def changeover_terminal(letter)
      case self[:changeover_terminal]
      when "separate"
        letter
      when "single"
        letter == self[:changeover_setup] ? "OB" : nil
      else
        self[:changeover_setup] == "O" ? letter : { "O" => "B", "B" => "O" }[letter]
      end
    end

    # Where auxiliary heat goes out at the wall.
    def aux_terminal = self[:w1_terminal] ? self[:aux_terminal] : "W2"

    # With these facts answered otherwise: { key => value }.
    def set(values, source = "assumed") =
      with(
        facts:
          facts.merge(
            values.to_h { |key, value| [key.to_s, Fact.new(value: value, provenance: Provenance.new(source: source))] }
          )
      )
    # Terminals of a place in the order they stand on the strip.
    def terminals(place) = Terminals.of(self, place)
    def place_title(place) = layout.fetch("places").fetch(place)

    # Everything wrong with a rig that is well-formed, as [{ "field", "problem" }].
    class Check
      MOST_ROWS = 20

      def initialize(rig) = @rig = rig

      def problems
        unless Catalogue.archetypes.key?(@rig.archetype)
          return unknown("/archetype", @rig.archetype, Catalogue.archetypes.keys, "archetype")
        end

        facts + (facts.empty? ? wiring + printed : [])
      end

      # What is wrong with the value of one fact.
      def value(key, given, about)
        field = "/facts/#{key}/value"
        case about.fetch("kind")
        when "choice"
          about["of"].key?(given) ? [] : unknown(field, given, about["of"].keys, "choice")
        when "flag"
          [true, false].include?(given) ? [] : problem(field, "has to be true or false")
        when "number"
          number(field, given, about)
        when "list"
          list(field, given, about)
        when "table"
          table(field, given, about)
        end
      end

      private

      def problem(field, says) = [{ "field" => field, "problem" => says }]

      def unknown(field, given, known, what)
        near = Nearest.of(given, known)
        problem(
          field,
          "unknown #{what} '#{Nearest.quoted(given)}'; " +
            (near ? "did you mean '#{near}'?" : "known are #{known.join(", ")}")
        )
      end

      def facts
        @rig.facts.flat_map do |key, fact|
          about = Catalogue.facts[key]
          about ? value(key, fact.value, about) : unknown("/facts/#{key}", key, Catalogue.facts.keys, "fact")
        end
      end

      def number(field, given, about)
        return [] if given.is_a?(Numeric) && given.finite? && given.between?(about["low"], about["high"])

        problem(
          field,
          "has to be a number from #{about["low"]} to #{about["high"]} #{about["unit"]}, not #{given.inspect}"
        )
      end

      # Pairs of numbers, the first of each rising.
      def table(field, given, about)
        unless given.is_a?(Array) && given.size.between?(2, MOST_ROWS)
          return problem(field, "has to be 2 to #{MOST_ROWS} pairs of #{about["columns"].join(" and ")}")
        end

        wrong =
          given.each_with_index.flat_map do |pair, i|
            pair(pair, about) ? [] : problem("#{field}/#{i}", pair_words(pair, about))
          end
        return wrong if wrong.any?

        fall = given.each_cons(2).find_index { |(low, _), (high, _)| high <= low }
        if fall
          problem(
            "#{field}/#{fall + 1}",
            "#{given[fall + 1][0]} #{about["columns"][0]} comes after #{given[fall][0]}; " \
              "each row has to be above the one before"
          )
        else
          []
        end
      end

      def pair(pair, about)
        pair.is_a?(Array) && pair.size == 2 &&
          pair.each_with_index.all? do |value, i|
            value.is_a?(Numeric) && value.finite? && value.between?(about["low"][i], about["high"][i])
          end
      end

      def pair_words(pair, about)
        limits =
          about["columns"].each_with_index.map { |title, i| "#{title} from #{about["low"][i]} to #{about["high"][i]}" }
        "has to be a pair, #{limits.join(", ")}, not #{pair.inspect[0, 40]}"
      end

      def list(field, given, about)
        return problem(field, "has to be a list of #{about["of"].keys.join(", ")}") unless given.is_a?(Array)

        wrong =
          given.each_with_index.flat_map do |entry, i|
            about["of"].key?(entry) ? [] : unknown("#{field}/#{i}", entry, about["of"].keys, "entry")
          end
        wrong +
          given
            .tally
            .filter_map { |entry, times| problem(field, "'#{entry}' stands in it #{times} times") if times > 1 }
            .flatten
      end

      def wiring
        doubles("/cables", @rig.cables) +
          @rig.cables.each_with_index.flat_map { |cable, i| cable(cable, "/cables/#{i}") } + names +
          doubles("/jumpers", @rig.jumpers) +
          @rig.jumpers.each_with_index.flat_map { |jumper, i| jumper(jumper, "/jumpers/#{i}") }
      end

      # Maker's codes are for components that there are; colors for tabs.
      def printed
        @rig.maker_codes.keys.flat_map do |code|
          if Catalogue.components.key?(code)
            []
          else
            unknown("/maker_codes/#{code}", code, Catalogue.components.keys, "component")
          end
        end
      end

      # Maker's names are for terminals that are there.
      def names
        @rig.terminal_names.keys.flat_map do |node|
          place, terminal = node.split(".", 2)
          if @rig.layout["places"].key?(place)
            landing(place, terminal, "/terminal_names/#{node}")
          else
            unknown("/terminal_names/#{node}", place, @rig.layout["places"].keys, "place")
          end
        end
      end

      def doubles(field, things)
        things.each_with_index.flat_map do |thing, i|
          first = things.index { |other| other.id == thing.id }
          if first == i
            []
          else
            problem(
              "#{field}/#{i}/id",
              "two things are called '#{thing.id}' (the other at #{field}/#{first}); give each its own name"
            )
          end
        end
      end

      def cable(cable, field)
        if cable.from == cable.to
          return problem("#{field}/to", "the cable starts and ends at '#{cable.to}'; it has to join two places")
        end

        doubles("#{field}/conductors", cable.conductors) +
          cable.conductors.each_with_index.flat_map do |conductor, i|
            conductor(cable, conductor, "#{field}/conductors/#{i}")
          end
      end

      def conductor(cable, conductor, field)
        doubles("#{field}/splices", conductor.splices) +
          %i[from to].flat_map do |side|
            terminal = conductor.public_send(side)
            place = cable.public_send(side)
            if terminal.nil?
              if conductor.spare
                []
              else
                problem(
                  "#{field}/#{side}",
                  "dangles: '#{conductor.id}' lands on nothing at the #{@rig.place_title(place)}; " \
                    "name a terminal, or mark it \"spare\": true"
                )
              end
            else
              landing(place, terminal, "#{field}/#{side}")
            end
          end
      end

      def jumper(jumper, field)
        return problem("#{field}/to", "the jumper starts and ends at #{jumper.to}") if jumper.from == jumper.to

        landing(jumper.place, jumper.from, "#{field}/from") + landing(jumper.place, jumper.to, "#{field}/to")
      end

      def landing(place, terminal, field)
        if @rig.terminals(place).include?(terminal)
          []
        else
          unknown(field, terminal, @rig.terminals(place), "terminal at the #{@rig.place_title(place)}")
        end
      end
    end

    private

    def default(known)
      by = known.fetch("default_by", {}).filter_map { |other, values| values[self[other]] }
      by.first || known.fetch("default")
    end
  end
end
