# frozen_string_literal: true

module Gorvant
  # How a defrost board counts, starts and ends: every open question answered by a field. Times in seconds.
  # limit_seconds: nil for a board that knows no time limit. starts_degrees_f, ends_degrees_f: coil at or below which it
  # may start, at or above which it ends. below_air_degrees_f: [[outdoor °F, how far the coil has to run below it]]
  # of a demand board. backstop: whether its longest interval still defrosts with a failed sensor. auto: the selector
  # promises no interval. reads: whether anybody read what the clock counts on.
  ClockProfile =
    Value.define(
      :school,
      :interval_seconds,
      :limit_seconds,
      :counts_on,
      :counts_in_cooling,
      :counts_in_defrost,
      :restarts_at,
      :survives_power,
      :at_expiry,
      :y_lost,
      :ends_by,
      :in_cooling,
      :forced_entry,
      :speed_up_factor,
      :hurries_limit,
      :hold_seconds,
      :demand_minimum_seconds,
      :demand_maximum_seconds,
      :turn_seconds,
      :starts_degrees_f,
      :ends_degrees_f,
      :below_air_degrees_f,
      :backstop,
      :auto,
      :reads_counts_on,
      :assumed,
      :assumed_start
    )

  class ClockProfile
    # Side by side, in the order in which they are told.
    SCHOOLS = %w[free run_time time_only run_time_cold clock_motor].freeze
    FACTS = %w[
      defrost_clock
      defrost_interval_minutes
      defrost_limit_minutes
      clock_counts_on
      clock_counts_in_cooling
      clock_counts_in_defrost
      clock_restarts_at
      clock_survives_power
      at_expiry
      y_lost_in_defrost
      defrost_ends_by
      defrost_in_cooling
      forced_entry
      speed_up_factor
      speed_up_hurries_limit
      forced_entry_hold_seconds
      demand_minimum_minutes
      demand_maximum_minutes
      demand_below_air_degrees_f
      failed_sensor_backstop
      interval_auto
    ].freeze
    START = %w[
      defrost_clock
      defrost_interval_minutes
      clock_counts_on
      clock_counts_in_cooling
      clock_counts_in_defrost
      at_expiry
      interval_auto
      demand_minimum_minutes
      demand_maximum_minutes
      demand_below_air_degrees_f
    ].freeze

    class << self
      # Of a rig; assumed: titles of the answers that nobody has read; assumed_start: of those, what decides when a
      # defrost starts.
      def of(rig) =
        new(
          **counting(rig),
          **ending(rig),
          **forcing(rig),
          **sensing(rig),
          assumed: assumed(rig),
          assumed_start: assumed(rig, START)
        ).shaped

      # Titles of those of these facts that nobody has read.
      def assumed(rig, keys = FACTS)
        open = keys.select { |key| rig.asks?(key) && (rig.facts[key].nil? || rig.facts[key].assumed?) }
        open.map { |key| Catalogue.facts.fetch(key)["title"].downcase }
      end

      private

      def minutes(rig, key) = rig[key] * 60.0

      def counting(rig)
        {
          school: rig[:defrost_clock],
          interval_seconds: minutes(rig, :defrost_interval_minutes),
          counts_on: rig[:clock_counts_on],
          reads_counts_on: rig.facts.key?("clock_counts_on"),
          counts_in_cooling: rig[:clock_counts_in_cooling],
          counts_in_defrost: rig[:clock_counts_in_defrost],
          restarts_at: rig[:clock_restarts_at],
          survives_power: rig[:clock_survives_power],
          at_expiry: rig[:at_expiry],
          in_cooling: rig[:defrost_in_cooling],
          auto: rig[:interval_auto]
        }
      end

      def ending(rig)
        {
          limit_seconds: rig[:defrost_ends_by] == "temperature" ? nil : minutes(rig, :defrost_limit_minutes),
          y_lost: rig[:y_lost_in_defrost],
          ends_by: rig[:defrost_ends_by],
          turn_seconds: rig[:y_path] == "delay" && rig[:defrost_turn] == "drops" ? rig[:defrost_turn_seconds].to_f : nil
        }
      end

      def forcing(rig)
        {
          forced_entry: rig[:forced_entry],
          speed_up_factor: rig[:speed_up_factor].to_f,
          hurries_limit: rig[:speed_up_hurries_limit],
          hold_seconds: rig[:forced_entry_hold_seconds].to_f
        }
      end

      def sensing(rig)
        {
          demand_minimum_seconds: minutes(rig, :demand_minimum_minutes),
          demand_maximum_seconds: minutes(rig, :demand_maximum_minutes),
          below_air_degrees_f: rig[:demand_below_air_degrees_f],
          backstop: rig[:failed_sensor_backstop],
          starts_degrees_f: coil(rig, "coil_sensor_starts_degrees_f", "coil_switch_closes_degrees_f"),
          ends_degrees_f: coil(rig, "coil_sensor_ends_degrees_f", "coil_switch_opens_degrees_f")
        }
      end

      # By what senses the coil. A rig from before sensors had points of their own may have them under the switch.
      def coil(rig, sensor, switch)
        own = rig[:sensing] == "thermistors" && (rig.facts.key?(sensor) || !rig.facts.key?(switch))
        rig[own ? sensor : switch].to_f
      end
    end

    # The same board of another school, with that school's own defaults for what nobody read.
    def as(school)
      with(
        school: school,
        at_expiry: own_default("at_expiry", school),
        counts_on: reads_counts_on ? counts_on : own_default("clock_counts_on", school)
      ).shaped
    end

    # A clock motor goes round by the clock, the defrost included.
    def shaped = school == "clock_motor" ? with(counts_in_defrost: true, restarts_at: "start") : self

    # Seconds after which this school may start.
    def full_seconds = school == "demand" ? demand_minimum_seconds : interval_seconds

    private

    def own_default(key, school)
      about = Catalogue.facts.fetch(key)
      about.dig("default_by", "defrost_clock", school) || about.fetch("default")
    end
  end
end
