# frozen_string_literal: true

module Gorvant
  # A bench that hides what Find could find: drills, what a learner may do, and what it comes to.
  module Practice
    # What the bench goes by: core/data/practice.yml.
    def self.numbers = Catalogue.practice

    # What cannot be done on a bench, or is no drill.
    class BadAct < Error
      says "%<field>s: %<problem>s"
    end

    # What is really so with a drill's unit. hypotheses: [Diagnosis::Hypothesis], two where two things are wrong.
    # spells: [[from, until]] in bench seconds while it is so; nil for always. codes: { test id => code } of what no
    # instant of a run shows (ice, ports), as the steady circuit has it.
    Truth = Value.define(:hypotheses, :spells, :codes, defaults: { spells: nil, codes: {}.freeze })

    class Truth
      FIELDS = %i[id kind title faults facts turns senses at part_ok shows proof licensed].freeze

      def self.from(given)
        hypotheses =
          given
            .fetch("hypotheses")
            .map do |one|
              Diagnosis::Hypothesis.new(**one.slice(*FIELDS.map(&:to_s)).transform_keys(&:to_sym), share: 0.0)
            end
        new(hypotheses: hypotheses, spells: given["spells"], codes: given.fetch("codes", {}))
      end

      def to_json_hash =
        {
          "hypotheses" => hypotheses.map { |one| one.to_h.slice(*FIELDS).transform_keys(&:to_s) },
          "spells" => spells,
          "codes" => codes
        }

      def faults = hypotheses.flat_map(&:faults)
      def titles = hypotheses.map(&:title)
      def as_designed? = hypotheses.all?(&:as_designed?)

      # Whether it is so at a second of the bench.
      def there?(seconds) = spells.nil? || spells.any? { |from, upto| seconds >= from && seconds < upto }

      # What lies in the set-up, in the equipment: it does not come and go.
      def rig(drawn)
        set_up, = Fault.parse_all(faults).partition { |fault| fault.kind == "set_up" }
        fitted = set_up.inject(drawn) { |so_far, fault| fault.refit(so_far) }
        facts = hypotheses.map(&:facts).inject({}, :merge)
        facts.empty? ? fitted : fitted.set(facts.transform_keys(&:to_sym))
      end

      # Moves of a script that put the rest into a run. lead: seconds of the run before the bench begins.
      def moves(lead)
        others = faults.reject { |fault| fault["kind"] == "set_up" }
        spans = spells ? spells.map { |from, upto| [lead + from, lead + upto] } : [[0.0, nil]]
        spans.flat_map do |from, upto|
          others.flat_map do |fault|
            [
              { "at_seconds" => from, "what" => "fault", "of" => fault, "value" => "begins" },
              *(upto ? [{ "at_seconds" => upto, "what" => "fault", "of" => fault, "value" => "ends" }] : [])
            ]
          end
        end
      end

      # As one hypothesis: what eye, ear and hand go by.
      def whole
        first, second = hypotheses
        return first unless second

        first.with(faults: faults, senses: first.senses.merge(second.senses), facts: first.facts.merge(second.facts))
      end
    end
  end
end
