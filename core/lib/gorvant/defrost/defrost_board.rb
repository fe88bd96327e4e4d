# frozen_string_literal: true

module Gorvant
  # The defrost board on the tape: feeds its clock from the circuit, and says what it puts out and why.
  class DefrostBoard < Controller
    COIL = "DFT_IN"
    FROST = "APS_IN"

    def initialize(rig, counted_seconds: 0.0)
      super()
      @clock = DefrostClock.new(ClockProfile.of(rig))
      @profile = @clock.profile
      @counted = counted_seconds
      @changeover = rig.changeover
      @air_pressure = Options.fitted?(rig, "APS")
      @thermistors = rig[:sensing] == "thermistors"
      @ends_at = @profile.ends_degrees_f
      @starts_at = @profile.starts_degrees_f
    end

    def id = "defrost"
    def memory = @clock.memory(@counted)

    def step(memory, seen)
      powered = seen.works?("BOARD")
      if !powered && memory == self.memory
        return answer(memory, { "defrost" => false, "turn" => false, "clock" => memory.counted, "counting" => false })
      end

      inputs = inputs(seen, powered)
      now = @clock.step(memory, seen.now, inputs)
      answer(
        now,
        outputs(now, inputs),
        reasons: powered ? reasons(now, seen) : { "defrost" => because("board_unfed", from: "BOARD") },
        wake_at: powered ? wake(now, seen) : nil
      )
    end

    private

    def inputs(seen, powered)
      sensed = @thermistors ? sensed(seen) : nil
      DefrostClock::Inputs.new(
        powered: powered,
        y: seen.live?("outdoor.Y"),
        t1: seen.works?("T1_IN"),
        cold: cold?(seen, sensed),
        warm: warm?(seen, sensed),
        heating: heating?(seen),
        coil: sensed&.coil_degrees_f,
        air: sensed&.air_degrees_f,
        failed: sensed&.failed? || false,
        bridge: seen.inputs[:bridge] || false,
        aps: @air_pressure ? seen.works?(FROST) : nil
      )
    end

    # Coil and air as the board's own sensors have them.
    def sensed(seen) = Sensed.through(seen.inputs[:faults], coil: seen.value("coil"), air: seen.value("outdoor"))

    def cold?(seen, sensed) =
      sensed ? !sensed.coil_degrees_f.nil? && sensed.coil_degrees_f <= @starts_at : seen.works?(COIL)
    def warm?(seen, sensed) =
      sensed ? !sensed.coil_degrees_f.nil? && sensed.coil_degrees_f >= @ends_at : !seen.works?(COIL)
    def heating?(seen) = seen.live?("outdoor.#{@changeover}") == (@changeover == "B")

    def outputs(now, inputs)
      {
        "defrost" => @clock.on?(now, inputs),
        "turn" => !now.turn_until.nil?,
        "clock" => now.counted,
        "counting" => now.rate.positive?
      }
    end

    def reasons(now, seen)
      {
        "defrost" => now.defrosting ? began(now, seen) : idle(now),
        "turn" =>
          (
            if now.turn_until
              because("defrost_turn", from: "defrost", until_seconds: now.turn_until)
            else
              because("turn_over")
            end
          )
      }
    end

    def began(now, seen)
      return paused(seen) unless now.running || now.turn_until || @profile.y_lost == "finish"
      return because("defrost_forced", from: "bridge", seconds: format("%g", @profile.hold_seconds)) if now.forced

      case @profile.school
      when "demand"
        if now.backstop
          because("defrost_backstop", minutes: minutes(@profile.demand_maximum_seconds))
        else
          because("defrost_demanded", from: "coil")
        end
      when "clock_motor"
        because("defrost_came_round", from: "DFT", minutes: minutes(@profile.interval_seconds))
      when "time_only"
        because("defrost_by_time_alone", from: "outdoor.board.T1", minutes: minutes(@profile.interval_seconds))
      else
        due
      end
    end

    def due
      counted = minutes(@profile.interval_seconds)
      if @air_pressure
        because("defrost_due_air", from: "APS", minutes: counted)
      else
        because("defrost_due", from: "DFT", minutes: counted)
      end
    end

    # Y is gone in mid-defrost: with the call, or though the call goes on, as when gas backup stops the compressor.
    def paused(seen) =
      because(seen.outputs["call"] == "off" ? "defrost_paused" : "defrost_paused_in_call", from: "outdoor.Y")

    def idle(now)
      case now.ended
      when "time"
        return because("defrost_by_time", minutes: minutes(@profile.limit_seconds))
      when "temperature"
        return because("defrost_by_temperature", from: "DFT")
      when "aborted"
        return because("defrost_given_up", from: "outdoor.Y")
      end
      return because("defrost_missed", why: Catalogue.words("defrost.missed_#{now.missed}")) if now.missed
      if now.waits
        return(
          because(
            "defrost_waits",
            minutes: minutes(now.counted),
            what: Catalogue.words("defrost.awaits_#{now.waits_for}")
          )
        )
      end

      because("defrost_counts", minutes: minutes(now.counted))
    end

    def minutes(seconds) = format("%g", (seconds / 60).round(1))

    def wake(now, seen) = [@clock.wake(now, seen.now), *coil_wakes(now, seen)].compact.select { |at| at > seen.now }.min

    # Thermistors are read without a switch between.
    def coil_wakes(now, seen)
      return [] unless @thermistors

      sensed = sensed(seen)
      return [] if sensed.failed?

      off = sensed.coil_degrees_f - seen.value("coil") # of what it believes from what is
      return seen.quantity("coil").reaches(@ends_at - off, seen.now), tick(seen, now, off) if now.defrosting
      unless @profile.school == "demand"
        return seen.quantity("coil").reaches(@starts_at - off, seen.now), tick(seen, now, off)
      end

      [
        seen.quantity("coil").reaches(@clock.demand_point(sensed.air_degrees_f) - off, seen.now),
        (seen.now + 60.0 if now.counted >= @profile.demand_minimum_seconds - 1)
      ]
    end

    # With swapped sensors the coil that it believes in follows the air: looked at again every minute.
    def tick(seen, now, off)
      return nil if off.zero? || seen.inputs[:faults].none? { |fault| fault["kind"] == "sensors_swapped" }

      now.counted >= @profile.interval_seconds - 1 || now.defrosting ? seen.now + 60.0 : nil
    end
  end
end
