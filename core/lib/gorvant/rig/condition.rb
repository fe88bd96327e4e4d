# frozen_string_literal: true

module Gorvant
  # What the rig is asked to do, and how things stand around it. call: a key of Catalogue.calls. switches: { component
  # code => "open" or "closed" } set by pressure or temperature. supplies: { "air_handler" / "outdoor" => on? }.
  # faults: [Hash] as Faults reads them. board: { "defrost" / "lockout" / "hold" => bool }, nil for what the call says.
  # outputs: terminals that the thermostat joins to R, nil for what the call and its set-up say. contacts: { contact
  # branch id => "open" or "closed" } of those that follow their coil late. outdoor_degrees_f, coil_degrees_f: where
  # measured, they put the switches that follow them, unless switches says otherwise. moment: which instant of a
  # defrost, a key of MOMENTS.
  Condition =
    Value.define(
      :call,
      :switches,
      :supplies,
      :faults,
      :board,
      :outputs,
      :contacts,
      :outdoor_degrees_f,
      :coil_degrees_f,
      :moment,
      defaults: {
        switches: {}.freeze,
        supplies: {}.freeze,
        faults: [].freeze,
        board: nil,
        outputs: nil,
        contacts: {}.freeze,
        outdoor_degrees_f: nil,
        coil_degrees_f: nil,
        moment: nil
      }
    )

  class Condition
    SUPPLIES = %w[air_handler outdoor].freeze
    BOARD = %w[defrost lockout hold].freeze
    MOST_FAULTS = 80
    # Of a defrost: begun by itself, with the coil still cold; forced with the coil switch's pins jumpered; forced by
    # the pins alone.
    MOMENTS = %w[natural forced_jumper forced_pins].freeze

    # From parsed JSON. Raises BadCondition with the field's pointer.
    def self.parse(given)
      given = {} if given.nil?
      unless given.is_a?(Hash)
        raise BadCondition.new(field: "/condition", problem: "has to be an object such as {\"call\": \"heat\"}")
      end

      Parser.new(given).condition
    end

    def to_json_hash
      {
        "call" => call,
        "switches" => switches,
        "supplies" => supplies,
        "faults" => faults,
        "board" => board,
        "outputs" => outputs,
        "contacts" => (contacts unless contacts.empty?),
        "outdoor_degrees_f" => outdoor_degrees_f,
        "coil_degrees_f" => coil_degrees_f,
        "moment" => moment
      }.compact
    end

    # The same without temperatures that nothing on this rig follows: two conditions that are one to it become equal. A
    # fault in the set-up may make the rig follow what it did not: then all is kept.
    def for_rig(rig)
      return self if faults.any? { |fault| fault["kind"] == "set_up" }

      outdoors = rig[:outdoor_thermostat] || Balance.in_use?(rig)
      with(
        outdoor_degrees_f: (outdoor_degrees_f if outdoors),
        coil_degrees_f: (coil_degrees_f if rig[:sensing] == "coil_switch")
      )
    end

    # Reads a condition field by field.
    class Parser
      KNOWN = %w[call switches supplies faults board outputs contacts outdoor_degrees_f coil_degrees_f moment].freeze
      DEGREES = (-80..250)

      def initialize(given) = @given = given

      def condition
        stray = @given.keys - KNOWN
        wrong("/condition/#{stray.first}", "unknown; known are #{KNOWN.join(", ")}") if stray.any?

        Condition.new(
          call: call,
          switches: switches,
          supplies: flags("supplies", SUPPLIES),
          faults: faults,
          board: @given["board"] && flags("board", BOARD),
          outputs: outputs,
          contacts: contacts,
          outdoor_degrees_f: degrees("outdoor_degrees_f"),
          coil_degrees_f: degrees("coil_degrees_f"),
          moment: moment
        )
      end

      private

      def wrong(field, problem) = raise(BadCondition.new(field: field, problem: problem))

      def call
        call = @given.fetch("call", "off")
        return call if Catalogue.calls.key?(call)

        wrong("/condition/call", "unknown call '#{call}'; known are #{Catalogue.calls.keys.join(", ")}")
      end

      def degrees(name)
        value = @given[name]
        return value if value.nil? || (value.is_a?(Numeric) && DEGREES.cover?(value))

        wrong(
          "/condition/#{name}",
          "has to be a temperature from #{DEGREES.first} to #{DEGREES.last} °F, not #{value.inspect[0, 40]}"
        )
      end

      def moment
        moment = @given["moment"]
        return moment if moment.nil? || MOMENTS.include?(moment)

        wrong("/condition/moment", "has to be one of #{MOMENTS.join(", ")}, not #{moment.inspect[0, 40]}")
      end

      def object(name)
        value = @given.fetch(name, {})
        value.is_a?(Hash) ? value : wrong("/condition/#{name}", "has to be an object")
      end

      def switches
        object("switches").each do |code, state|
          about = Catalogue.components[code]
          unless about && about["kind"] == "switch"
            wrong("/condition/switches/#{code}", "is no switch of this kind of unit")
          end
          unless %w[open closed].include?(state)
            wrong("/condition/switches/#{code}", "has to be \"open\" or \"closed\", not #{state.inspect}")
          end
        end
      end

      def contacts
        object("contacts").each do |id, state|
          unless %w[open closed].include?(state)
            wrong("/condition/contacts/#{id.to_s[0, 60]}", "has to be \"open\" or \"closed\", not #{state.inspect}")
          end
        end
      end

      def flags(name, known)
        object(name).each do |key, value|
          wrong("/condition/#{name}/#{key}", "unknown; known are #{known.join(", ")}") unless known.include?(key)
          unless [true, false].include?(value)
            wrong("/condition/#{name}/#{key}", "has to be true or false, not #{value.inspect}")
          end
        end
      end

      def outputs
        outputs = @given["outputs"]
        return outputs if outputs.nil? || (outputs.is_a?(Array) && outputs.all?(String) && outputs.size <= 12)

        wrong("/condition/outputs", "has to be a list of the thermostat's terminals, such as [\"Y\", \"G\"]")
      end

      def faults
        faults = @given.fetch("faults", [])
        wrong("/condition/faults", "has to be a list") unless faults.is_a?(Array)
        wrong("/condition/faults", "has #{faults.size} entries; at most #{MOST_FAULTS}") if faults.size > MOST_FAULTS
        faults.each_with_index do |fault, i|
          unless fault.is_a?(Hash)
            wrong("/condition/faults/#{i}", "has to be an object such as {\"kind\": \"open\", \"at\": \"DTS\"}")
          end
        end
      end
    end
  end
end
