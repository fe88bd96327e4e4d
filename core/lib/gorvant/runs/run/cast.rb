# frozen_string_literal: true

module Gorvant
  class Run
    # Who decides what on a rig, in the order in which they are asked.
    class Cast
      attr_reader :controllers, :delayed, :thermal

      # start: of the script, for what the defrost clock had counted before.
      def initialize(rig, start = Script::START)
        @rig = rig
        @delayed = ["IFR.line", *sequencers.keys]
        @thermal = []
        @controllers = [
          ThermostatController.new(rig),
          *thermal_switches,
          DefrostBoard.new(rig, counted_seconds: start.fetch("defrost_counted_minutes") * 60.0),
          *guard,
          *contacts,
          *valve
        ]
      end

      private

      def sequencers
        return {} unless @rig[:backup] == "strips" && @rig[:strip_switch] == "sequencer"

        banks = { "SEQ.line" => %i[sequencer_on_seconds sequencer_off_seconds] }
        @rig[:strip_banks] == 2 ? banks.merge("SEQ2.line" => %i[sequencer_2_on_seconds sequencer_2_off_seconds]) : banks
      end

      def contacts
        blower =
          DelayedContact.new(
            "IFR.line",
            coil: "IFR",
            on_seconds: @rig[:blower_on_delay_seconds],
            off_seconds: @rig[:blower_off_delay_seconds],
            rules: {
              on: "blower_on_delay",
              off: "blower_off_delay"
            }
          )
        [blower] +
          sequencers.map do |id, (on, off)|
            DelayedContact.new(
              id,
              coil: id.split(".").first,
              on_seconds: @rig[on],
              off_seconds: @rig[off],
              rules: {
                on: "sequencer_on_delay",
                off: "sequencer_off_delay"
              }
            )
          end
      end

      def thermal_switches
        found = []
        if @rig[:sensing] == "coil_switch"
          found << TemperatureSwitch.new(
            "DFT",
            quantity: "coil",
            closes_at: @rig[:coil_switch_closes_degrees_f],
            opens_at: @rig[:coil_switch_opens_degrees_f],
            rules: {
              closed: "coil_cold",
              open: "coil_warm"
            },
            inclusive: @rig[:thresholds_inclusive]
          )
        end
        found << AirPressureSwitch.new if Options.fitted?(@rig, "APS")
        found << outdoor_thermostat if @rig[:outdoor_thermostat]
        @thermal = found.map(&:id)
        found
      end

      def outdoor_thermostat
        points = Hysteresis.outdoor_thermostat(@rig)
        TemperatureSwitch.new(
          "ODT",
          quantity: "outdoor",
          closes_at: points.closes_degrees_f,
          opens_at: points.opens_degrees_f,
          rules: {
            closed: "cold_outside",
            open: "warm_outside"
          }
        )
      end

      # Only a board with a relay of its own can hold a start back.
      def guard
        return [] unless @rig[:y_path] == "delay"

        [
          CompressorGuard.new(
            hold_seconds: @rig[:board_hold_seconds],
            hold_on_power: @rig[:hold_on_power],
            hold_kind: @rig[:board_hold_kind],
            lockout_trips: @rig[:lockout_trips],
            sees_trips:
              @rig[:safeties_return] == "board" && @rig[:run_time_tap] == "after_safeties" && @rig[:safeties].any?
          )
        ]
      end

      def valve =
        [
          Valve.new(
            rests_in: @rig.changeover == "O" ? :heating : :cooling,
            solenoid: @rig[:valve_volts] == "line" ? "RVS_LINE" : "RVS"
          )
        ]
    end
  end
end
