# frozen_string_literal: true

module Gorvant
  # The defrost board on the tape: feeds its clock from the circuit, and says what it puts out and why.
  class DefrostBoard < Controller
    COIL = "DFT_IN"

    def initialize(rig, counted_seconds: 0.0)
      super()
      @clock = DefrostClock.new(ClockProfile.of(rig))
      @profile = @clock.profile
      @counted = counted_seconds
      @changeover = rig.changeover
      @thermistors = rig[:sensing] == "thermistors"
      @ends_at = @profile.ends_degrees_f
      @starts_at = @profile.starts_degrees_f
    end

    def id = "defrost"
    def memory = @clock.memory(@counted)

    def step(memory, seen)
      powered = seen.works?("BOARD")
      return answer(memory, { "defrost" => false, "turn" => false, "clock" => memory.counted, "counting" => false }) if !powered && memory == self.memory

      inputs = inputs(seen, powered)
      now = @clock.step(memory, seen.now, inputs)
      answer(now, outputs(now, inputs), reasons: powered ? reasons(now) : { "defrost" => because("board_unfed", from: "BOARD") }, wake_at: powered ? wake(now, seen) : nil)
    end

    private

    def inputs(seen, powered)
      DefrostClock::Inputs.new(powered: powered, y: seen.live?("outdoor.Y"), t1: seen.works?("T1_IN"), cold: cold?(seen), warm: warm?(seen), heating: heating?(seen),
                               coil: @thermistors ? seen.value("coil") : nil, air: @thermistors ? seen.value("outdoor") : nil, bridge: seen.inputs[:bridge] || false)
    end

    def cold?(seen) = @thermistors ? seen.value("coil") <= @starts_at : seen.works?(COIL)
    def warm?(seen) = @thermistors ? seen.value("coil") >= @ends_at : !seen.works?(COIL)
    def heating?(seen) = seen.live?("outdoor.#{@changeover}") == (@changeover == "B")

    def outputs(now, inputs)
      { "defrost" => @clock.on?(now, inputs), "turn" => !now.turn_until.nil?, "clock" => now.counted, "counting" => now.rate.positive? }
    end

    def reasons(now)
      { "defrost" => now.defrosting ? began(now) : idle(now), "turn" => now.turn_until ? because("defrost_turn", from: "defrost", until_seconds: now.turn_until) : because("turn_over") }
    end

    def began(now)
      return because("defrost_paused", from: "outdoor.Y") unless now.running || now.turn_until || @profile.y_lost == "finish"
      return because("defrost_forced", from: "bridge", seconds: format("%g", @profile.hold_seconds)) if now.forced

      case @profile.school
      when "demand" then because("defrost_demanded", from: "coil")
      when "time_only" then because("defrost_by_time_alone", from: "outdoor.board.T1", minutes: minutes(@profile.interval_seconds))
      else because("defrost_due", from: "DFT", minutes: minutes(@profile.interval_seconds))
      end
    end

    def idle(now)
      case now.ended
      when "time" then return because("defrost_by_time", minutes: minutes(@profile.limit_seconds))
      when "temperature" then return because("defrost_by_temperature", from: "DFT")
      when "aborted" then return because("defrost_given_up", from: "outdoor.Y")
      end
      return because("defrost_missed", why: now.missed) if now.missed

      because(now.waits ? "defrost_waits" : "defrost_counts", minutes: minutes(now.counted))
    end

    def minutes(seconds) = format("%g", (seconds / 60).round(1))

    def wake(now, seen) = [@clock.wake(now, seen.now), *coil_wakes(now, seen)].compact.select { |at| at > seen.now }.min

    # Thermistors are read without a switch between.
    def coil_wakes(now, seen)
      return [] unless @thermistors
      return [seen.quantity("coil").reaches(@ends_at, seen.now)] if now.defrosting
      return [seen.quantity("coil").reaches(@starts_at, seen.now)] unless @profile.school == "demand"

      [seen.quantity("coil").reaches(@clock.demand_point(seen.value("outdoor")), seen.now), (seen.now + 60.0 if now.counted >= @profile.demand_minimum_seconds - 1)]
    end
  end
end
