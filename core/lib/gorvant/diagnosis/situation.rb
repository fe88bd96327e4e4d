# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # Seconds that a board's hold may last: read, or both that are usual.
    def self.hold_seconds(rig)
      return [rig[:board_hold_seconds].to_f] unless rig.assumed.include?("board_hold_seconds")

      Catalogue.profile.dig("sequence", "hold_unread_seconds")
    end

    # The unit that is looked into: what is fitted, what the visit found otherwise, and the weather. All else is what
    # could be so.
    class Situation
      # One way in which tests are made: a call, with what is supposed for the test. id: for a person's eyes never.
      State = Value.define(:id, :condition, :lifted, defaults: { lifted: nil })

      attr_reader :rig, :faults, :found, :outdoor_degrees_f, :netlist, :told

      # rig: as fitted. found: AsFound or nil. outdoor_degrees_f: nil where nobody measured it.
      def initialize(rig, found: nil, outdoor_degrees_f: nil)
        right = Target.rig(rig)
        @told = told_words(found || AsFound.new)
        @found = Differences.new(right, found || AsFound.new, rig).all.reject { |one| one.faults.empty? }
        settings, @faults = @found.flat_map(&:faults).partition { |fault| fault["kind"] == "set_up" }
        @rig = right.set(settings.to_h { |fault| [fault["at"].to_sym, fault["value"]] })
        @outdoor_degrees_f = outdoor_degrees_f
        @netlist = Assembly.netlist(@rig)
      end

      # What the visit found otherwise than it should be, in words; and the moves that put it right.
      def found_titles = found.flat_map(&:faults).map { |given| Fault.parse(given).title(netlist) }.uniq
      def moves = found.flat_map(&:moves).uniq

      # What signatures follow from, beside what is fitted: as JSON has it.
      def made_from = [found.flat_map(&:faults), designs.keys, states.map { |state| state.condition.to_json_hash }]

      # { id => what it is } of core/data/diagnosis.yml that this unit can do as designed, in this weather.
      def designs
        @designs ||= Diagnosis.numbers.fetch("as_designed").select { |_id, about| fits?(about) && weather?(about) }
      end

      # Whether the unit has what an entry of core/data/diagnosis.yml needs.
      def fits?(about) = Diagnosis.fitted?(rig, about) && (!about["needs_balance"] || Balance.in_use?(rig))

      # Every call, on what the weather makes of it; the board's hold; a field wire lifted at the outdoor unit or at
      # the wall, where one wire can be fed from two sides.
      def states = @states ||= [*calls, *cold, *holds, *lifts].to_h { |state| [state.id, state] }.values

      def state(id) = (@by_id ||= states.to_h { |state| [state.id, state] })[id]

      # The state whose condition this is, or nil.
      def state_of(condition)
        wanted = shape(condition)
        states.find { |state| shape(state.condition) == wanted }
      end

      # The condition as this unit feels it: the visit's weather where none was noted, and of the coil's temperature
      # only what the switch makes of it.
      def shape(condition)
        outdoor = condition.outdoor_degrees_f || outdoor_degrees_f
        condition.with(outdoor_degrees_f: outdoor&.to_f, coil_degrees_f: coil(condition)).for_rig(rig).to_json_hash
      end

      # What this unit's board forgets with its power: [key of diagnosis.yml's "disturbs"].
      def forgets
        @forgets ||=
          begin
            delays = @rig[:y_path] == "delay"
            codes = delays || (@rig[:sensing] == "thermistors" && @rig[:failed_sensor_lamp])
            {
              "hold" => delays && @rig[:hold_on_power],
              "count" => !@rig[:clock_survives_power],
              "code" => codes
            }.select { |_what, is| is }.keys
          end
      end

      # Joints that are taken off before a lamp is lit in place of the fuse: of the outdoor unit's cable, or all on R.
      def off_for_lamp(place)
        joints = netlist.branches.select { |branch| branch.kind == :wire && branch.id.end_with?("@air_handler") }
        case Diagnosis.numbers.fetch("fuse_lamp").fetch(place)["lift"]
        when "outdoor_cable"
          id = rig.cables.find { |cable| cable.to == "outdoor" }&.id
          joints.map(&:id).select { |joint| joint.start_with?("#{id}.") }
        when "on_r"
          joints.select { |joint| joint.from == "air_handler.R" }.map(&:id)
        else
          []
        end
      end

      # Whether a point is of the low voltage.
      def low?(node) =
        (
          @low ||=
            netlist.sections.find { |section| section.reference == Assembly::HOME }.nodes.to_h { |one| [one, true] }
        ).key?(node)

      # Calls in which the weather, or the maker's limits, let the unit run.
      def allowed?(call)
        return true unless outdoor_degrees_f

        limits = Catalogue.profile.fetch("bench")
        case Catalogue.calls.fetch(call)["mode"]
        when "cooling"
          outdoor_degrees_f >= limits["no_cooling_below_degrees_f"]
        when "heating"
          outdoor_degrees_f <= limits["no_heating_above_degrees_f"]
        else
          true
        end
      end

      private

      # What an earlier visit tells and nobody has looked at since: sentences.
      def told_words(found)
        found.told.map { |day| Catalogue.words("find.told", day: day) } +
          (found.told_settings.any? ? [Catalogue.wording.fetch("wiring.told_setting")] : [])
      end

      def weather?(about) = about["below_degrees_f"].nil? || (outdoor_degrees_f || 0) < about["below_degrees_f"]

      def condition(call, **more) =
        Condition.new(call: call, outdoor_degrees_f: outdoor_degrees_f&.to_f, **more).for_rig(rig)

      # In heating at rest the switch stands open, cold it is closed; between its points neither is known.
      def coil(condition)
        degrees = condition.coil_degrees_f
        return degrees unless degrees && rig[:sensing] == "coil_switch"

        { "closed" => cold_degrees_f, "open" => nil }.fetch(Hysteresis.coil_switch(rig).at(degrees), degrees)
      end

      def cold_degrees_f = rig[:coil_switch_closes_degrees_f] - 5

      def calls = Outputs.calls(rig).map { |call| State.new(id: call, condition: condition(call)) }

      # Heating with the coil below the switch's closing point.
      def cold
        return [] unless rig[:sensing] == "coil_switch"

        [State.new(id: "heat_cold", condition: condition("heat", coil_degrees_f: cold_degrees_f))]
      end

      def holds
        return [] unless rig[:y_path] == "delay"

        %w[heat cool].map do |call|
          State.new(id: "#{call}_hold", condition: condition(call, board: { "hold" => true }.freeze))
        end
      end

      def lifts
        changeover = rig.changeover
        [
          ["heat", "outdoor", changeover],
          %w[heat outdoor W2_out],
          ["heat", "wall", wall_changeover]
        ].filter_map do |call, place, terminal|
          joint = joint_on(place, terminal) or next
          lifted = { "kind" => "lifted", "at" => joint }.freeze
          State
            .new(id: "#{call}_lift_#{place}", condition: condition(call, faults: [lifted].freeze), lifted: joint)
            .then { |state| terminal == "W2_out" ? state.with(id: "#{call}_lift_W2_out") : state }
        end
      end

      def wall_changeover = rig.changeover_terminal(rig.changeover) || rig.changeover

      # The one joint on a terminal of a field cable, where there is just one.
      def joint_on(place, terminal)
        joints = netlist.branches_at("#{place}.#{terminal}").map(&:id).select { |id| id.end_with?("@#{place}") }
        joints.one? ? joints.first : nil
      end
    end
  end
end
