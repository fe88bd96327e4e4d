# frozen_string_literal: true

module Gorvant
  module Practice
    # One drill. form, subject, level: keys of practice.yml; rig: as drawn; symptoms: what is complained of; truth:
    # Truth of a free bench, else nil; par: Par, what Find needs on the same truth; asks: what the other forms ask, with
    # their answers, as their classes have it. seed: all that is drawn on the bench follows from it.
    Drill =
      Value.define(
        :form,
        :subject,
        :level,
        :seed,
        :rig,
        :symptoms,
        :outdoor_degrees_f,
        :truth,
        :par,
        :asks,
        defaults: {
          symptoms: [].freeze,
          outdoor_degrees_f: 35.0,
          truth: nil,
          par: nil,
          asks: nil
        }
      )

    class Drill
      # What Find needs: tests, minutes and walks between places, as it would work in this drill.
      Par = Value.define(:tests, :minutes, :walks)

      # sealed: as to_json_hash has it; rig: Rig as drawn.
      def self.from(sealed, rig)
        new(
          **sealed.slice("form", "subject", "level", "seed", "symptoms", "outdoor_degrees_f", "asks").transform_keys(
            &:to_sym
          ),
          rig: rig,
          truth: sealed["truth"] && Truth.from(sealed["truth"]),
          par: sealed["par"] && Par.new(**sealed["par"].transform_keys(&:to_sym))
        )
      end

      # All but the rig: what nobody may see before the decision.
      def to_json_hash
        {
          "form" => form,
          "subject" => subject,
          "level" => level,
          "seed" => seed,
          "symptoms" => symptoms,
          "outdoor_degrees_f" => outdoor_degrees_f,
          "asks" => asks,
          "truth" => truth&.to_json_hash,
          "par" => par && par.to_h.transform_keys(&:to_s)
        }
      end

      # The weather of a free bench: in which a subject's truths show on this rig, °F.
      def self.weather(rig, subject)
        past = Practice.numbers["past_degrees_f"]
        return Practice.numbers["outdoor_degrees_f"] unless subject == "not_a_fault"
        return rig[:outdoor_thermostat_closes_degrees_f] + past if rig[:outdoor_thermostat]

        Balance.in_use?(rig) ? rig[:auxiliary_balance_degrees_f] + past : Practice.numbers["outdoor_degrees_f"]
      end

      # The unit as a technician comes to it: nothing found otherwise yet.
      def situation = Diagnosis::Situation.new(rig, outdoor_degrees_f: outdoor_degrees_f)
    end
  end
end
