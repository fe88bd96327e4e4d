# frozen_string_literal: true

module Gorvant
  # How many stages a thermostat asks for, by its school: the room against the set point, delays, fast recovery, balance
  # points. Pure: `step` takes the state and how things stand, and answers with the next. Source: docs/sources.md,
  # staging-schools.
  class Staging
    # stages: how many are asked for. came: seconds at which each came. last_set: to see a push.
    State =
      Value.define(
        :stages,
        :came,
        :last_set,
        :mode,
        defaults: {
          stages: 0,
          came: [].freeze,
          last_set: nil,
          mode: "off"
        }
      )
    # compressor: stages of it that may run; aux: whether backup is to; waits: { 2 => Wait } of the stages not yet
    # there.
    Asked = Value.define(:state, :compressor, :aux, :waits)
    # rule: key of sequence.yml; fields: for its words; until_seconds: when it is over by itself, nil where nobody
    # knows.
    Wait = Value.define(:rule, :fields, :until_seconds, defaults: { fields: {}.freeze, until_seconds: nil })
    # How things stand. error_degrees_f: how far the room is from the set point, positive where there is something to
    # do.
    Stand = Value.define(:now, :mode, :error_degrees_f, :set_point, :outdoor_degrees_f)

    CLOSE = 1e-9

    attr_reader :rig

    def initialize(rig)
      @rig = rig
      @numbers = Catalogue.profile.fetch("staging")
    end

    # Names of the stages of a mode, in the order in which they come.
    def stages(mode)
      return mode == "heat" ? ["aux"] : %w[stage_1] if conventional?

      compressor = %w[stage_1 stage_2].first(Outputs.compressor_stages(rig))
      mode == "heat" && Outputs.backup(rig) != "none" ? compressor + ["aux"] : compressor
    end

    def step(state, stand)
      state = State.new(last_set: stand.set_point, mode: stand.mode) unless state.mode == stand.mode
      pushed = state.last_set && push?(stand, state.last_set)
      count = stages(stand.mode).size
      left = drop(state, stand)
      asked(kept(left, stand, [climb(left, stand, count, pushed), count].min), stand)
    end

    # Errors at which something changes, for a room that drifts.
    def thresholds
      (
        [0.0, rig[:stage_1_error_degrees_f], rig[:stage_error_degrees_f], rig[:fast_error_degrees_f]] + steps + drops
      ).uniq
    end

    # Outdoor temperatures at which something changes.
    def balances = Balance.in_use?(rig) ? [rig[:compressor_balance_degrees_f], rig[:auxiliary_balance_degrees_f]] : []

    # Whether the thermostat may run each at this temperature.
    def compressor_allowed?(outdoor) = Balance.compressor?(rig, outdoor)
    def auxiliary_allowed?(outdoor) = Balance.auxiliary?(rig, outdoor)

    # Errors from which each stage comes, in the school of a differential per stage.
    def steps
      first = rig[:stage_1_error_degrees_f]
      second, aux = own_steps
      heat = stages("heat")
      heat.each_index.map do |i|
        heat[i] == "aux" ? first + (second * (i - 1).clamp(0, 9)) + (i.zero? ? 0 : aux) : first + (second * i)
      end
    end

    private

    def conventional? = rig[:system_setup] == "conventional"
    def by_time? = rig[:staging_school] == "time"
    def delay = rig[:stage_delay_minutes] * 60.0
    def fast(mode) = rig[mode == "heat" ? :fast_heating : :fast_cooling]

    def own_steps
      named = rig[:anticipation]
      if named == "own"
        [rig[:stage_2_step_degrees_f], rig[:aux_step_degrees_f]]
      else
        @numbers.fetch("anticipation").fetch(named)
      end
    end

    # While it runs, the set point is moved towards more.
    def push?(stand, last) = stand.mode == "heat" ? stand.set_point > last : stand.set_point < last

    # Satisfied: all out. Else, where stages drop one by one, those whose error is gone by the differential.
    def drop(state, stand)
      return State.new(last_set: state.last_set, mode: state.mode) if stand.error_degrees_f <= CLOSE
      return state unless rig[:stage_drop] == "reverse"

      left = state.stages
      left -= 1 while left > 1 && stand.error_degrees_f <= keeps(left) + CLOSE
      left == state.stages ? state : state.with(stages: left, came: [*state.came.first(left - 1), stand.now])
    end

    def keeps(stage) =
      [
        (by_time? ? rig[:stage_error_degrees_f] : steps[stage - 1]) - @numbers.fetch("drop_differential_degrees_f"),
        0.0
      ].max
    def drops = rig[:stage_drop] == "reverse" ? (2..stages("heat").size).map { |stage| keeps(stage) } : []

    # How many stages there are to be now.
    def climb(state, stand, count, pushed)
      error = stand.error_degrees_f
      return 0 if state.stages.zero? && error < rig[:stage_1_error_degrees_f] - CLOSE
      return count if fast?(stand, state, pushed)

      if by_time?
        by_time(state, stand, count)
      else
        [state.stages, steps.first(count).count { |step| error >= step - CLOSE }].max
      end
    end

    def fast?(stand, state, pushed)
      trigger = fast(stand.mode)
      large = %w[error either].include?(trigger) && stand.error_degrees_f >= rig[:fast_error_degrees_f] - CLOSE
      large || (pushed && state.stages.positive? && %w[push either].include?(trigger))
    end

    def by_time(state, stand, count)
      stages = [state.stages, 1].max
      return stages if state.stages.zero? || stages >= count

      due = stand.now >= state.came.last + delay - CLOSE && stand.error_degrees_f > rig[:stage_error_degrees_f] + CLOSE
      due ? stages + 1 : stages
    end

    # Stages that are new came just now.
    def kept(state, stand, wanted)
      came = state.came.first(wanted)
      State.new(
        stages: wanted,
        came: came + ([stand.now] * (wanted - came.size)),
        last_set: stand.set_point,
        mode: stand.mode
      )
    end

    def asked(state, stand)
      names = stages(stand.mode)
      on = names.first(state.stages)
      heating = stand.mode == "heat"
      compressor = on.count { |name| name != "aux" }
      allowed = !heating || compressor_allowed?(stand.outdoor_degrees_f)
      backup = heating && Outputs.backup(rig) != "none" && auxiliary_allowed?(stand.outdoor_degrees_f)
      aux = backup && (on.include?("aux") || (!allowed && on.any?))
      Asked.new(
        state: state,
        compressor: allowed ? compressor : 0,
        aux: aux,
        waits: waits(state, stand, names, allowed)
      )
    end

    # { name of a stage => Wait } of those that do not run though something is asked.
    def waits(state, stand, names, allowed)
      return {} if state.stages.zero?

      names
        .each_with_index
        .filter_map do |name, i|
          wait = limit(name, stand, allowed) || (i >= state.stages ? later(state, stand, i) : nil)
          [name, wait] if wait
        end
        .to_h
    end

    def limit(name, stand, allowed)
      return nil unless stand.mode == "heat"

      outdoor = format("%g", stand.outdoor_degrees_f.round(1))
      return crossed(outdoor) if Balance.nothing?(rig, stand.outdoor_degrees_f)

      if name == "aux"
        unless auxiliary_allowed?(stand.outdoor_degrees_f)
          Wait.new(
            rule: "above_auxiliary_balance",
            fields: {
              outdoor: outdoor,
              limit: format("%g", rig[:auxiliary_balance_degrees_f])
            }
          )
        end
      elsif !allowed
        Wait.new(
          rule: "below_compressor_balance",
          fields: {
            outdoor: outdoor,
            limit: format("%g", rig[:compressor_balance_degrees_f])
          }
        )
      end
    end

    # Neither source may run in between: no design, a set-up that is wrong.
    def crossed(outdoor)
      low, high = %i[auxiliary_balance_degrees_f compressor_balance_degrees_f].map { |key| format("%g", rig[key]) }
      Wait.new(rule: "balance_points_crossed", fields: { outdoor: outdoor, low: low, high: high })
    end

    def later(state, stand, index)
      error = format("%g", stand.error_degrees_f.round(2))
      unless by_time?
        return(
          Wait.new(
            rule: "stage_error_small",
            fields: {
              error: error,
              needs: "#{format("%g", steps[index])} #{Measures::DELTA}"
            }
          )
        )
      end

      needs = format("%g", rig[:stage_error_degrees_f])
      over = state.came.last + (delay * (index - state.stages + 1))
      if stand.now >= over - CLOSE
        return(
          Wait.new(rule: "stage_error_small", fields: { error: error, needs: "more than #{needs} #{Measures::DELTA}" })
        )
      end

      Wait.new(
        rule: "stage_delay",
        fields: {
          minutes: format("%g", rig[:stage_delay_minutes]),
          needs: needs
        },
        until_seconds: over
      )
    end
  end
end
