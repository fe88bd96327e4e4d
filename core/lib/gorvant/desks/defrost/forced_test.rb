# frozen_string_literal: true

module Gorvant
  # A forced defrost, guided and judged: the steps for the board in hand, what the tape expects beside what the watch
  # saw, and what each observation proves.
  class ForcedTest
    include Telling
    include Tally

    # marks: { mark => seconds on the watch }. answers: what was seen without a time, { "fan" / "valve" / "strips" =>
    # true or false }. counted_minutes: on the clock before, nil for unknown; fresh: right after a defrost or a reset.
    # coil_degrees_f at entry, or nil. watch_started_at: seconds since 1970 by the server's clock, as the device that
    # started the watch knows it, and watch_within_seconds how well it does; so that another can go on. Nothing
    # follows from them. clock_apart_seconds: by how much marks of two devices may lie apart at most; it widens every
    # mark. readings: { name => number } of READINGS. tally: { item => "on" / "off" }, what a person said of it.
    # marked_by: { mark => how it was made }, a key of MARKED_BY.
    Record =
      Value.define(
        :marks,
        :answers,
        :marked_by,
        :counted_minutes,
        :fresh,
        :coil_degrees_f,
        :readings,
        :tally,
        :closed,
        :watch_started_at,
        :watch_within_seconds,
        :clock_apart_seconds,
        defaults: {
          marks: {}.freeze,
          answers: {}.freeze,
          marked_by: {}.freeze,
          counted_minutes: nil,
          fresh: false,
          coil_degrees_f: nil,
          readings: {}.freeze,
          tally: {}.freeze,
          closed: false,
          watch_started_at: nil,
          watch_within_seconds: 0.0,
          clock_apart_seconds: 0.0
        }
      )
    Step = Value.define(:id, :does, :proves, :not, :note, :mark, :tally, :cautions)
    # One line of the tape: expected and seen, seconds on the watch, either may be nil. agrees: within a hand's
    # reaction, nil where one is missing or the time is modelled: how long a coil takes to warm nobody knows to seconds.
    Beside = Value.define(:mark, :title, :expected_seconds, :seen_seconds, :agrees)

    MARKS = %w[jumper_on bridge_on fan_off valve_heard strips_on bridge_off jumper_off fan_back strips_off].freeze
    ANSWERS = %w[fan valve strips fan_back strips_off went_in unplugged switch_closed].freeze
    # A relay that clicks, a clamp that falls, or a fan seen standing, which has coasted.
    MARKED_BY = %w[click clamp standing].freeze
    READINGS = %w[
      fan_amps
      vapour_before_degrees_f
      vapour_after_degrees_f
      true_suction_before_psi
      vapour_port_before_psi
      true_suction_psi
      vapour_port_psi
      coil_at_end_degrees_f
    ].freeze
    attr_reader :rig, :record, :profile

    def initialize(rig, record)
      @rig = rig
      @record = record
      @profile = ClockProfile.of(rig)
      @numbers = Catalogue.profile.fetch("defrost")
    end

    # From parsed JSON. Raises BadHistory with every field to blame.
    def self.parse(given) = Parser.new(given).record

    # [Step] for the board in hand.
    def steps
      steps =
        Catalogue.forced_test.select do |_id, step|
          step.fetch("needs", {}).all? { |fact, value| Array(value).include?(rig[fact]) }
        end
      steps.map do |id, step|
        Step.new(
          id: id,
          does: step["does"],
          proves: step["proves"],
          not: step["not"],
          note: step["note"],
          mark: step["mark"],
          tally: step["tally"],
          cautions: step["cautions"]
        )
      end
    end

    # Warnings before a hand moves: what a bridge that stays on would do.
    def warnings
      hurried = profile.forced_entry == "speed_up" && profile.hurries_limit && profile.limit_seconds
      [
        (
          if hurried
            Catalogue.words(
              "defrost.warn_hurried",
              limit: clock(profile.limit_seconds),
              seconds: format("%.1f", profile.limit_seconds / profile.speed_up_factor),
              factor: factor
            )
          end
        ),
        (Catalogue.words("defrost.warn_no_limit") unless profile.limit_seconds),
        (Catalogue.words("defrost.warn_auto") if rig[:interval_auto]),
        (Catalogue.words("defrost.warn_hot_gas") if rig[:defrost_method] == "hot_gas")
      ].compact
    end

    # Seconds from bridge to defrost: [[counted minutes, seconds]] for what is set, from zero and from what is counted.
    def expected_seconds
      return profile.hold_seconds if profile.forced_entry == "held_pins"

      SpeedUp.expected_seconds(profile.interval_seconds / 60, profile.speed_up_factor, counted_minutes: counted)
    end

    # The tape of the test: what the rig would have done with the same hand, beside what was seen. [Beside]
    def beside
      return [] unless record.marks["bridge_on"]

      tape = ForcedTape.new(rig, record, counted)
      expected, modelled = tape.marks, tape.modelled
      MARKS.filter_map do |mark|
        want, saw = expected[mark], record.marks[mark]
        next if want.nil? && saw.nil?

        beside_line(mark, want, saw, modelled.include?(mark))
      end
    end

    def beside_line(mark, want, saw, modelled)
      title = Catalogue.words("defrost.mark_#{mark}")
      Beside.new(
        mark: mark,
        title: modelled ? Catalogue.words("defrost.mark_modelled", title: title) : title,
        expected_seconds: want,
        seen_seconds: saw,
        agrees: want && saw && !modelled ? (want - saw).abs <= allowed(mark) : nil
      )
    end
    private :beside_line

    # [Verdict] in the order of the test; what is wrong and to be looked at first comes first.
    def verdicts
      return [] unless record.marks["bridge_on"]

      all = [
        entry,
        *(went_in? ? [*RelayMoves.new(rig, record, profile).verdicts, *ending.verdicts] : [])
      ].flatten.compact
      all.sort_by.with_index { |verdict, i| [verdict.look_first ? 0 : 1, i] }
    end

    # The interval that the stopwatch names, where it leaves no other; nil otherwise.
    def found_interval_minutes
      return nil unless timed && profile.forced_entry == "speed_up"

      possible = SpeedUp.possible(fits)
      near = possible.find { |fit| fit.verdict == "near_zero" }
      near && (possible.one? || zero?) ? near.interval_minutes : nil
    end

    private

    def ending = Ending.new(rig, record, profile, warm: warm_coil?)
    def factor = format("%g", profile.speed_up_factor)
    def sharp = @numbers.fetch("mark_sharp_seconds")
    def allowed(mark) = %w[strips_on strips_off fan_back].include?(mark) ? @numbers.fetch("lag_seconds") : reaction * 2

    # Unplugging the switch for the jumper resets a clock that runs only while the coil is cold.
    def fresh? =
      record.fresh ||
        (
          profile.school == "run_time_cold" && rig[:sensing] == "coil_switch" && profile.forced_entry == "speed_up" &&
            record.answers["unplugged"] != false
        )
    def counted = fresh? ? 0.0 : record.counted_minutes || 0.0

    # Seconds from the bridge to fan or valve, which follow the relay at once; what heats indoors follows late and
    # times nothing. [at the least, at the most], nil where neither, or no bridge, was marked.
    def timed = marks["bridge_on"] && sharp_beginning&.map { |at| at - marks["bridge_on"] }
    # The same as far as the clocks of two devices allow.
    def timed_widely = [timed[0] - record.clock_apart_seconds, timed[1] + record.clock_apart_seconds]

    def went_in? =
      timed || marks["strips_on"] || record.answers["went_in"] == true ||
        record.answers.values_at("fan", "valve", "strips").any?(true)

    # --- entry

    def entry
      return no_sign unless went_in?
      return warm, *(profile.forced_entry == "speed_up" ? [interval] : []) if warm_coil?
      unless timed
        return(
          if marks["strips_on"]
            verdict("entry_untimed", watch("bridge_on", "strips_on"), seen: since_bridge("strips_on"))
          end
        )
      end

      profile.forced_entry == "held_pins" ? held : interval
    end

    # Nothing marked is not the same as nothing seen: the watch may still run, or nobody pressed.
    def no_sign
      denied = denials
      held = marks["bridge_off"] ? Catalogue.words("defrost.for_seconds", seconds: since_bridge("bridge_off")) : ""
      return denied_entry(denied, held) if denied.any?

      marks["bridge_off"] && verdict("entry_unmarked", watch("bridge_on", "bridge_off"), held: held)
    end

    # It did not go in: what that follows from, cheapest first. A coil that is warm, a bridge that came off too soon,
    # are no fault.
    def denied_entry(denied, held)
      evidence = [*watch("bridge_on", "bridge_off"), *denied, coil_words(record.coil_degrees_f)]
      code = "entry_let_go" if bridged_seconds && profile.forced_entry == "held_pins" &&
        bridged_seconds < profile.hold_seconds - sharp
      code ||= warm_entry
      code ||= "entry_bridged_short" if bridged_seconds && profile.forced_entry == "speed_up" &&
        bridged_seconds < expected_seconds + sharp
      verdict(
        code || "entry_none",
        evidence,
        held: held,
        coil: record.coil_degrees_f ? format("%g", record.coil_degrees_f) : "",
        bridged: bridged_seconds ? seconds(bridged_seconds) : "",
        hold: format("%g", profile.hold_seconds),
        needs: seconds(expected_seconds),
        set: format("%g", profile.interval_seconds / 60),
        **points
      )
    end

    def points = { closes: format("%g", profile.starts_degrees_f), opens: format("%g", profile.ends_degrees_f) }
    def bridged_seconds = marks["bridge_off"] && (marks["bridge_off"] - marks["bridge_on"])
    # Whether the board believes in cold whatever the coil is.
    def believes_cold? =
      !marks["jumper_on"].nil? || record.tally["coil_jumper"] == "on" ||
        (profile.school == "time_only" && profile.ends_by == "time")

    # By the coil: above its end it cannot go in, between the points the switch's history decides, and unmeasured
    # nobody knows.
    def warm_entry
      return nil if believes_cold? || record.answers["switch_closed"] == true

      coil = record.coil_degrees_f
      return "entry_none_unread" if coil.nil? && record.answers["switch_closed"].nil?
      if record.answers["switch_closed"] == false || coil >= profile.ends_degrees_f ||
           (rig[:sensing] == "thermistors" && coil > profile.starts_degrees_f)
        return "entry_none_warm"
      end

      "entry_none_between" if coil > profile.starts_degrees_f
    end

    # What was answered that says it did not go in: words, none where nobody said so.
    def denials
      said =
        {
          "went_in" => "it went into defrost",
          "fan" => "the fan stopped",
          "valve" => "the valve was heard",
          "strips" => "heat came on"
        }.select { |sign, _what| record.answers[sign] == false }
      if said.key?("went_in") || said.size == 3
        said.values.map { |what| Catalogue.words("defrost.answer_no", what: what) }
      else
        []
      end
    end

    def warm_coil?
      over =
        marks["fan_back"] && marks["fan_off"] &&
          marks["fan_back"] - marks["fan_off"] <= @numbers.fetch("dry_drip_seconds")
      over && record.coil_degrees_f && record.coil_degrees_f >= profile.ends_degrees_f &&
        record.tally["coil_jumper"] != "on"
    end

    def warm
      verdict(
        "entry_warm",
        watch("bridge_on", "fan_off", "fan_back") + [coil_words(record.coil_degrees_f)],
        degrees: format("%g", record.coil_degrees_f),
        opens: format("%g", profile.ends_degrees_f)
      )
    end

    # Well before the hold, or long after it, is not what the pins do.
    def held
      early = timed_widely[1] < (profile.hold_seconds * (1 - @numbers.fetch("held_early_share"))) - sharp
      late = timed_widely[0] > profile.hold_seconds + sharp + @numbers.fetch("held_late_seconds")
      verdict(
        "entry_held#{"_early" if early}#{"_late" if late}",
        watch("bridge_on", "fan_off"),
        seen: seconds(timed[1]),
        hold: format("%g", profile.hold_seconds)
      )
    end

    # What selectors offer, and what this one is noted to be on.
    def intervals = @numbers.fetch("intervals_minutes") | [set_minutes]
    def set_minutes =
      (profile.interval_seconds / 60).then { |minutes| minutes == minutes.round ? minutes.round : minutes }
    def fits =
      SpeedUp.fits(
        timed_widely[1],
        factor: profile.speed_up_factor,
        fresh: fresh?,
        late_seconds: timed_widely[1] - timed_widely[0],
        intervals: intervals
      )
    def interval = judge_interval(fits, SpeedUp.possible(fits))

    def judge_interval(fits, possible)
      set = set_minutes
      fields = interval_fields(set)
      return by_fits(possible.empty? ? "interval_none_auto" : "interval_auto", possible, fields) if profile.auto
      return none(fits, fields) if possible.empty?

      near, *others = possible.select { |fit| fit.verdict == "near_zero" }
      return by_fits(longer?(fits, set) ? "interval_longer" : "interval_counted", possible, fields) unless near
      if possible.one? || (zero? && others.empty?)
        return verdict("interval_as_set", evidence_of(fits), **fields) if near.interval_minutes == set

        return verdict("interval_other", evidence_of(fits), found: near.interval_minutes, **fields)
      end
      return by_fits("interval_not_set", possible, fields) if possible.none? { |fit| fit.interval_minutes == set }

      by_fits("interval_several", possible, fields)
    end

    def interval_fields(set) =
      {
        seen: seconds(timed[1]),
        factor: factor,
        minutes: SpeedUp.minutes_left(timed[1], profile.speed_up_factor).round,
        set: set,
        expected: seconds(SpeedUp.expected_seconds(set, profile.speed_up_factor))
      }

    # Known to have begun at zero, or as good as.
    def zero? = fresh? || (record.counted_minutes && record.counted_minutes <= @numbers.fetch("near_zero_minutes"))

    # Longer than all that the set interval can take, as far as the mark is sharp.
    def longer?(fits, set) =
      fits.find { |fit| fit.interval_minutes == set }.then { |fit| timed_widely[0] > fit.expected_seconds + sharp }

    # Nothing fits: longer than any can be, longer than the set one, or shorter than a clock at zero can make it.
    def none(fits, fields)
      longest = fits.last
      code =
        if timed_widely[0] > longest.expected_seconds + sharp
          "interval_none"
        else
          longer?(fits, fields[:set]) ? "interval_longer" : "interval_short"
        end
      verdict(
        code,
        evidence_of(fits),
        longest: longest.interval_minutes,
        longest_seconds: seconds(longest.expected_seconds),
        fits: Catalogue.words("defrost.fits_none"),
        **fields
      )
    end

    def by_fits(code, possible, fields)
      words =
        possible.map do |fit|
          if fit.verdict == "near_zero"
            Catalogue.words("defrost.fit_near", minutes: fit.interval_minutes)
          else
            Catalogue.words("defrost.fit_counted", minutes: fit.interval_minutes, counted: fit.counted_minutes.round)
          end
        end
      verdict(code, watch("bridge_on", "fan_off"), fits: words.join("; "), **fields)
    end

    def evidence_of(fits)
      watch("bridge_on", "fan_off") +
        fits.map do |fit|
          Catalogue.words(
            "defrost.fit",
            minutes: fit.interval_minutes,
            expected: seconds(fit.expected_seconds),
            verdict: Catalogue.words("defrost.fit_#{fit.verdict}_short", counted: fit.counted_minutes.round)
          )
        end
    end
  end
end
