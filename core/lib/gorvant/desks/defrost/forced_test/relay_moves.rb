# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # What the defrost relay moves: the outdoor fan, the valve, and heat indoors.
    class RelayMoves < Judge
      # [Verdict]
      def verdicts = [fan, valve, strips].compact

      private

      def fan
        amps = record.readings["fan_amps"]
        draws = amps && amps > @numbers.fetch("fan_still_draws_amps")
        if draws || record.answers["fan"] == false
          return(
            verdict("fan_runs", fan_evidence(amps), look_first: true, amps: amps ? " (#{format("%g", amps)} A)" : "")
          )
        end
        return verdict("fan_stopped", watch("bridge_on", "fan_off"), seen: since_bridge("fan_off")) if marks["fan_off"]

        nil
      end

      def fan_evidence(amps)
        [
          (Catalogue.words("defrost.fan_amps", amps: format("%g", amps)) if amps),
          (Catalogue.words("defrost.answer_no", what: "the fan stopped") if record.answers["fan"] == false)
        ].compact
      end

      # Hot-gas boards need not move the valve at all.
      def valve
        return nil if rig[:defrost_method] == "hot_gas"

        signs = [line_sign, gauge_sign, heard_sign].compact
        return verdict("valve_gauges_alike", [gauge_words]) if signs.empty? && gauges_alike?
        return verdict("valve_unclear", [Catalogue.words("defrost.nothing_taken")]) if signs.empty?

        against = signs.find { |turned, _words| !turned }
        if against
          verdict("valve_not", signs.map(&:last), how: capital(against.last))
        else
          verdict("valve_shifted", signs.map(&:last), how: capital(signs.first.last))
        end
      end

      def capital(words) = words[0].upcase + words[1..]

      def line_sign
        before, after = record.readings.values_at("vapour_before_degrees_f", "vapour_after_degrees_f")
        before && after &&
          [
            before - after >= @numbers.fetch("vapour_line_turns_degrees_f"),
            Catalogue.words("defrost.vapour_line", before: format("%g", before), after: format("%g", after))
          ]
      end

      # True suction and vapor port are alike in defrost and cooling, far apart in heating. Alike proves that the valve
      # moved only where they were apart before: without compression, or with a valve that leaks through, they are alike
      # all the time.
      def gauge_sign
        apart = gauges_apart or return nil
        return false, gauge_words if apart > @numbers.fetch("apart_psi")

        before = gauges_apart("_before")
        [true, gauge_words] if gauges_alike? && before && before > @numbers.fetch("apart_psi")
      end

      def gauges_apart(moment = "")
        suction, port = record.readings.values_at("true_suction#{moment}_psi", "vapour_port#{moment}_psi")
        suction && port && (suction - port).abs
      end

      def gauges_alike? = (apart = gauges_apart) && apart <= @numbers.fetch("alike_psi")

      def gauge_words
        values =
          %w[true_suction_before_psi vapour_port_before_psi true_suction_psi vapour_port_psi].map do |key|
            record.readings[key]&.then { |value| format("%g", value) }
          end
        before =
          values[0] && values[1] ? Catalogue.words("defrost.gauges_before", suction: values[0], port: values[1]) : ""
        before + Catalogue.words("defrost.gauges", suction: values[2], port: values[3])
      end

      def heard_sign
        if marks["valve_heard"]
          return [
            true,
            Catalogue.words(
              "defrost.seen_mark",
              mark: Catalogue.words("defrost.mark_valve_heard"),
              at: seconds(marks["valve_heard"])
            )
          ]
        end

        if record.answers["valve"] == false
          [false, Catalogue.words("defrost.answer_no", what: "the valve was heard")]
        else
          nil
        end
      end

      def strips
        return nil if rig[:backup] == "none"
        if marks["strips_on"]
          return verdict("strips_on", watch("bridge_on", "strips_on"), seen: since_bridge("strips_on"))
        end

        unless record.answers["strips"] == false
          return verdict("strips_unclear", [Catalogue.words("defrost.nothing_taken")])
        end

        evidence = [*watch("fan_off", "fan_back"), Catalogue.words("defrost.answer_no", what: "heat came on")]
        if no_time?
          verdict("strips_no_time", evidence, needs: seconds(strips_need))
        else
          verdict("strips_missing", evidence)
        end
      end

      # Seconds from the relay to heat: a sequencer's or a furnace's, or none to speak of.
      def strips_need =
        if rig[:backup] == "strips" && rig[:strip_switch] == "relay"
          @numbers.fetch("lag_seconds")
        else
          @numbers.fetch("strips_on_lag_seconds")
        end

      # Out again before heat could come.
      def no_time?
        began = sharp_beginning or return false

        over = [marks["fan_back"], marks["jumper_off"]].compact.min
        !over.nil? && over - began[0] < strips_need
      end
    end
  end
end
