# frozen_string_literal: true

module Gorvant
  # The board's defrost timer as a pure machine: the same for the tape, where a controller feeds it from the circuit,
  # and for the schools side by side, where a typed history does. Source: docs/sources.md, defrost-schools.
  class DefrostClock
    # What the board sees. y: Y at its terminal; t1: the contactor is fed; cold, warm: by the coil switch or sensor;
    # heating: by O or B; coil, air: °F where it has sensors; failed: a sensor is out of range; bridge: its speed-up or
    # test pins joined; aps: whether frost blocks the air, nil where no air-pressure switch is fitted. It is asked when
    # a defrost is to begin, and ends none.
    Inputs =
      Value.define(
        :powered,
        :y,
        :t1,
        :cold,
        :warm,
        :heating,
        :coil,
        :air,
        :bridge,
        :aps,
        :failed,
        defaults: {
          powered: true,
          y: nil,
          warm: nil,
          heating: true,
          coil: nil,
          air: nil,
          bridge: false,
          aps: nil,
          failed: false
        }
      )
    # counted: seconds up to `at`, going on at `rate`; spent: seconds of the defrost that is on, at `spent_rate`.
    # waits_for: what it is full and waiting for, a key of WAITS; missed: what kept it from its turn, likewise;
    # backstop: begun by its longest interval, not by frost.
    Memory =
      Value.define(
        :counted,
        :at,
        :rate,
        :defrosting,
        :spent,
        :spent_rate,
        :turn_until,
        :ended,
        :waits_for,
        :missed,
        :forced,
        :bridged_at,
        :running,
        :backstop,
        defaults: {
          counted: 0.0,
          at: 0.0,
          rate: 0.0,
          defrosting: false,
          spent: 0.0,
          spent_rate: 0.0,
          turn_until: nil,
          ended: nil,
          waits_for: nil,
          missed: nil,
          forced: false,
          bridged_at: nil,
          running: false,
          backstop: false
        }
      )

    class Memory
      def waits = !waits_for.nil?
    end

    WAITS = %w[coil air_pressure compressor heating sensor].freeze
    EPS = 1e-6

    attr_reader :profile

    def initialize(profile)
      @profile = profile
      @numbers = Catalogue.profile.fetch("defrost")
    end

    # counted_seconds: what it had counted before.
    def memory(counted_seconds = 0.0) = Memory.new(counted: [counted_seconds.to_f, most].min)

    def step(memory, now, inputs)
      return unpowered(memory, now) unless inputs.powered

      state = advance(memory, now).with(running: running?(inputs))
      state = state.with(turn_until: nil) if state.turn_until && now >= state.turn_until
      state = bridged(state, now, inputs)
      state = state.defrosting ? defrosting(state, now, inputs) : counting(state, now, inputs)
      rated(state, inputs)
    end

    # Whether the defrost relay is in.
    def on?(memory, inputs) =
      memory.defrosting && (profile.y_lost == "finish" || memory.running || !memory.turn_until.nil? || called?(inputs))

    # Seconds of the next moment at which it may do something by itself.
    def wake(memory, now)
      [memory.turn_until, *counted(memory, now), over(memory, now), held(memory)].compact
        .select { |at| at > now + EPS }
        .min
    end

    # How far the coil has to run below air of this temperature, °F, for a demand board.
    def below_air(air)
      table = profile.below_air_degrees_f
      return table.first[1] if air <= table.first[0]

      pair = table.each_cons(2).find { |(_low, _), (high, _)| air <= high } or return table.last[1]
      (low, from), (high, to) = pair
      from + ((to - from) * (air - low) / (high - low).to_f)
    end

    # Coil temperature at or below which a demand board may start, in this air.
    def demand_point(air) = [@numbers.fetch("demand_coil_at_most_degrees_f"), air - below_air(air)].min

    private

    # When the count that runs is full, and when it is as far as a demand board waits at most.
    def counted(memory, now)
      return [] unless memory.rate.positive?

      marks = [*(profile.full_seconds if memory.counted < profile.full_seconds - EPS)]
      marks << profile.demand_maximum_seconds if demand?
      marks.map { |mark| now + ((mark - memory.counted) / memory.rate) }
    end

    # When a defrost has lasted as long as it may.
    def over(memory, now)
      return nil unless memory.defrosting && by_time? && memory.spent_rate.positive?

      now + ((profile.limit_seconds - memory.spent) / memory.spent_rate)
    end

    # When pins that are held bridged have been so for long enough.
    def held(memory) =
      memory.bridged_at && profile.forced_entry == "held_pins" ? memory.bridged_at + profile.hold_seconds : nil

    def demand? = profile.school == "demand"
    # Seconds at which a count stands still.
    def most = demand? ? profile.demand_maximum_seconds : profile.interval_seconds
    def by_time? = profile.ends_by != "temperature"
    def by_temperature? = profile.ends_by != "time"
    def called?(inputs) = inputs.y.nil? ? inputs.t1 : inputs.y
    # What tells the board that the compressor runs.
    def running?(inputs) =
      profile.counts_on == "Y" && !%w[free clock_motor].include?(profile.school) ? called?(inputs) : inputs.t1

    def unpowered(memory, now)
      kept = profile.survives_power ? advance(memory, now).counted : 0.0
      Memory.new(at: now, counted: kept)
    end

    def advance(memory, now)
      passed = now - memory.at
      memory.with(
        at: now,
        counted: [memory.counted + (passed * memory.rate), most].min,
        spent: memory.spent + (passed * memory.spent_rate)
      )
    end

    def bridged(state, now, inputs)
      return state.with(bridged_at: nil) unless inputs.bridge

      state.bridged_at ? state : state.with(bridged_at: now)
    end

    def counting(state, now, inputs)
      return start(state, now, forced: true) if held?(state, now)

      state = state.with(counted: 0.0) if profile.school == "run_time_cold" && !inputs.cold
      return state.with(waits_for: nil) unless full?(state, inputs)

      keeps = keeps_from(state, inputs)
      keeps ? expired(state, keeps) : start(state, now, backstop: demand? && !frosted?(inputs))
    end

    # Test pins held long enough: straight in, whatever the coil is; once a hold.
    def held?(state, now)
      profile.forced_entry == "held_pins" && state.bridged_at && state.running && !state.forced &&
        now >= state.bridged_at + profile.hold_seconds - EPS
    end

    def full?(state, inputs)
      return state.counted >= profile.interval_seconds - EPS unless demand?

      state.counted >= profile.demand_maximum_seconds - EPS ||
        (state.counted >= profile.demand_minimum_seconds - EPS && frosted?(inputs))
    end

    def frosted?(inputs) = !inputs.failed && inputs.coil && inputs.air && inputs.coil <= demand_point(inputs.air) + EPS

    # What keeps a full clock from starting, a key of WAITS; nil for nothing.
    def keeps_from(state, inputs)
      return "sensor" if inputs.failed && !(demand? && profile.backstop)
      return "coil" unless cold_enough?(inputs)
      return "air_pressure" if inputs.aps == false
      return "compressor" unless state.running

      inputs.heating || profile.in_cooling ? nil : "heating"
    end

    def cold_enough?(inputs)
      return true if profile.school == "time_only" || inputs.failed

      demand? ? inputs.coil.nil? || inputs.coil <= @numbers.fetch("demand_coil_at_most_degrees_f") : inputs.cold
    end

    # Full, and kept from starting. Round clocks miss their turn; a restarting board begins anew for an open coil
    # switch, and for nothing else; all others wait.
    def expired(state, keeps)
      round = %w[free clock_motor].include?(profile.school)
      waits =
        if round
          profile.at_expiry == "wait" && keeps == "coil"
        else
          demand? || profile.at_expiry != "restart" || keeps != "coil"
        end
      waits ? state.with(waits_for: keeps) : state.with(counted: 0.0, missed: keeps, waits_for: nil)
    end

    def start(state, now, forced: false, backstop: false)
      counted = profile.restarts_at == "start" || !profile.counts_in_defrost ? 0.0 : state.counted
      turn(
        state.with(
          defrosting: true,
          spent: 0.0,
          counted: counted,
          waits_for: nil,
          ended: nil,
          missed: nil,
          forced: forced,
          backstop: backstop
        ),
        now
      )
    end

    def defrosting(state, now, inputs)
      return state if state.turn_until
      return ended(state, now, "aborted") if profile.y_lost == "abort" && !called?(inputs) && !state.running
      if by_temperature? && !inputs.failed && (inputs.warm.nil? ? !inputs.cold : inputs.warm)
        return ended(state, now, "temperature")
      end

      by_time? && state.spent >= profile.limit_seconds - EPS ? ended(state, now, "time") : state
    end

    def ended(state, now, rule)
      turn(
        state.with(
          defrosting: false,
          ended: rule,
          spent: 0.0,
          counted: profile.restarts_at == "end" ? 0.0 : state.counted
        ),
        now
      )
    end

    def turn(state, now) = profile.turn_seconds ? state.with(turn_until: now + profile.turn_seconds) : state

    # How fast count and limit go on from here.
    def rated(state, inputs)
      hurry = inputs.bridge && profile.forced_entry == "speed_up" ? profile.speed_up_factor : 1.0
      state = state.with(forced: false) if state.forced && !inputs.bridge && !state.defrosting
      spends =
        state.defrosting && (state.running || profile.y_lost == "finish") ? (profile.hurries_limit ? hurry : 1.0) : 0.0
      state.with(rate: counts?(state, inputs) && !state.waits ? hurry : 0.0, spent_rate: spends)
    end

    def counts?(state, inputs)
      return false if state.defrosting && !profile.counts_in_defrost

      case profile.school
      when "free", "clock_motor"
        true
      when "run_time"
        state.running && (inputs.heating || profile.counts_in_cooling)
      when "run_time_cold"
        state.running && inputs.cold && inputs.heating
      else
        state.running && inputs.heating
      end
    end
  end
end
