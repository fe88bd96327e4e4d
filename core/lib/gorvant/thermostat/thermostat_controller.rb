# frozen_string_literal: true

module Gorvant
  # The thermostat over time: which of its terminals it joins to R. What it is asked comes from the script, or from the room
  # against its set point; it tells the valve before the compressor, keeps the compressor out for its minimum-off time, and stops
  # it a while after gas backup starts.
  class ThermostatController < Controller
    COOLING = %w[cool].freeze

    def initialize(rig)
      super()
      @rig = rig
      @plant = Catalogue.profile.fetch("plant")
      @minimum_off = rig[:thermostat_minimum_off_seconds].to_f
      @gas = rig[:backup] == "gas"
      @gas_cut = rig[:gas_cut_seconds]
      @school = rig[:changeover_school]
      @single = rig[:changeover_terminal] == "single"
      @changeover_terminals = @single ? %w[OB] : %w[O B]
      @closed = Hash.new { |hash, call| hash[call] = Outputs.closed(rig, call) - @changeover_terminals }
      @usual = Hash.new { |hash, call| hash[call] = usual_of(call) }
    end

    def id = "thermostat"
    def memory = { call: "off", since: 0.0, last_y_off: nil, y: false, latched: nil, gas_out: false }

    def step(memory, seen)
      call = asked(memory, seen)
      now = memory.merge(call: call, since: call == memory[:call] ? memory[:since] : seen.now)
      now = latch(gas_out(now, seen), seen)
      terminals, reasons, wake = terminals(now, seen)
      y = terminals.include?("Y")
      now = now.merge(last_y_off: memory[:y] && !y ? seen.now : memory[:last_y_off], y: y)
      answer(now, { "call" => call, "outputs" => terminals.sort }, reasons: reasons, wake_at: wake)
    end

    private

    def heating?(call) = %w[heat heat_2 heat_aux].include?(call)

    # By hand, or one stage by the room: the differential apart from the set point, satisfied at it.
    def asked(memory, seen)
      return seen.inputs[:call] if seen.inputs[:call]

      room = seen.value("room")
      set = seen.inputs[:set_point]
      apart = @plant.fetch("thermostat_differential_degrees_f")
      case seen.inputs[:mode]
      when "heat" then by_room(memory, set - room, apart, "heat")
      when "cool" then by_room(memory, room - set, apart, "cool")
      else "off"
      end
    end

    def by_room(memory, error, apart, call) = error >= apart || (memory[:call] == call && error.positive?) ? call : "off"

    # Latched: set by COOL, dropped by HEAT, kept through OFF.
    def latch(now, seen)
      mode = seen.inputs[:mode]
      %w[cool heat].include?(mode) ? now.merge(latched: mode) : now
    end

    def terminals(now, seen)
      wanted = @closed[now[:call]] + changeover(now, seen)
      reasons = {}
      waits = []
      wanted = gas(wanted, now, seen, reasons, waits)
      wanted = hold_compressor(wanted, now, seen, reasons, waits) if wanted.include?("Y") && !now[:y]
      wake = [*waits, room_wake(now, seen)].compact.min
      [wanted, reasons.merge(usual_reasons(now, seen)) { |_key, own, _usual| own }, wake]
    end

    # Energised during the call, while the mode is set, or latched from one mode to the other.
    def changeover(now, seen)
      side = { "by_call" => mode_of(now[:call]), "by_mode" => seen.inputs[:mode], "latched" => now[:latched] }.fetch(@school)
      return [] if side.nil? || @rig[:system_setup] == "conventional"

      letter = { "cool" => "O", "heat" => "B" }[side]
      return [letter].compact unless @single

      letter == @rig[:changeover_setup] ? ["OB"] : []
    end

    def mode_of(call) = { "cooling" => "cool", "heating" => "heat" }[Catalogue.calls.fetch(call)["mode"]]

    # With gas the compressor runs on for a little beside the furnace, then stays out until the call ends.
    def gas_out(now, seen)
      return now.merge(gas_out: false) unless @gas && heating?(now[:call])
      return now unless now[:call] == "heat_aux"

      now.merge(gas_out: now[:gas_out] || !now[:y] || seen.now >= now[:since] + @gas_cut)
    end

    def gas(wanted, now, _seen, reasons, waits)
      return wanted unless @gas && (now[:gas_out] || now[:call] == "heat_aux")

      reasons["THERMOSTAT.Y"] = because("gas_cut", from: "THERMOSTAT.W2")
      return (wanted - %w[Y Y2 G]) | %w[W2] if now[:gas_out]

      waits << (now[:since] + @gas_cut)
      wanted | %w[Y G]
    end

    def hold_compressor(wanted, now, seen, reasons, waits)
      ready = [now[:last_y_off] ? now[:last_y_off] + @minimum_off : 0.0, now[:since] + lead(now)]
      over = ready.max
      return wanted if seen.now >= over

      waits << over
      rule = ready[0] >= ready[1] ? "minimum_off" : "changeover_first"
      reasons["THERMOSTAT.Y"] = because(rule, from: "call", until_seconds: over)
      wanted - %w[Y Y2]
    end

    # Only where there is a valve to be told.
    def lead(now) = now[:since].positive? && mode_of(now[:call]) ? @plant.fetch("changeover_lead_seconds") : 0.0

    def room_wake(_now, seen)
      return nil if seen.inputs[:call] || seen.inputs[:set_point].nil?

      set = seen.inputs[:set_point]
      apart = @plant.fetch("thermostat_differential_degrees_f")
      points = { "heat" => [set - apart, set], "cool" => [set + apart, set] }.fetch(seen.inputs[:mode], [])
      points.filter_map { |point| seen.quantity("room").reaches(point, seen.now) }.min
    end

    def usual_reasons(now, seen)
      return @usual[now[:call]] if seen.inputs[:call]

      @usual[now[:call]].merge("call" => because("room", from: "room", room: format("%.1f", seen.value("room")), set: format("%g", seen.inputs[:set_point] || 0)))
    end

    # { output => Reason } of a call set by hand.
    def usual_of(call)
      reason = call == "off" ? because("call_over", from: "call") : because("call", from: "call", call: Catalogue.calls.fetch(call).fetch("title").downcase)
      school = { "by_mode" => because("mode", from: "mode"), "latched" => because("latched", from: "mode") }[@school]
      all = (@rig.terminals("wall") - %w[R C]).to_h { |terminal| ["THERMOSTAT.#{terminal}", @changeover_terminals.include?(terminal) && school ? school : reason] }
      all.merge("call" => because("script"))
    end
  end
end
