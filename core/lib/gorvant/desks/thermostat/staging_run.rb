# frozen_string_literal: true

module Gorvant
  # A thermostat's stages over time on a rig: which terminal at which minute, and why not sooner.
  class StagingRun
    # on_at, off_at: seconds; off_at nil while it lasts. waited: why it was not there sooner, nil where it came at once.
    Stage = Value.define(:output, :title, :on_at, :off_at, :because, :waited)

    attr_reader :timeline

    # rig: with the settings to be run. Raises BadScript.
    def initialize(rig, script)
      @rig = rig
      @timeline = Run.of(rig, script)
    end

    # [Stage] in the order in which they come.
    def stages
      outputs
        .flat_map { |id| intervals(timeline.signal(id)).map { |on, off| stage(id, on, off) } }
        .sort_by { |stage| [stage.on_at, order(stage.output)] }
    end

    # [{ output, title, says }] of what is not on at a time though the thermostat is asked for something.
    def waiting(at)
      outputs
        .reject { |id| timeline.value_at(id, at) }
        .filter_map do |id|
          reason = timeline.standing_reason(id, at)
          next unless reason && WAITS.include?(reason.rule)

          { output: id, title: title(id), says: says(reason), seconds: timeline.next_event(id, at, true)&.seconds }
        end
    end

    # [[seconds, °F]] of the set point as the thermostat takes it, step by step.
    def set_points
      moves =
        timeline.script.moves.select { |move| move.what == "set_point" }.map { |move| [move.at_seconds, move.value] }
      [[0.0, timeline.script.start["set_point_degrees_f"]], *moves].map { |at, value| [at, value.to_f] }
    end

    WAITS = %w[
      stage_delay
      stage_error_small
      above_auxiliary_balance
      balance_points_crossed
      below_compressor_balance
      gas_cut
      gas_stays_out
      minimum_off
      changeover_first
    ].freeze

    private

    def outputs = timeline.signals.map(&:id).select { |id| id.start_with?("THERMOSTAT.") }
    def order(id) =
      { "O" => 0, "B" => 0, "OB" => 0, "Y" => 1, "G" => 2, "Y2" => 3, "W1" => 4, "W2" => 4, "E" => 5 }.fetch(
        id.split(".").last,
        9
      )
    def title(id) = Naming.letter(@rig, id.split(".").last)
    def says(reason) = format(Catalogue.sequence.fetch(reason.rule)["says"], reason.fields)

    def intervals(signal)
      signal.steps.each_with_index.filter_map { |(at, on), i| [at, signal.steps[i + 1]&.first] if on == true }
    end

    def stage(id, on_at, off_at)
      before = on_at.zero? ? nil : timeline.standing_reason(id, on_at - 0.01)
      waited = before && WAITS.include?(before.rule) ? says(before) : nil
      event = timeline.events.find { |one| one.signal == id && one.seconds == on_at }
      Stage.new(output: id, title: title(id), on_at: on_at, off_at: off_at, because: event&.rule_says, waited: waited)
    end
  end
end
