# frozen_string_literal: true

module Gorvant
  # The defrost board's timer: counts, starts a defrost when the count is full and the coil is cold, ends it when the coil is warm
  # or the limit is over. Here two clocks: run time, and one that runs whenever the board is fed.
  class DefrostBoard < Controller
    COIL = "DFT_IN"

    def initialize(rig)
      super()
      @clock = rig[:defrost_clock]
      @interval = rig[:defrost_interval_minutes] * 60.0
      @limit = rig[:defrost_limit_minutes] * 60.0
      @turn_seconds = rig[:y_path] == "delay" && rig[:defrost_turn] == "drops" ? rig[:defrost_turn_seconds].to_f : nil
      @changeover = rig.changeover
      @thermistors = rig[:sensing] == "thermistors"
      @ends_at = rig[:coil_switch_opens_degrees_f].to_f
      @starts_at = rig[:coil_switch_closes_degrees_f].to_f
    end

    def id = "defrost"

    # counted: seconds up to `at`; counting: whether they go on; defrosting_since: with run seconds in `spent`; turn_until.
    def memory = { counted: 0.0, at: 0.0, counting: false, defrosting: false, spent: 0.0, running: false, turn_until: nil, ended: nil, waits: false, missed: nil }

    def step(memory, seen)
      fed = seen.works?("BOARD")
      return unfed if !fed && memory != self.memory
      return answer(memory, outputs(memory, seen)) unless fed

      now = turned(counted(memory, seen), seen)
      now = now[:defrosting] ? defrosting(now, seen) : waiting(now, seen)
      answer(now, outputs(now, seen), reasons: reasons(now), wake_at: wake(now, seen))
    end

    private

    # The count is lost with power.
    def unfed = answer(memory, { "defrost" => false, "turn" => false, "clock" => 0.0, "counting" => false }, reasons: { "defrost" => because("board_unfed", from: "BOARD") })

    def cold?(seen) = @thermistors ? seen.value("coil") <= @starts_at : seen.works?(COIL)
    def warm?(seen) = @thermistors ? seen.value("coil") >= @ends_at : !seen.works?(COIL)
    def running?(seen) = seen.works?("T1_IN")
    def heating?(seen) = seen.live?("outdoor.#{@changeover}") == (@changeover == "B")

    # The count up to now, and the run seconds of a defrost that is on.
    def counted(memory, seen)
      passed = seen.now - memory[:at]
      counted = memory[:counting] ? memory[:counted] + passed : memory[:counted]
      spent = memory[:defrosting] && memory[:running] ? memory[:spent] + passed : memory[:spent]
      counts = !memory[:defrosting] && (@clock == "free" || running?(seen))
      memory.merge(at: seen.now, counted: [counted, @interval].min, counting: counts, spent: spent, running: running?(seen))
    end

    def turned(now, seen) = now[:turn_until] && seen.now >= now[:turn_until] ? now.merge(turn_until: nil) : now
    def full?(now) = now[:counted] >= @interval - 1e-6

    def waiting(now, seen)
      return now.merge(waits: false) unless full?(now)
      return start(now, seen) if cold?(seen) && now[:running] && heating?(seen)
      return now.merge(waits: true, counting: false) if @clock == "run_time"

      now.merge(counted: 0.0, missed: cold?(seen) ? "the compressor not fed in heating" : "a warm coil", waits: false)
    end

    def start(now, seen) = turn(now.merge(defrosting: true, spent: 0.0, counted: 0.0, counting: false, waits: false, ended: nil, missed: nil), seen)

    def defrosting(now, seen)
      return now if now[:turn_until]
      return ended(now, seen, "defrost_by_temperature") if warm?(seen)

      now[:spent] >= @limit - 1e-6 ? ended(now, seen, "defrost_by_time") : now
    end

    def ended(now, seen, rule) = turn(now.merge(defrosting: false, ended: rule, spent: 0.0, counted: 0.0, counting: @clock == "free" || now[:running]), seen)
    def turn(now, seen) = @turn_seconds ? now.merge(turn_until: seen.now + @turn_seconds) : now

    # While Y is out in mid-defrost the relay rests; it goes on at the next call.
    def on?(now, seen) = now[:defrosting] && (now[:running] || !now[:turn_until].nil? || seen.live?("outdoor.Y"))

    def outputs(now, seen)
      { "defrost" => on?(now, seen), "turn" => !now[:turn_until].nil?, "clock" => now[:counted], "counting" => now[:counting] }
    end

    def reasons(now)
      defrost = if now[:defrosting] then now[:running] || now[:turn_until] ? because("defrost_due", from: "DFT", minutes: minutes(@interval)) : because("defrost_paused", from: "outdoor.Y")
                elsif now[:ended] == "defrost_by_time" then because("defrost_by_time", minutes: minutes(@limit))
                elsif now[:ended] then because(now[:ended], from: "DFT")
                elsif now[:missed] then because("defrost_missed", why: now[:missed])
                else because(now[:waits] ? "defrost_waits" : "defrost_counts", minutes: minutes(now[:counted]))
                end
      { "defrost" => defrost, "turn" => now[:turn_until] ? because("defrost_turn", from: "defrost", until_seconds: now[:turn_until]) : because("turn_over") }
    end

    def minutes(seconds) = format("%g", (seconds / 60).round(1))

    def wake(now, seen)
      full = seen.now + @interval - now[:counted] if now[:counting]
      over = seen.now + @limit - now[:spent] if now[:defrosting] && now[:running]
      [now[:turn_until], full, over, *coil_wakes(now, seen)].compact.select { |at| at > seen.now }.min
    end

    # Thermistors are read without a switch between.
    def coil_wakes(now, seen)
      return [] unless @thermistors

      [seen.quantity("coil").reaches(now[:defrosting] ? @ends_at : @starts_at, seen.now)]
    end
  end
end
