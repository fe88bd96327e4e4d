# frozen_string_literal: true

module Gorvant
  # A thermostat's settings against the equipment, one by one, and what each mismatch does: the electrical ones by the
  # circuit in every call, the timed ones by running the thermostat.
  class SettingsCheck
    # verdict: "agrees", "disagrees", "look" (right, and worth a look) or "assumed" (as the profile has it, nobody read
    # it).
    Item = Value.define(:key, :title, :asks, :found, :should, :verdict, :source)

    ELECTRICAL = %w[system_setup changeover_setup stages_setup backup_setup emergency_setup blower_setup].freeze
    WEATHERS = (-20..80).step(2).to_a.freeze

    # recorded: the visit's rig; found: AsFound. set_point_degrees_f: what the customer sets, nil where nobody said.
    def initialize(recorded, found, set_point_degrees_f: nil, wiring: WiringCheck.new(recorded, found))
      @recorded = recorded
      @found = found
      @set_point = set_point_degrees_f
      @wiring = wiring
      @rig = recorded.set(found.settings)
      @fitting = Target.fitting(recorded)
    end

    # The rig as its thermostat is found to be set.
    attr_reader :rig

    # [Item] in the order of the catalogue, of the settings that are asked of this rig.
    def items = Rig.settings.select { |key| @rig.asks?(key) }.map { |key| item(key) }

    # How the settings stand: an all-clear only of what was read.
    def standing
      read, taken = items.partition { |item| !%w[assumed told_before].include?(item.source) }
      wrong = findings.any? { |finding| %w[fault warning].include?(finding.severity) }
      Standing.of(
        "settings",
        wrong: wrong,
        looked_at: read.map { |item| item.title.downcase },
        taken: taken.map { |item| item.title.downcase }.uniq,
        count: read.size
      )
    end

    # [Finding], worst first.
    def findings
      electrical = @wiring.told.select { |told| told.kind == "setting" }.map { |told| with_effects(told) }
      timed = [balance, strips_alone, short_cycling, lockout_off, fast_left_on, offset, limit].flatten.compact
      (electrical + timed).sort_by.with_index { |finding, i| [Finding::SEVERITIES.index(finding.severity), i] }
    end

    private

    def item(key)
      fitting = @fitting[key]
      value = @rig[key]
      Item.new(
        key: key,
        title: Catalogue.facts.fetch(key)["title"],
        asks: Catalogue.facts.fetch(key)["asks"],
        found: value,
        should: fitting ? Comparison.words(key, fitting.first) : nil,
        verdict: verdict(key, value, fitting),
        source: source(key)
      )
    end

    def verdict(key, value, fitting)
      return "disagrees" if fitting && !fitting.include?(value)
      if findings_by_key.fetch(key, []).any? { |finding| %w[fault warning].include?(finding.severity) }
        return "disagrees"
      end
      return "look" if findings_by_key.key?(key)

      %w[assumed told_before].include?(source(key)) ? "assumed" : "agrees"
    end

    # "told_before": as an earlier visit read it, and nobody today.
    def source(key)
      return "measured" if @found.read_settings.key?(key)
      return "told_before" if @found.settings.key?(key)

      @recorded.facts[key]&.provenance&.source || "assumed"
    end

    # { setting => findings about it } of the timed ones.
    def findings_by_key
      @findings_by_key ||=
        begin
          all = {
            "compressor_balance_degrees_f" => [balance],
            "balance_points" => [balance],
            "thermostat_minimum_off_seconds" => [short_cycling],
            "fast_heating" => fast_left_on,
            "compressor_lockout" => [lockout_off],
            "sensor_offset_degrees_f" => [offset],
            "heat_limit_degrees_f" => [limit]
          }
          all.transform_values(&:compact).reject { |_key, list| list.empty? }
        end
    end

    # A mismatch with what it does in each call, as the circuit has it.
    def with_effects(told)
      told.finding.with(
        evidence: told.finding.evidence + told.effects.map { |effect| "#{effect.title}: #{effect.says}" }
      )
    end

    def finding(code, evidence = [], **fields) = Finding.of(code, evidence: evidence, **fields)

    # --- balance points

    def balance
      return @balance if defined?(@balance)

      @balance = @rig[:balance_points] ? crossed || blind : nil
    end

    def crossed
      unless @rig[:compressor_balance_degrees_f] > @rig[:auxiliary_balance_degrees_f] && @rig[:outdoor_sensor]
        return nil
      end

      dead = WEATHERS.reject { |outdoor| heats?(outdoor) }
      finding(
        "balance_points_crossed",
        [Catalogue.words("settings.run_dead", low: dead.min, high: dead.max)],
        low: degrees(@rig[:auxiliary_balance_degrees_f]),
        high: degrees(@rig[:compressor_balance_degrees_f])
      )
    end

    def blind
      return nil if @rig[:outdoor_sensor]

      cold, warm = [@rig[:compressor_balance_degrees_f] - 5, @rig[:auxiliary_balance_degrees_f] + 5]
      finding(
        "balance_points_blind",
        [cold, warm].map do |outdoor|
          Catalogue.words("settings.run_blind", outdoor: degrees(outdoor), runs: sources(outdoor).join(" and "))
        end,
        low: degrees(cold + 5),
        high: degrees(warm - 5)
      )
    end

    def heats?(outdoor) = sources(outdoor).any?

    # What heats at this temperature when all stages have been asked for long enough.
    def sources(outdoor)
      staging = Staging.new(@rig)
      state = Staging::State.new(stages: 9, came: [0.0] * 9, last_set: 70.0, mode: "heat")
      asked =
        staging.step(
          state,
          Staging::Stand.new(
            now: 1e6,
            mode: "heat",
            error_degrees_f: 9.0,
            set_point: 70.0,
            outdoor_degrees_f: outdoor.to_f
          )
        )
      [("the compressor" if asked.compressor.positive?), ("backup" if asked.aux)].compact
    end

    # --- what the circuit and the tape show

    # Strips that are fed while no air moves: in a call, or after one, when the sequencer outlasts the blower.
    def strips_alone
      return nil unless @rig[:backup] == "strips"

      calls =
        @wiring
          .trials
          .outcomes(@wiring.faults)
          .select { |_id, outcome| (outcome.loads["HTR"] || outcome.loads["HTR2"]) && outcome.loads["BLOWER"] == false }
          .keys
      titles = @wiring.trials.all.select { |trial| calls.include?(trial.id) }.map(&:title)
      if calls.any?
        return finding("strips_without_blower", [Catalogue.words("wiring.in_calls", calls: titles.join(", "))])
      end

      late = airless_after_call
      late && finding("strips_without_blower", [Catalogue.words("settings.after_call", **late)])
    end

    # { from:, to: } seconds after a call's end in which strips are fed and no air moves; nil for none. The blower's own
    # delay at the beginning is no fault.
    def airless_after_call
      timeline = run([[5, "heat_aux"], [600, "off"]], 900)
      banks = timeline.signals.map(&:id) & %w[HTR HTR2]
      seconds =
        (0...300).select do |after|
          !timeline.value_at("BLOWER", 600 + after) && banks.any? { |bank| timeline.value_at(bank, 600 + after) }
        end
      seconds.any? ? { from: seconds.first, to: seconds.last + 1 } : nil
    end

    def run(calls, seconds)
      moves = calls.map { |at, call| { "at_seconds" => at, "what" => "call", "value" => call } }
      Run.of(
        @rig,
        Script.parse(
          { "start" => { "outdoor_degrees_f" => 40.0, "coil_degrees_f" => 60.0 }, "moves" => moves },
          seconds.to_f
        )
      )
    end

    def short_cycling
      return @short_cycling if defined?(@short_cycling)

      timeline = run([[5, "heat"], [600, "off"], [605, "heat"]], 1800)
      again = timeline.signal("CC").steps.find { |at, on| on && at > 600 }&.first
      held = again ? again - 600 : nil
      @short_cycling =
        if held && held < Catalogue.profile.dig("settings", "short_cycle_seconds")
          finding("short_cycling", [Catalogue.words("settings.run_restart", seconds: held.round)])
        elsif held && @rig[:thermostat_minimum_off_seconds].positive? && @rig[:y_path] == "delay"
          two_holds(held)
        end
    end

    # Two delays, each shown, and whether they add or overlap.
    def two_holds(held)
      kind = @rig[:board_hold_kind]
      low, high = Catalogue.profile.dig("sequence", "hold_unread_seconds")
      unread = ClockProfile.assumed(@rig, %w[board_hold_seconds]).any?
      wall = @rig[:thermostat_minimum_off_seconds]
      least = kind == "on_make" ? held - (high - low) : [wall, low].max
      total =
        (
          if unread && least < held
            Catalogue.words("settings.total_between", low: clock(least), total: clock(held))
          else
            Catalogue.words("settings.total", total: clock(held))
          end
        )
      finding(
        "two_holds",
        [Catalogue.words("settings.run_restart", seconds: held.round)],
        wall: clock(wall),
        board: unread ? "#{clock(low)} to #{clock(high)}" : clock(@rig[:board_hold_seconds]),
        from: Catalogue.wording.fetch("settings.from_#{kind}"),
        join: Catalogue.wording.fetch("settings.holds_#{kind == "on_make" ? "add" : "overlap"}"),
        total: total
      )
    end

    def clock(seconds) = "#{seconds.round / 60}:#{(seconds.round % 60).to_s.rjust(2, "0")}"

    def lockout_off = @rig[:compressor_lockout] == "off_for_test" ? finding("lockout_left_off", cold_runs) : nil

    def cold_runs
      return [] unless @rig[:balance_points] && @rig[:outdoor_sensor]

      cold = @rig[:compressor_balance_degrees_f] - 5
      [Catalogue.words("settings.run_blind", outdoor: degrees(cold), runs: sources(cold).join(" and "))]
    end

    def fast_left_on
      return [] if @rig[:fast_heating] == "off" || Outputs.backup(@rig) == "none"

      [
        finding(
          "fast_recovery_on",
          [],
          trigger: Comparison.words("fast_heating", @rig[:fast_heating]),
          error: degrees(@rig[:fast_error_degrees_f])
        )
      ]
    end

    def offset
      off = @rig[:sensor_offset_degrees_f]
      if off.zero?
        nil
      else
        finding(
          "sensor_offset",
          [],
          off: degrees(off.abs),
          way: off.positive? ? "high" : "low",
          holds: degrees(70 - off)
        )
      end
    end

    def limit
      most = @rig[:heat_limit_degrees_f]
      if @set_point && @set_point > most
        finding("set_point_limited", [], asked: degrees(@set_point), most: degrees(most))
      else
        nil
      end
    end

    def degrees(value) = format("%g", value)
  end
end
