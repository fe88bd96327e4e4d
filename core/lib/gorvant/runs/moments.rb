# frozen_string_literal: true

module Gorvant
  # The instants of a defrost that a drawing can show, each as a run has it: begun by itself, forced with the coil
  # switch's pins jumpered, forced by the pins alone. Where every contact stands comes from the run.
  module Moments
    SETTLED = 150.0 # seconds into it, when sequencer and blower have followed
    LEAD = 120.0 # heating before it, so that pressures stand
    OUTDOORS = 30.0 # °F
    PINS = %w[outdoor.board.DFT_1 outdoor.board.DFT_2].freeze

    class << self
      # { key of Condition::MOMENTS => Condition }, of those that this board has and that a run reaches.
      def of(rig)
        ways = { "natural" => natural(rig), "forced_jumper" => jumpered(rig), "forced_pins" => pins(rig) }.compact
        ways.filter_map { |key, moves| at(rig, key, moves)&.then { |condition| [key, condition] } }.to_h
      end

      private

      def natural(rig) = Options.fitted?(rig, "APS") ? [move(0, "switch", "closed", of: "APS")] : []

      def jumpered(rig)
        return nil unless rig[:sensing] == "coil_switch" && rig[:forced_entry] == "speed_up"

        [
          move(0, "fault", "begins", of: { "kind" => "stuck_open", "at" => "DFT" }),
          move(0, "jumper", "on", of: PINS),
          *natural(rig)
        ]
      end

      def pins(rig) =
        if rig[:forced_entry] == "held_pins"
          [move(LEAD, "bridge", "on"), move(LEAD + rig[:forced_entry_hold_seconds] + 2, "bridge", "off")]
        else
          nil
        end
      def move(at, what, value, **more) =
        { "at_seconds" => at.to_f, "what" => what, "value" => value }.merge(more.transform_keys(&:to_s))

      def at(rig, key, moves)
        profile = ClockProfile.of(rig)
        counted = key == "forced_pins" ? 0.0 : (profile.full_seconds - LEAD) / 60
        start = {
          "outdoor_degrees_f" => OUTDOORS,
          "coil_degrees_f" => frosted(profile),
          "defrost_counted_minutes" => [counted, 600.0].min
        }
        run = Run.of(rig, Script.parse({ "start" => start, "moves" => [move(0, "call", "heat"), *moves] }, LEAD + 900))
        begun = run.next_event("defrost", 0.0, true)&.seconds or return nil
        condition =
          run.condition_at(
            [begun + SETTLED, run.next_event("defrost", begun, false)&.seconds.to_f - 1].select do |second|
                second > begun
              end
              .min || begun
          )
        condition.with(call: "defrost", moment: key)
      rescue BadScript, ZeroTimeLoop
        nil
      end

      # A coil cold enough for this board, °F.
      def frosted(profile)
        point = profile.school == "demand" ? DefrostClock.new(profile).demand_point(OUTDOORS) : profile.starts_degrees_f
        point - 4
      end
    end
  end
end
