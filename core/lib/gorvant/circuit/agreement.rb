# frozen_string_literal: true

module Gorvant
  # A measured value held against what the circuit should read. It agrees when it is of the same class and within the
  # interval that the rig's tolerances and the meter allow.
  # Source: docs/architecture.md, agreement.
  module Agreement
    # verdict: "agrees", "disagrees" or "undetermined". measured_klass: the class of the value read.
    # off_volts_ac: how far outside the interval (0.0 inside), near_edge: within the profile's margin of a class edge.
    Judgement = Value.define(:verdict, :measured_klass, :off_volts_ac, :near_edge, :says)

    class << self
      # expected: an Expected. measured: volts AC, zero or more.
      def judge(expected, measured)
        return judge_either(expected, measured) if expected.alternatives.any?

        klass = klass_of(expected, measured)
        inside = expected.klass != "undetermined" && measured.between?(expected.low_volts_ac, expected.high_volts_ac)
        verdict = verdict(expected, klass, inside)
        near = near_edge?(measured)
        Judgement.new(
          verdict: verdict,
          measured_klass: klass,
          off_volts_ac: off(expected, measured),
          near_edge: near,
          says: says(verdict, expected, measured, klass, near)
        )
      end

      private

      # Of several that it may be: what fits none of them is wrong, what fits one proves nothing of the circuit.
      def judge_either(expected, measured)
        each = expected.alternatives.map { |one| judge(one, measured) }
        fits = each.find { |one| one.verdict == "agrees" }
        key = fits ? "either" : "neither"
        wanted = expected.alternatives.map { |one| Catalogue.words("class.#{one.klass}") }.uniq.join(" or ")
        each.min_by(&:off_volts_ac).with(
          verdict: fits ? "undetermined" : "disagrees",
          says: Catalogue.words("agreement.#{key}", measured: format("%.1f", measured), wanted: wanted)
        )
      end

      # On a conductor that floats, anything under a feed is a ghost.
      def klass_of(expected, measured)
        return "ghost" if expected.floating && measured <= (expected.high_volts_ac || 0.0) && expected.klass == "ghost"

        Meter.klass(measured)
      end

      def verdict(expected, klass, inside)
        return "undetermined" if %w[undetermined unsteady].include?(expected.klass)

        klass == expected.klass && inside ? "agrees" : "disagrees"
      end

      def off(expected, measured)
        return 0.0 unless expected.low_volts_ac
        return expected.low_volts_ac - measured if measured < expected.low_volts_ac

        [measured - expected.high_volts_ac, 0.0].max
      end

      def near_edge?(measured)
        margin = Catalogue.profile.fetch("agreement").fetch("edge_margin_volts")
        Catalogue
          .profile
          .fetch("reading_classes")
          .any? do |_name, edges|
            edges.values_at("low", "high").any? { |edge| edge.positive? && (measured - edge).abs <= margin }
          end
      end

      def says(verdict, expected, measured, klass, near)
        key = klass == "ghost" && verdict == "agrees" ? "ghost" : verdict
        sentence =
          Catalogue.words(
            "agreement.#{key}",
            measured: format("%.1f", measured),
            expected: format("%.1f", expected.volts_ac || 0.0),
            difference: format("%.1f", (measured - (expected.volts_ac || 0.0)).abs),
            way: measured < (expected.volts_ac || 0.0) ? "under" : "over",
            class: Catalogue.words("class.#{klass}"),
            wanted: Catalogue.words("class.#{expected.klass}")
          )
        near ? "#{sentence} #{Catalogue.wording.fetch("agreement.near_edge")}" : sentence
      end
    end
  end
end
