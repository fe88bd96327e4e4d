# frozen_string_literal: true

module Gorvant
  # The board's own compressor relay: it holds the next start after a stop, or after its power came back; it counts the
  # trips of a call and locks out. Its own turn in and out of a defrost is asked for by the defrost board.
  class CompressorGuard < Controller
    # hold_kind: "on_break", from a stop; "on_make", from the arrival of Y. sees_trips: whether the safeties come back
    # to the board, so that it knows when one opens.
    def initialize(hold_seconds:, hold_on_power:, lockout_trips:, sees_trips:, hold_kind: "on_break")
      super()
      @on_make = hold_kind == "on_make"
      @hold_seconds = hold_seconds.to_f
      @hold_on_power = hold_on_power
      @lockout_trips = lockout_trips
      @sees_trips = sees_trips
    end

    HELD_FROM = {
      "hold_after_power" => "BOARD",
      "hold_on_make" => "outdoor.Y",
      "short_cycle_hold" => "outdoor.board.T1"
    }.freeze

    def id = "guard"
    def memory =
      {
        powered: nil,
        called: false,
        running: false,
        held_until: nil,
        hold_rule: nil,
        trips: 0,
        locked: false,
        tripped: false
      }

    def step(memory, seen)
      now = noticed(memory, seen)
      held = now[:held_until] && seen.now < now[:held_until]
      turning = seen.outputs["turn"]
      outputs = { "hold" => held || turning || false, "lockout" => now[:locked], "trips" => now[:trips] }
      answer(now, outputs, reasons: reasons(now, held, turning), wake_at: held ? now[:held_until] : nil)
    end

    private

    def noticed(memory, seen)
      powered = seen.works?("BOARD")
      called = powered && seen.works?("Y_IN")
      now = memory.merge(powered: powered, called: called)
      now = now.merge(trips: 0, locked: false, tripped: false) unless called
      now = held_at_arrival(now, memory, seen)
      running = called && seen.works?("T1_IN") && !now[:locked]
      now = trip(now, seen) if tripped?(now, seen, called, running)
      now = hold(now, seen, "short_cycle_hold") if stopped?(memory, running, seen) && powered
      now.merge(running: running, tripped: now[:tripped] && !running)
    end

    # What begins as something comes: the board's power, or Y.
    def held_at_arrival(now, memory, seen)
      now = hold(now, seen, "hold_after_power") if now[:powered] && memory[:powered] == false && @hold_on_power
      @on_make && now[:called] && !memory[:called] ? hold(now, seen, "hold_on_make") : now
    end

    # A stop from which a hold on break counts; the board's own turn is none.
    def stopped?(memory, running, seen) = !@on_make && memory[:running] && !running && !seen.outputs["turn"]

    # The relay is in, Y is live, and nothing comes back from the safeties.
    def tripped?(now, seen, called, running) =
      @sees_trips && called && now[:running] && !running && !now[:tripped] && seen.outputs["hold"] == false

    def trip(now, seen)
      trips = now[:trips] + 1
      now.merge(trips: trips, locked: trips >= @lockout_trips, tripped: true, trip_at: seen.now)
    end

    # A hold that lasts as long already keeps its own reason.
    def hold(now, seen, rule)
      until_seconds = seen.now + @hold_seconds
      if now[:held_until] && now[:held_until] >= until_seconds
        now
      else
        now.merge(held_until: until_seconds, hold_rule: rule)
      end
    end

    def reasons(now, held, turning)
      hold =
        if turning
          because("defrost_turn", from: "turn")
        elsif held
          because(now[:hold_rule], from: HELD_FROM.fetch(now[:hold_rule]), until_seconds: now[:held_until])
        else
          because("hold_over")
        end
      {
        "hold" => hold,
        "trips" => because("trip", trips: now[:trips], most: @lockout_trips),
        "lockout" =>
          (
            if now[:locked]
              because("lockout", from: "outdoor.board.T1", most: @lockout_trips)
            else
              because("lockout_cleared", from: "outdoor.Y")
            end
          )
      }
    end
  end
end
