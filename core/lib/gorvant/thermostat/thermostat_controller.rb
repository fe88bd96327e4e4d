# frozen_string_literal: true

module Gorvant
  # The thermostat over time: which of its terminals it joins to R. What it is asked comes from the script, or from the
  # room against its set point by the school of staging; it tells the valve before the compressor, keeps the compressor
  # out for its minimum-off time, and stops it a while after gas backup starts.
  class ThermostatController < Controller
    HEATING = %w[heat heat_2 heat_aux].freeze
    AFTER = 0.001 # seconds: just past a threshold that has to be passed, not reached

    def initialize(rig)
      super()
      @rig = rig
      @plant = Catalogue.profile.fetch("plant")
      @staging = Staging.new(rig)
      @minimum_off = rig[:thermostat_minimum_off_seconds].to_f
      @gas = Outputs.gas_cuts?(rig)
      @spared = rig[:gas_cut_in_defrost] == "suppressed"
      @lead = rig[:changeover_order] == "valve_first" ? @plant.fetch("changeover_lead_seconds") : 0.0
      @gas_cut = rig[:gas_cut_seconds]
      @school = rig[:changeover_school]
      @changeover_terminals = %w[O B OB] & rig.terminals("wall")
      @aux = rig[:system_setup] == "conventional" && rig[:w1_terminal] ? "W1" : rig.aux_terminal
      @usual = Hash.new { |hash, call| hash[call] = usual_of(call) }
    end

    def id = "thermostat"
    def memory =
      {
        call: "off",
        stages: 0,
        since: 0.0,
        last_y_off: nil,
        y: false,
        y2: false,
        latched: nil,
        gas_out: false,
        second: false,
        staging: Staging::State.new,
        waits: {
        }
      }

    def step(memory, seen)
      call, asked = asked(memory, seen)
      now = memory.merge(call: call, since: call == memory[:call] ? memory[:since] : seen.now, **asked)
      now = latch(gas_out(now, seen), seen)
      terminals, reasons, wake = terminals(now, seen)
      y = terminals.include?("Y")
      now = now.merge(last_y_off: memory[:y] && !y ? seen.now : memory[:last_y_off], y: y, y2: terminals.include?("Y2"))
      answer(now, { "call" => call, "outputs" => terminals.sort }, reasons: reasons, wake_at: wake)
    end

    private

    def heating?(call) = HEATING.include?(call)

    # [call, what goes with it]: by hand, or by the room.
    def asked(memory, seen)
      call = seen.inputs[:call]
      return call, { stages: nil, waits: {}, staging: Staging::State.new, second: false } if call
      unless %w[heat cool emergency].include?(seen.inputs[:mode])
        return "off", { stages: 0, waits: {}, staging: Staging::State.new }
      end

      by_room(memory, seen, seen.inputs[:mode])
    end

    def by_room(memory, seen, mode)
      side = mode == "cool" ? "cool" : "heat"
      asked = @staging.step(memory[:staging], stand(seen, side))
      kept = { stages: asked.compressor, waits: asked.waits, staging: asked.state }
      return "off", kept if asked.state.stages.zero? || (asked.compressor.zero? && !asked.aux && mode != "emergency")
      return emergency(memory, kept, seen) if mode == "emergency"
      return "heat_aux", kept if asked.aux

      [side + (asked.compressor > 1 ? "_2" : ""), kept]
    end

    # E, and where the thermostat has a second emergency stage, aux after it.
    def emergency(memory, kept, seen)
      since = memory[:call] == "emergency" ? memory[:since] : seen.now
      due =
        @rig[:emergency_stages] == 2 && seen.now >= since + (@rig[:emergency_stage_minutes] * 60) - Staging::CLOSE &&
          error(seen) > @rig[:stage_error_degrees_f] + Staging::CLOSE
      second = due || (memory[:call] == "emergency" && memory[:second])
      wait =
        (
          if @rig[:emergency_stages] == 2 && !second
            {
              "aux" =>
                Staging::Wait.new(
                  rule: "stage_delay",
                  fields: {
                    minutes: degrees(@rig[:emergency_stage_minutes]),
                    needs: degrees(@rig[:stage_error_degrees_f])
                  },
                  until_seconds: since + (@rig[:emergency_stage_minutes] * 60)
                )
            }
          else
            {}
          end
        )
      ["emergency", kept.merge(stages: 0, waits: wait, second: second)]
    end

    def degrees(value) = format("%g", value)
    def error(seen) = stand(seen, "heat").error_degrees_f

    # The set point keeps to its limits; the sensor may read high.
    def stand(seen, side)
      set = limited(seen, side)
      room = seen.value("room") + @rig[:sensor_offset_degrees_f]
      Staging::Stand.new(
        now: seen.now,
        mode: side,
        error_degrees_f: side == "heat" ? set - room : room - set,
        set_point: set,
        outdoor_degrees_f: seen.value("outdoor")
      )
    end

    def limited(seen, side)
      set = seen.inputs[:set_point]
      side == "heat" ? [set, @rig[:heat_limit_degrees_f]].min : [set, @rig[:cool_limit_degrees_f]].max
    end

    # Latched: set by COOL, dropped by HEAT, kept through OFF.
    def latch(now, seen)
      mode = seen.inputs[:mode]
      %w[cool heat].include?(mode) ? now.merge(latched: mode) : now
    end

    def terminals(now, seen)
      wanted = closed(now) + changeover(now, seen)
      wanted |= [@aux] if now[:call] == "emergency" && now[:second]
      reasons = stage_reasons(now)
      waits = []
      wanted = gas(wanted, now, reasons, waits)
      wanted = hold_compressor(wanted, now, seen, reasons, waits) if wanted.include?("Y") && !now[:y]
      wake = [*waits, *room_wakes(now, seen)].compact.select { |at| at > seen.now }.min
      [wanted, reasons.merge(usual_reasons(now, seen)) { |_key, own, _usual| own }, wake]
    end

    def closed(now) =
      (@closed ||= {})[[now[:call], now[:stages]]] ||= (
        Outputs.closed(@rig, now[:call], stages: now[:stages]) - @changeover_terminals
      ).freeze

    # Energized during the call, while the mode is set, or latched from one mode to the other.
    def changeover(now, seen)
      side = { "by_call" => mode_of(now[:call]), "by_mode" => seen.inputs[:mode], "latched" => now[:latched] }.fetch(
        @school
      )
      side = "heat" if now[:call] == "emergency" && @rig[:emergency_changeover] == "as_heating"
      return [] if side.nil? || @rig[:system_setup] == "conventional"

      letter = { "cool" => "O", "heat" => "B" }[side]
      letter ? [@rig.changeover_terminal(letter)].compact : []
    end

    def mode_of(call) = { "cooling" => "cool", "heating" => "heat" }[Catalogue.calls.fetch(call)["mode"]]

    # With gas the compressor runs for a little beside the furnace, then stays out until the call ends. One that stands,
    # and that no stage asks for, does not start for so short a time.
    def gas_out(now, seen)
      return now.merge(gas_out: false) unless @gas && heating?(now[:call])
      return now unless now[:call] == "heat_aux"

      return now if @spared && seen.outputs["defrost"] && !now[:gas_out]

      idle = !now[:y] && !now[:stages].to_i.positive?
      now.merge(gas_out: now[:gas_out] || idle || seen.now >= now[:since] + @gas_cut)
    end

    def gas(wanted, now, reasons, waits)
      return wanted unless @gas && (now[:gas_out] || now[:call] == "heat_aux")

      reasons["THERMOSTAT.Y"] ||= because(
        now[:call] == "heat_aux" ? "gas_cut" : "gas_stays_out",
        from: "THERMOSTAT.#{@aux}"
      )
      return after_the_cut(wanted, now) if now[:gas_out]

      waits << (now[:since] + @gas_cut)
      wanted | %w[Y G] | beside(now)
    end

    # All stages that ran, or are asked for, run on beside the furnace until the cut; then all go.
    def beside(now) = (now[:y2] || now[:stages].to_i > 1) && @rig.terminals("wall").include?("Y2") ? ["Y2"] : []

    # The compressor is out; G stays only where the thermostat is to drive the blower.
    def after_the_cut(wanted, now) = now[:call] == "heat_aux" ? wanted - %w[Y Y2] : wanted - %w[Y Y2 G]

    def hold_compressor(wanted, now, seen, reasons, waits)
      ready = [now[:last_y_off] ? now[:last_y_off] + @minimum_off : 0.0, now[:since] + lead(now)]
      over = ready.max
      return wanted if seen.now >= over

      waits << over
      rule = ready[0] >= ready[1] ? "minimum_off" : "changeover_first"
      reasons["THERMOSTAT.Y"] = because(rule, from: "call", until_seconds: over)
      wanted - %w[Y Y2] - (rule == "changeover_first" ? ["G"] : [])
    end

    # Only where there is a valve to be told.
    def lead(now) = now[:since].positive? && mode_of(now[:call]) ? @lead : 0.0

    # When the room, the outdoors or a delay may change what is asked.
    def room_wakes(now, seen)
      return [] if seen.inputs[:call] || !%w[heat cool emergency].include?(seen.inputs[:mode])

      side = seen.inputs[:mode] == "cool" ? "cool" : "heat"
      set = limited(seen, side)
      rooms =
        @staging.thresholds.map do |error|
          (side == "heat" ? set - error : set + error) - @rig[:sensor_offset_degrees_f]
        end
      rooms.map { |room| passes("room", room, seen) } +
        @staging.balances.map { |point| passes("outdoor", point, seen) } + now[:waits].values.map(&:until_seconds)
    end

    # When a temperature reaches a point, or, standing on it, goes on.
    def passes(name, point, seen)
      quantity = seen.quantity(name)
      on_it = (quantity.at(seen.now) - point).abs < 1e-6 && quantity.at(seen.now + AFTER) != quantity.at(seen.now)
      on_it ? seen.now + AFTER : quantity.reaches(point, seen.now)
    end

    # Why a stage is not there though something is asked.
    def stage_reasons(now)
      now[:waits].to_h do |stage, wait|
        [
          { "stage_1" => "THERMOSTAT.Y", "stage_2" => "THERMOSTAT.Y2", "aux" => "THERMOSTAT.#{@aux}" }.fetch(stage),
          because(wait.rule, until_seconds: wait.until_seconds, **wait.fields)
        ]
      end
    end

    def usual_reasons(now, seen)
      return @usual[now[:call]] if seen.inputs[:call]

      room = format("%.1f", seen.value("room") + @rig[:sensor_offset_degrees_f])
      @usual[now[:call]].merge(
        "call" => because("room", from: "room", room: room, set: format("%g", seen.inputs[:set_point] || 0))
      )
    end

    # { output => Reason } of a call set by hand.
    def usual_of(call)
      reason =
        (
          if call == "off"
            because("call_over", from: "call")
          else
            because("call", from: "call", call: Catalogue.calls.fetch(call).fetch("title").downcase)
          end
        )
      school = { "by_mode" => because("mode", from: "mode"), "latched" => because("latched", from: "mode") }[@school]
      all =
        (@rig.terminals("wall") - %w[R C]).to_h do |terminal|
          ["THERMOSTAT.#{terminal}", @changeover_terminals.include?(terminal) && school ? school : reason]
        end
      all.merge("call" => because("script"))
    end
  end
end
