# frozen_string_literal: true

module Gorvant
  # The reversing valve: its solenoid works a pilot, the compressor's pressure difference moves the slide. Without
  # pressure difference it stays where it is, whatever it is told.
  class Valve < Controller
    # rests_in: :heating (O type) or :cooling. solenoid: load id. stuck: never moves.
    def initialize(rests_in:, solenoid:)
      super()
      @rests_in = rests_in
      @solenoid = solenoid
      @plant = Catalogue.profile.fetch("plant")
    end

    def id = "valve"
    def memory = { position: @rests_in, told: @rests_in, since: nil }

    def step(memory, seen)
      told = told(seen)
      return answer(memory.merge(told: told, since: nil), outputs(memory[:position])) if told == memory[:position]

      wait = blocked(seen)
      if wait
        return(
          answer(
            memory.merge(told: told, since: nil),
            outputs(memory[:position]),
            reasons: {
              id => wait[0]
            },
            wake_at: wait[1]
          )
        )
      end

      since = memory[:told] == told && memory[:since] ? memory[:since] : seen.now
      over = since + @plant.fetch("valve_travel_seconds")
      if seen.now < over
        return(
          answer({ position: memory[:position], told: told, since: since }, outputs(memory[:position]), wake_at: over)
        )
      end

      answer(
        { position: told, told: told, since: nil },
        outputs(told),
        reasons: {
          id => because("pressure_shifts", from: @solenoid, coil: seen.works?(@solenoid) ? "fed" : "not fed")
        }
      )
    end

    private

    def outputs(position) = { id => position.to_s }

    def told(seen)
      other = @rests_in == :heating ? :cooling : :heating
      seen.works?(@solenoid) ? other : @rests_in
    end

    # [Reason, when it may be over] while nothing moves it.
    def blocked(seen)
      return because("valve_stuck"), nil if seen.inputs[:valve_stuck]

      pressure = seen.quantity("pressure")
      needed = @plant.fetch("valve_needs_psi")
      return nil if pressure.at(seen.now) >= needed

      reached = pressure.target >= needed ? pressure.reaches(needed, seen.now) : nil
      [because("no_pressure", from: "COMP", until_seconds: reached), reached]
    end
  end
end
