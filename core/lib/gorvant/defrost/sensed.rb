# frozen_string_literal: true

module Gorvant
  # What a board with two thermistors takes for coil and air. A sensor that is open, shorted or jumpered is out of
  # range: a failed sensor (nil), never a temperature. Source: docs/sources.md, sensor-practice.
  Sensed = Value.define(:coil_degrees_f, :air_degrees_f)

  class Sensed
    SENSORS = { "COIL_T" => :coil_degrees_f, "AMB_T" => :air_degrees_f }.freeze

    class << self
      # coil, air: true temperatures; faults: [Hash] as Fault.parse takes them.
      def through(faults, coil:, air:)
        true_ones = { "COIL_T" => coil, "AMB_T" => air }
        places =
          (
            if faults.any? { |fault| fault["kind"] == "sensors_swapped" }
              { "COIL_T" => "AMB_T", "AMB_T" => "COIL_T" }
            else
              SENSORS.keys.to_h { |code| [code, code] }
            end
          )
        read =
          SENSORS.keys.to_h { |code| [SENSORS.fetch(code), one(code, true_ones.fetch(places.fetch(code)), faults)] }
        new(**read)
      end

      private

      # A sensor's own faults stay with its plug.
      def one(code, degrees, faults)
        own = faults.select { |fault| about?(fault, code) }
        if own.any? { |fault| %w[open lifted sensor_open sensor_shorted short jumper].include?(fault["kind"]) }
          return nil
        end

        own.sum(degrees) { |fault| off(fault) }
      end

      def about?(fault, code) =
        fault["at"] == code ||
          (fault["at"].is_a?(Array) && fault["at"].sort == [1, 2].map { |pin| "outdoor.board.#{code}_#{pin}" })

      # °F by which it reads high.
      def off(fault)
        numbers = Catalogue.profile.fetch("sensors")
        case fault["kind"]
        when "sensor_drifted"
          fault.fetch("by_degrees_f", numbers.fetch("drift_degrees_f"))
        when "sensor_in_sun"
          numbers.fetch("sun_degrees_f")
        else
          0.0
        end
      end
    end

    def failed? = coil_degrees_f.nil? || air_degrees_f.nil?
  end
end
