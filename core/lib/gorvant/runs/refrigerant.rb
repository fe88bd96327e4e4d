# frozen_string_literal: true

module Gorvant
  # Which way the refrigerant goes at a time of a run: where the valve stands and is told to stand, which coil and which
  # line are hot, and what both gauge ports show.
  # valve, told: "heating" or "cooling"; hot: "indoor", "outdoor" or nil when nothing is pumped; says: a sentence.
  Refrigerant = Value.define(:seconds, :valve, :told, :pumping, :hot, :outdoor_fan, :blower, :ports, :says)

  class Refrigerant
    SIGNALS = %w[valve RVS RVS_LINE COMP OFM BLOWER].freeze

    class << self
      # [Refrigerant], one for each stretch in which nothing of it changes.
      def of(timeline)
        times =
          timeline
            .signals
            .select { |signal| SIGNALS.include?(signal.id) }
            .flat_map { |signal| signal.steps.map(&:first) }
            .uniq
            .sort
        times.map { |at| at(timeline, at) }.chunk_while { |a, b| a.with(seconds: 0) == b.with(seconds: 0) }.map(&:first)
      end

      def at(timeline, seconds)
        value = ->(id) { timeline.signals.any? { |signal| signal.id == id } && timeline.value_at(id, seconds) == true }
        valve = timeline.value_at("valve", seconds)
        told = told(timeline, value)
        pumping = value["COMP"] && not_broken?(timeline, seconds)
        new(
          seconds: seconds,
          valve: valve,
          told: told,
          pumping: pumping,
          hot: hot(valve, pumping),
          outdoor_fan: value["OFM"],
          blower: value["BLOWER"],
          ports: ports(valve, pumping),
          says: says(valve, told, pumping, timeline.standing_reason("valve", seconds))
        )
      end

      private

      def told(timeline, value)
        energized = value["RVS"] || value["RVS_LINE"]
        (timeline.rig.changeover == "O") == energized ? "cooling" : "heating"
      end

      def not_broken?(timeline, seconds) =
        timeline.condition_at(seconds).faults.none? { |fault| fault["kind"] == "not_pumping" }

      def hot(valve, pumping)
        return nil unless pumping

        valve == "heating" ? "indoor" : "outdoor"
      end

      # True suction and vapor port: far apart in heating, alike in cooling and defrost.
      def ports(valve, pumping) = Catalogue.wording.fetch("ports.#{pumping ? valve : "equal"}")

      def says(valve, told, pumping, reason)
        return Catalogue.words("refrigerant.#{pumping ? valve : "still"}") if valve == told

        rule = reason && Catalogue.sequence.fetch(reason.rule)
        Catalogue.words(
          "refrigerant.not_moved",
          told: told,
          why: rule ? format(rule["says"], reason.fields) : Catalogue.sequence.dig("no_pressure", "says")
        )
      end
    end
  end
end
