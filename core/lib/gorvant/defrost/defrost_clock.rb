# frozen_string_literal: true

module Gorvant
  # The board's defrost timer as a pure machine: the same for the tape, where a controller feeds it from the circuit, and for the
  # schools side by side, where a typed history does. Source: docs/sources.md, defrost-schools.
  class DefrostClock
    # What the board sees. y: Y at its terminal; t1: the contactor is fed; cold, warm: by the coil switch or sensor; heating: by O or
    # B; coil, air: °F where it has sensors; bridge: its speed-up or test pins joined; aps: nil where no air-pressure switch is fitted.
    Inputs = Value.define(:powered, :y, :t1, :cold, :warm, :heating, :coil, :air, :bridge, :aps,
                          defaults: { powered: true, y: nil, warm: nil, heating: true, coil: nil, air: nil, bridge: false, aps: nil })
    # counted: seconds up to `at`, going on at `rate`; spent: seconds of the defrost that is on, at `spent_rate`.
    Memory = Value.define(:counted, :at, :rate, :defrosting, :spent, :spent_rate, :turn_until, :ended, :waits, :missed, :forced, :bridged_at, :running,
                          defaults: { counted: 0.0, at: 0.0, rate: 0.0, defrosting: false, spent: 0.0, spent_rate: 0.0, turn_until: nil, ended: nil, waits: false, missed: nil, forced: false,
                                      bridged_at: nil, running: false })
    EPS = 1e-6

    attr_reader :profile

    def initialize(profile)
      @profile = profile
      @numbers = Catalogue.profile.fetch("defrost")
    end

    # counted_seconds: what it had counted before.
    def memory(counted_seconds = 0.0) = Memory.new(counted: [counted_seconds.to_f, profile.full_seconds].min)

    def step(memory, now, inputs)
      return unpowered(memory, now) unless inputs.powered

      state = advance(memory, now).with(running: running?(inputs))
      state = state.with(turn_until: nil) if state.turn_until && now >= state.turn_until
      state = bridged(state, now, inputs)
      state = state.defrosting ? defrosting(state, now, inputs) : counting(state, now, inputs)
      rated(state, inputs)
    end

    # Whether the defrost relay is in.
    def on?(memory, inputs) = memory.defrosting && (profile.y_lost == "finish" || memory.running || !memory.turn_until.nil? || called?(inputs))

    # Seconds of the next moment at which it may do something by itself.
    def wake(memory, now)
      full = now + ((profile.full_seconds - memory.counted) / memory.rate) if memory.rate.positive? && memory.counted < profile.full_seconds - EPS
      latest = now + ((profile.demand_maximum_seconds - memory.counted) / memory.rate) if demand? && memory.rate.positive?
      over = now + ((profile.limit_seconds - memory.spent) / memory.spent_rate) if memory.defrosting && memory.spent_rate.positive? && by_time?
      held = memory.bridged_at && profile.forced_entry == "held_pins" ? memory.bridged_at + profile.hold_seconds : nil
      [memory.turn_until, full, latest, over, held].compact.select { |at| at > now + EPS }.min
    end

    # How far the coil has to run below air of this temperature, °F, for a demand board.
    def below_air(air)
      table = @numbers.fetch("demand_below_air_degrees_f")
      return table.first[1] if air <= table.first[0]

      pair = table.each_cons(2).find { |(_low, _), (high, _)| air <= high } or return table.last[1]
      (low, from), (high, to) = pair
      from + ((to - from) * (air - low) / (high - low).to_f)
    end

    # Coil temperature at or below which a demand board may start, in this air.
    def demand_point(air) = [@numbers.fetch("demand_coil_at_most_degrees_f"), air - below_air(air)].min

    private

    def demand? = profile.school == "demand"
    def by_time? = profile.ends_by != "temperature"
    def by_temperature? = profile.ends_by != "time"
    def called?(inputs) = inputs.y.nil? ? inputs.t1 : inputs.y
    # What tells the board that the compressor runs.
    def running?(inputs) = profile.counts_on == "Y" && profile.school != "free" ? called?(inputs) : inputs.t1

    def unpowered(memory, now)
      kept = profile.survives_power ? advance(memory, now).counted : 0.0
      Memory.new(at: now, counted: kept)
    end

    def advance(memory, now)
      passed = now - memory.at
      most = demand? ? profile.demand_maximum_seconds : profile.interval_seconds
      memory.with(at: now, counted: [memory.counted + (passed * memory.rate), most].min, spent: memory.spent + (passed * memory.spent_rate))
    end

    def bridged(state, now, inputs)
      return state.with(bridged_at: nil) unless inputs.bridge

      state.bridged_at ? state : state.with(bridged_at: now)
    end

    def counting(state, now, inputs)
      return start(state, now, forced: true) if held?(state, now)

      state = state.with(counted: 0.0) if profile.school == "run_time_cold" && !inputs.cold
      return state.with(waits: false) unless full?(state, inputs)
      return start(state, now) if may_start?(state, inputs)

      expired(state, inputs)
    end

    # Test pins held long enough: straight in, whatever the coil is; once a hold.
    def held?(state, now)
      profile.forced_entry == "held_pins" && state.bridged_at && state.running && !state.forced && now >= state.bridged_at + profile.hold_seconds - EPS
    end

    def full?(state, inputs)
      return state.counted >= profile.interval_seconds - EPS unless demand?

      state.counted >= profile.demand_maximum_seconds - EPS || (state.counted >= profile.demand_minimum_seconds - EPS && frosted?(inputs))
    end

    def frosted?(inputs) = inputs.coil && inputs.air && inputs.coil <= demand_point(inputs.air) + EPS

    def may_start?(state, inputs)
      cold = profile.school == "time_only" || (demand? ? inputs.coil.nil? || inputs.coil <= @numbers.fetch("demand_coil_at_most_degrees_f") : inputs.cold)
      cold && inputs.aps != false && state.running && (inputs.heating || profile.in_cooling)
    end

    def expired(state, inputs)
      return state.with(waits: true) if demand? || (profile.school != "free" && profile.at_expiry == "wait") || (profile.school == "free" && profile.at_expiry == "wait" && !inputs.cold)

      why = if inputs.aps == false then "the air-pressure switch open"
            elsif inputs.cold then "the compressor not fed in heating"
            else "a warm coil"
            end
      state.with(counted: 0.0, missed: why, waits: false)
    end

    def start(state, now, forced: false)
      turn(
        state.with(defrosting: true, spent: 0.0, counted: profile.restarts_at == "start" || !profile.counts_in_defrost ? 0.0 : state.counted, waits: false, ended: nil, missed: nil,
            forced: forced), now
      )
    end

    def defrosting(state, now, inputs)
      return state if state.turn_until
      return ended(state, now, "aborted") if profile.y_lost == "abort" && !called?(inputs) && !state.running
      return ended(state, now, "temperature") if by_temperature? && (inputs.warm.nil? ? !inputs.cold : inputs.warm)

      by_time? && state.spent >= profile.limit_seconds - EPS ? ended(state, now, "time") : state
    end

    def ended(state, now, rule)
      turn(state.with(defrosting: false, ended: rule, spent: 0.0, counted: profile.restarts_at == "end" ? 0.0 : state.counted), now)
    end

    def turn(state, now) = profile.turn_seconds ? state.with(turn_until: now + profile.turn_seconds) : state

    # How fast count and limit go on from here.
    def rated(state, inputs)
      hurry = inputs.bridge && profile.forced_entry == "speed_up" ? profile.speed_up_factor : 1.0
      state = state.with(forced: false) if state.forced && !inputs.bridge && !state.defrosting
      spends = state.defrosting && (state.running || profile.y_lost == "finish") ? (profile.hurries_limit ? hurry : 1.0) : 0.0
      state.with(rate: counts?(state, inputs) && !state.waits ? hurry : 0.0, spent_rate: spends)
    end

    def counts?(state, inputs)
      return false if state.defrosting && !profile.counts_in_defrost

      case profile.school
      when "free" then true
      when "run_time" then state.running && (inputs.heating || profile.counts_in_cooling)
      when "run_time_cold" then state.running && inputs.cold && inputs.heating
      else state.running && inputs.heating
      end
    end
  end
end
