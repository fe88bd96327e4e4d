# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # What of a unit's signatures is worked out before all else, so that there is something to measure soon: what the
    # likeliest causes show to who reads and looks in the calls of the complaint, and what no circuit has to be solved
    # for. Frost comes along only where the complaint is one of frost. No answer of it is sure: the rest is to come.
    class FirstLook
      # states: ids of Situation::State; frost: whether frost and defrosts are part of it.
      attr_reader :states, :frost

      # The look of a complaint; nil where it asks for all calls: of a fuse that blows nothing is offered before all of
      # them are known. What shows in any call, or in none that the weather allows, and no complaint have the season's.
      def self.of(situation, symptoms)
        ways = symptoms.flat_map { |symptom| Catalogue.symptoms.dig(symptom, "shows") || [] }
        return nil if ways.any? { |way| way["with"] == "blown" }

        frost = ways.any? { |way| numbers["frost_marks"].include?(way["with"]) }
        calls = ways.map { |way| way["call"] || season(situation) }.uniq
        run = calls.select { |call| situation.allowed?(call) && situation.state(call) }
        states = [*(run.empty? ? season(situation) : run), *(frost ? numbers["states_of_frost"] : [])]
        new(states.select { |id| situation.state(id) }, frost, situation.netlist)
      end

      def self.season(situation) = situation.allowed?("heat") ? "heat" : "cool"
      def self.numbers = Diagnosis.numbers.fetch("first_look")
      private_class_method :season, :numbers

      def initialize(states, frost, netlist)
        @states = states
        @frost = frost
        @netlist = netlist
        @looks_of_frost = Diagnosis.numbers.dig("first_look", "looks_of_frost")
      end

      def in?(state) = @states.include?(state)

      # Whether a test belongs to it.
      def at?(test) = (@known ||= {}).fetch(test.id) { |id| @known[id] = looks_at?(test) }

      def looks_at?(test)
        return false unless test.state.nil? || in?(test.state)
        return @frost if @looks_of_frost.include?(test.place)

        NextTests.powered?(test) && !of_fuse?(test)
      end

      # Those of all hypotheses that it is of: the likeliest, with what comes and goes of them. All others weigh with
      # none of these, which stands last.
      def among(hypotheses)
        steady = hypotheses[0...-1].reject(&:steady)
        left = steady.sum(&:share) * Diagnosis.numbers.dig("first_look", "share")
        ids =
          steady.sort_by.with_index { |one, i| [-one.share, i] }.take_while { |one| (left -= one.share) > -one.share }
        known = ids.to_h { |one| [one.id, true] }.merge("nothing" => true)
        chosen, others = hypotheses[0...-1].partition { |one| known.key?(one.steady || one.id) }
        [*chosen, hypotheses.last.with(share: hypotheses.last.share + others.sum(&:share))]
      end

      # Whether it leaves nothing out.
      def whole? = false

      # Everything.
      class Whole < FirstLook
        def initialize = super([].freeze, true, nil)
        def whole? = true
        def among(hypotheses) = hypotheses
        def in?(_state) = true
        def at?(_test) = true
      end

      WHOLE = Whole.new.freeze

      private

      # What a fuse's ohms are hangs on every call that may have blown it.
      def of_fuse?(test) = test.function == "ohms" && test.place != "between" && @netlist[test.place].kind == :fuse
    end
  end
end
