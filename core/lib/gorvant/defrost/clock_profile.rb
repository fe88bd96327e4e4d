# frozen_string_literal: true

module Gorvant
  # How a defrost board counts, starts and ends: every open question answered by a field. Times in seconds.
  # starts_degrees_f, ends_degrees_f: coil at or below which it may start, at or above which it ends.
  ClockProfile = Value.define(:school, :interval_seconds, :limit_seconds, :counts_on, :counts_in_cooling, :counts_in_defrost, :restarts_at, :survives_power, :at_expiry, :y_lost, :ends_by,
                              :in_cooling, :forced_entry, :speed_up_factor, :hurries_limit, :hold_seconds, :demand_minimum_seconds, :demand_maximum_seconds, :turn_seconds,
                              :starts_degrees_f, :ends_degrees_f,
                              :assumed, :assumed_start)

  class ClockProfile
    SCHOOLS = %w[free run_time time_only run_time_cold].freeze # side by side, in the order in which they are told
    FACTS = %w[defrost_clock defrost_interval_minutes defrost_limit_minutes clock_counts_on
               clock_counts_in_cooling clock_counts_in_defrost clock_restarts_at clock_survives_power at_expiry
               y_lost_in_defrost defrost_ends_by defrost_in_cooling forced_entry speed_up_factor speed_up_hurries_limit
               forced_entry_hold_seconds demand_minimum_minutes demand_maximum_minutes interval_auto].freeze

    # Of a rig; assumed: titles of the answers that nobody has read; assumed_start: of those, what decides when a defrost starts.
    def self.of(rig)
      new(school: rig[:defrost_clock], interval_seconds: rig[:defrost_interval_minutes] * 60.0, limit_seconds: rig[:defrost_limit_minutes] * 60.0, counts_on: rig[:clock_counts_on],
          counts_in_cooling: rig[:clock_counts_in_cooling], counts_in_defrost: rig[:clock_counts_in_defrost], restarts_at: rig[:clock_restarts_at],
          survives_power: rig[:clock_survives_power],
          at_expiry: expiry(rig), y_lost: rig[:y_lost_in_defrost], ends_by: rig[:defrost_ends_by], in_cooling: rig[:defrost_in_cooling], forced_entry: rig[:forced_entry],
          speed_up_factor: rig[:speed_up_factor].to_f, hurries_limit: rig[:speed_up_hurries_limit], hold_seconds: rig[:forced_entry_hold_seconds].to_f,
          demand_minimum_seconds: rig[:demand_minimum_minutes] * 60.0, demand_maximum_seconds: rig[:demand_maximum_minutes] * 60.0,
          starts_degrees_f: coil(rig, "coil_sensor_starts_degrees_f", "coil_switch_closes_degrees_f"), ends_degrees_f: coil(rig, "coil_sensor_ends_degrees_f", "coil_switch_opens_degrees_f"),
          turn_seconds: rig[:y_path] == "delay" && rig[:defrost_turn] == "drops" ? rig[:defrost_turn_seconds].to_f : nil, assumed: assumed(rig),
          assumed_start: assumed(rig, START))
    end

    # By what senses the coil. A rig from before sensors had points of their own may have them under the switch.
    def self.coil(rig, sensor, switch)
      own = rig[:sensing] == "thermistors" && (rig.facts.key?(sensor) || !rig.facts.key?(switch))
      rig[own ? sensor : switch].to_f
    end

    # A free clock misses its turn unless its board is known to do otherwise.
    def self.expiry(rig) = rig[:defrost_clock] == "free" && !rig.facts.key?("at_expiry") ? "miss" : rig[:at_expiry]

    START = %w[defrost_clock defrost_interval_minutes clock_counts_on clock_counts_in_cooling clock_counts_in_defrost at_expiry interval_auto demand_minimum_minutes
               demand_maximum_minutes].freeze

    def self.assumed(rig, keys = FACTS)
      open = keys.select { |key| rig.asks?(key) && (rig.facts[key].nil? || rig.facts[key].assumed?) }
      open.map { |key| Catalogue.facts.fetch(key)["title"].downcase }
    end

    # The same board of another school.
    def as(school) = with(school: school, at_expiry: school == "free" ? "miss" : at_expiry)
    # Seconds after which this school may start.
    def full_seconds = school == "demand" ? demand_minimum_seconds : interval_seconds
  end
end
