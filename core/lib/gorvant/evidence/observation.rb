# frozen_string_literal: true

module Gorvant
  # What cannot be read, or not of this rig.
  class BadObservation < Error
    says "%<field>s: %<problem>s"
  end

  # One thing that a person read, saw, looked up or did. function: a key of Catalogue.evidence["functions"].
  # from_node, to_node: two points. place: a load's code, a named place, a fact, or what was acted on. amount: Amount
  # or nil. choice: what was seen, looked up or done; "could_not_tell" is one. isolated: ohms of the part by itself.
  Observation =
    Value.define(
      :function,
      :from_node,
      :to_node,
      :place,
      :amount,
      :choice,
      :instrument,
      :isolated,
      defaults: {
        from_node: nil,
        to_node: nil,
        place: nil,
        amount: nil,
        choice: nil,
        isolated: false
      }
    )

  class Observation
    LOOKED_AT = %w[choice flag number].freeze # kinds of facts
    UNTOLD = "could_not_tell"

    class << self
      def functions = Catalogue.evidence.fetch("functions")

      # Functions whose readings speak for the circuit in their call.
      def of_call = functions.select { |_id, about| about["of_call"] }.keys

      # Instruments of a function: { id => title }.
      def instruments(function)
        titles = Catalogue.evidence.fetch("instruments")
        functions
          .fetch(function)
          .fetch("instruments")
          .to_h { |id| [id, titles.fetch(id) { Catalogue.profile.dig("instruments", id, "title") }] }
      end

      # Facts that this rig asks and that one look answers.
      def readable_facts(rig) =
        Catalogue.facts.select { |key, about| LOOKED_AT.include?(about["kind"]) && rig.asks?(key) }.keys

      # given: parsed JSON with string keys. trace: the circuit that it was read of. Raises BadObservation.
      def parse(given, trace) = Parser.new(given, trace).observation
    end

    def about = self.class.functions.fetch(function)

    # The value or choice in words, with its unit.
    def says
      return choice_says unless choice.nil?
      return amount.says if amount.open

      "#{amount.says(about["decimals"])} #{about.fetch("unit")}"
    end

    # Where, in words; nodes by their labels.
    def whereabouts(netlist)
      return "#{netlist.label(from_node)} – #{netlist.label(to_node)}" if about["at"] == "points"
      return Naming.component(place) if about["at"] == "load"
      return Catalogue.facts.fetch(place).fetch("title") if about["at"] == "fact"

      named = about.fetch("places").fetch(place)
      named.is_a?(Hash) ? named.fetch("title") : named
    end

    private

    def choice_says
      return Catalogue.evidence.dig("functions", "seen", "choices", UNTOLD) if choice == UNTOLD
      return Comparison.words(place, choice) if function == "looked_up"

      about.fetch("choices").fetch(choice)
    end

    # An Observation of JSON: what its function asks for, and nothing else.
    class Parser
      ALL = %w[from_node to_node place value value_high about open choice isolated].freeze
      ASKED = {
        "points" => %w[from_node to_node value value_high about open isolated],
        "load" => %w[place value value_high about],
        "place" => %w[place value value_high about choice],
        "fact" => %w[place choice]
      }.freeze

      def initialize(given, trace)
        @given = given
        @trace = trace
      end

      def observation
        @about = Observation.functions[@given["function"]] || one_of("function", Observation.functions.keys)
        stray = (ALL - ASKED.fetch(@about["at"])).find { |key| @given[key] }
        wrong(stray, "is not for #{@about["title"]}; leave it out") if stray

        Observation.new(
          function: @given["function"],
          instrument: instrument,
          isolated: isolated,
          **(@about["at"] == "points" ? points : { place: place }),
          **(@about["unit"] ? { amount: amount } : { choice: choice })
        )
      end

      private

      def instrument
        known = @about.fetch("instruments")
        given = @given["instrument"] || (known.one? ? known.first : nil)
        known.include?(given) ? given : one_of("instrument", known)
      end

      def isolated
        return false unless @given["isolated"]

        @given["function"] == "ohms" || wrong("isolated", "is for ohms; leave it out")
      end

      def amount = Amount.parse(@given, @about.values_at("low", "high"), may_open: @about["open"])

      def points
        ends = %w[from_node to_node].to_h { |key| [key.to_sym, node(key)] }
        wrong("to_node", "is the same point as from_node; put the probes on two points") if ends.values.uniq.one?
        ends
      end

      def node(key)
        @trace.netlist.node?(@given[key]) ? @given[key] : wrong(key, "is no point of this rig")
      end

      def place
        known =
          case @about["at"]
          when "load"
            @trace.load_codes
          when "fact"
            Observation.readable_facts(@trace.rig)
          else
            @about.fetch("places").keys
          end
        known.include?(@given["place"]) ? @given["place"] : one_of("place", known)
      end

      def choice
        return fact_choice if @about["at"] == "fact"

        known = @about.fetch("places").fetch(place).fetch("choices").keys + [UNTOLD]
        known.include?(@given["choice"]) ? @given["choice"] : one_of("choice", known)
      end

      # A fact's own values; numbers and flags as JSON has them.
      def fact_choice
        given = @given["choice"]
        return given if given == UNTOLD

        problem = Rig::Check.new(@trace.rig).value(place, given, Catalogue.facts.fetch(place)).first
        problem ? wrong("choice", problem.fetch("problem")) : given
      end

      def one_of(key, known) = wrong(key, "has to be one of #{known.first(40).join(", ")}")
      def wrong(key, problem) = raise(BadObservation.new(field: "/#{key}", problem: problem))
    end
  end
end
