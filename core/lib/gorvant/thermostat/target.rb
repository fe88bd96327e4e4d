# frozen_string_literal: true

module Gorvant
  # A target set-up that no unit could work with.
  class RefusedSetUp < Error
    says "%<field>s: %<problem>s"
  end

  # What the thermostat's electrical settings have to be for the equipment that is fitted.
  module Target
    # A fact that no wiring can make work. key: of facts.yml; right: what it has to be; code: of findings.yml.
    Declared = Value.define(:key, :right, :code)

    class << self
      # { setting => [values that fit], the usual first }, of those that are asked of this rig.
      def fitting(rig)
        {
          "system_setup" => %w[heat_pump ground_source],
          "changeover_setup" => [changeover(rig)],
          "stages_setup" => ["as_fitted", rig[:compressor_stages]],
          "backup_setup" => ["as_fitted", type(rig)],
          "emergency_setup" => ["as_fitted", type(rig)].uniq - ["none"],
          "blower_setup" => blowers(rig)
        }.select { |key, _values| rig.asks?(key) }
      end

      # The rig with its settings put right.
      def rig(rig)
        wrong = fitting(rig).reject { |key, values| values.include?(rig[key]) }
        wrong.empty? ? rig : rig.set(wrong.transform_values(&:first))
      end

      # [Declared] of facts that are errors wherever they are said: on Fitted as well as found at the screws.
      def declared(rig)
        jumpered = rig[:outdoor_thermostat] && rig[:backup] != "none" && rig[:emergency_path] != "two_conductors"
        [
          (
            if jumpered
              Declared.new(
                key: "emergency_path",
                right: "two_conductors",
                code: rig[:emergency_path] == "jumper" ? "emergency_held_off" : "jumper_forbidden_declared"
              )
            end
          ),
          (
            if rig[:backup] != "none" && !rig[:w2_out_run]
              Declared.new(key: "w2_out_run", right: true, code: "w2_out_not_run")
            end
          )
        ].compact
      end

      # The rig without them.
      def sound(rig) = rig.set(declared(rig).to_h { |one| [one.key, one.right] })

      # Refuses a target set-up under which nothing may heat, or which cannot act, and points that cross. A rig that was
      # kept before this was asked still opens. Raises RefusedSetUp.
      def refuse!(rig)
        crossed(rig)
        return unless rig[:balance_points]

        low, high = %i[auxiliary_balance_degrees_f compressor_balance_degrees_f].map { |key| rig[key] }
        refuse("compressor_balance_degrees_f", Catalogue.words("settings.crossed", low: low, high: high)) if high > low
        refuse("outdoor_sensor", Catalogue.words("settings.no_sensor")) unless rig[:outdoor_sensor]
      end

      # Raises RefusedSetUp at a number that stands on the wrong side of another: a switch that opens where it closes.
      def crossed(rig)
        Catalogue.facts.each do |key, about|
          other = about["above"] || about["at_least"]
          next unless other && rig.asks?(key) && rig.asks?(other)
          next if rig[key] > rig[other] || (about["at_least"] && rig[key] == rig[other])

          says = about["above"] ? "settings.not_above" : "settings.below"
          named = { title: Catalogue.facts.fetch(other).fetch("title"), unit: about["unit"] }
          refuse(key, Catalogue.words(says, other: rig[other], given: rig[key], **named))
        end
      end

      private

      def refuse(key, problem) = raise(RefusedSetUp.new(field: "/facts/#{key}/value", problem: problem))
      def type(rig) = { "strips" => "electric" }.fetch(rig[:backup], rig[:backup])

      # Where the set-up swaps O and B, it has to fit the terminal on which the rig has the changeover's conductor.
      def changeover(rig)
        return rig.changeover unless rig[:changeover_terminal] == "swapped"

        landed =
          rig
            .cables
            .flat_map(&:conductors)
            .find { |conductor| conductor.to == rig.changeover && %w[O B].include?(conductor.from) }
        landed.nil? || landed.from == rig.changeover ? "O" : "B"
      end

      # Strips that start their own blower on W need no G.
      def blowers(rig)
        own = rig[:backup] == "gas" ? ["furnace"] : ["thermostat"]
        ["as_fitted", *own, *("furnace" if rig[:backup] == "none" || rig[:blower_on_w])].uniq
      end
    end
  end
end
