# frozen_string_literal: true

require_relative "judge/starts"
require_relative "judge/clocks"
require_relative "judge/ends"
require_relative "judge/parts"

module Gorvant
  # What a record says of a unit, held against its board as it is fitted. Only what comes again and again counts; what
  # the record has no column for is named, never assumed to be well.
  # Source: docs/sources.md, recorded-judging.
  class RecordedJudge
    include Starts
    include Clocks
    include Ends
    include Parts

    attr_reader :story

    def initialize(story, rig)
      @story = story
      @rig = rig
      @profile = ClockProfile.of(rig)
      @numbers = Catalogue.recorded.fetch("judging")
      @all = story.defrosts
      @seen = @all.reject { |one| one.ended_with == "record" }
    end

    # [Verdict], wrong ones first.
    def verdicts
      @verdicts ||=
        begin
          found = [*starting, *ending, *outputs, *valve, *running, *doubts].compact
          found = [*found, *summary(found)]
          found.sort_by { |one| [%w[wrong undetermined as_designed right].index(one.verdict), one.look_first ? 0 : 1] }
        end
    end

    # What ended a defrost: "temperature", "time", "call", or nil where the record cannot tell.
    def ended_by(one)
      return nil if one.ended_with == "record"
      return unclear_call?(one) ? nil : "call" if one.ended_with
      return by_length(one) unless one.coil_end
      return "time" if @profile.ends_by == "time"

      near_limit?(one) ? at_limit(one) : before_limit(one)
    end

    # { school id => [spells that fit, spells] } of the clocks that the record can be held against.
    def schools = @schools ||= fits

    # The interval that the record shows, minutes of running, or nil: { minutes:, least:, most:, times: }.
    def interval
      ran = whole_runs
      return nil if ran.size < 2

      sorted = ran.map { |seconds| seconds / 60.0 }.sort
      { minutes: middle(sorted), least: sorted.first, most: sorted.last, times: sorted.size }
    end

    # What a defrost should have done beside what it did: [{ title, expected_seconds, seen_seconds }], from its start;
    # nil where the record or the board says nothing.
    def beside(one)
      opens = one.path.find { |_at, coil| coil >= @profile.ends_degrees_f }&.first
      ended = one.ended_with ? nil : one.seconds
      due = opens && limit ? [opens, limit].min : opens || limit
      [
        ["started", due_after(one), one.run_seconds && counted(one)],
        ["coil_turned", 0.0, one.turns_after],
        ["coil_there", nil, opens],
        ["ended", due, ended],
        ["fan_back", 0.0, one.fan_back_after],
        ["strips_on", @rig[:backup] == "none" ? nil : 0.0, one.strips_on_after],
        ["strips_off", @rig[:backup] == "none" ? nil : 0.0, one.strips_off_after],
        ["recovered", nil, one.recovery_seconds]
      ].map do |mark, expected, seen|
        {
          "mark" => mark,
          "title" => Catalogue.words("recorded.mark_#{mark}"),
          "expected_seconds" => expected,
          "seen_seconds" => seen
        }
      end
    end

    private

    # Seconds of running after which a board that counts running should start.
    def due_after(one)
      counts = %w[run_time run_time_cold time_only].include?(@profile.school) && !@profile.auto
      counts && one.run_seconds ? @profile.interval_seconds : nil
    end

    # The call went just as the limit was over or the coil at its point: which it was nobody can tell.
    def unclear_call?(one) = near_limit?(one) || (!one.coil_end.nil? && reached?(one))

    # A coil that was far from its point ended by time. One at it may have ended by either; one long past it too, where
    # its switch came late.
    def at_limit(one)
      return "time" if !reached?(one) && short?(one)

      limit_again? && under_point?(one) ? "time" : nil
    end

    # Ends by temperature differ with the weather: where most come at the limit to the second, the limit it is, unless
    # the coil was at its point.
    def limit_again?
      @limit_again = often?(full.select { |one| near_limit?(one) }, full) if @limit_again.nil?
      @limit_again
    end

    def under_point?(one) =
      one.coil_most + between(one) < @profile.ends_degrees_f - @numbers.fetch("at_point_degrees_f")

    # Short of the limit only temperature is left, unless the coil was far from its point: then neither is so.
    def before_limit(one) =
      reached?(one) || (limit && one.seconds < limit - slack && !short?(one)) ? "temperature" : nil

    def limit = @profile.ends_by == "temperature" ? nil : @profile.limit_seconds
    def slack = (limit.to_f * @numbers.fetch("clock_share")) + story.interval_seconds + 10.0
    def near_limit?(one) = !limit.nil? && (one.seconds - limit).abs <= slack
    # What the coil may have done between two rows.
    def between(one) = [one.climb.to_f * story.interval_seconds / 60, 15.0].min
    def reached?(one) = one.coil_end + between(one) >= @profile.ends_degrees_f - @numbers.fetch("end_within_degrees_f")
    def short?(one) =
      one.coil_most && one.coil_most + between(one) <= @profile.ends_degrees_f - @numbers.fetch("end_short_degrees_f")

    # Without a coil: short of the limit is not by time; at the limit nobody can tell of one alone.
    def by_length(one)
      return nil unless limit
      return @profile.ends_by == "time" ? nil : "temperature" if one.seconds < limit - slack

      near_limit?(one) && @seen.count { |other| near_limit?(other) } >= @numbers.fetch("least_defrosts") ? "time" : nil
    end

    def least = @numbers.fetch("least_defrosts")
    # what: a key of wording ("recorded.part_…") of what was looked at in `of`, so that an all-clear names that and no
    # more, and what is otherwise now and then is told.
    def often?(some, of, what = nil)
      looked[what] = [some.size, of.size] if what
      some.size >= least && some.size >= of.size * @numbers.fetch("most_of_them")
    end

    # { what => [how many were otherwise, how many were looked at] }
    def looked = @looked ||= {}
    def looked?(*what) = what.all? { |one| looked.fetch(one, [0, 0]).last >= least }
    def middle(list) = list.empty? ? nil : list.sort[list.size / 2]
    def number(value) = format("%g", value.to_f.round(value.to_f.abs < 10 ? 1 : 0))
    def full = @seen.reject(&:ended_with)
    def demand? = @profile.school == "demand"

    def verdict(code, evidence: [], **fields)
      leans = Catalogue.verdicts.fetch(code).fetch("leans_on", [])
      Verdict.of(
        code,
        evidence: evidence.empty? ? [based_on] : evidence,
        assumed: ClockProfile.assumed(@rig, leans & Catalogue.facts.keys) + modelled(code),
        look_first: code == "recorded_fan_runs",
        **fields
      )
    end

    def modelled(code)
      return [] unless code.match?(/recorded_(dry|much)/) && story.humidity == "assumed"

      [
        Catalogue.words(
          "recorded.humidity_assumed",
          percent: number(Catalogue.recorded.dig("cycles", "assumed_humidity_percent"))
        )
      ]
    end

    def based_on =
      Catalogue.words(
        "recorded.based_on",
        hours: number((story.to - story.from) / 3600),
        count: @all.size,
        seen_by: Catalogue.words("recorded.seen_by_#{@all.first&.seen_by || "nothing"}")
      )

    # { times:, count: } of some among all.
    def share(some, of) = { times: some.size, count: of.size }

    # --- the record itself

    def doubts = [ob_other]

    def ob_other
      return nil if story.heating_ob.nil? || !story.has?("ob") || story.run_seconds < 7200 || @seen.empty?

      recorded = @rig.changeover == "B"
      return nil if story.heating_ob == recorded

      verdict(
        "recorded_ob_other",
        state: Catalogue.words("recorded.#{story.heating_ob ? "live" : "dead"}"),
        terminal: @rig.changeover
      )
    end

    # --- all in all

    def summary(found)
      return [] if found.any?(&:wrong?) || found.any? { |one| one.code == "recorded_never_suspected" }
      return [nothing_seen] if @seen.empty?
      return [verdict("recorded_few", count: @seen.size, least: least)] if full.size < least
      return [] if found.any? { |one| one.verdict == "undetermined" }

      strays = looked.select { |_what, (some, _of)| some.positive? }
      return [now_and_then(strays)] if strays.any?

      [verdict("recorded_fine", count: @seen.size, looked_at: looked_at.join("; "), missing: missing.join(", "))]
    end

    # Too seldom to say what it is, too often to call it well.
    def now_and_then(strays)
      what = strays.map { |part, (some, of)| "#{Catalogue.words("recorded.part_#{part}")} #{some} / #{of}" }
      verdict("recorded_now_and_then", what: what.join("; "))
    end

    def nothing_seen
      longest = story.stretches.map { |one| one["seconds"] }.max.to_i
      verdict(
        "recorded_none_due",
        minutes: longest / 60,
        why: @story.has?("coil") ? "" : Catalogue.words("recorded.no_coil")
      )
    end

    def looked_at
      by = full.map { |one| ended_by(one) }.tally
      [
        Catalogue.words(
          "recorded.ended",
          temperature: by["temperature"].to_i,
          time: by["time"].to_i,
          unknown: by[nil].to_i
        ),
        *seen_parts.filter_map { |part, seen| Catalogue.words("recorded.#{part}_seen") if seen }
      ].compact
    end

    # Whether enough of each was seen; a column alone shows nothing.
    def seen_parts =
      {
        "fan" => looked?("fan_runs", "fan_not_back"),
        "strips" => looked?("strips_missing", "strips_stay"),
        "valve" => story.has?("coil") && @seen.count(&:turns_after) >= least
      }

    def missing
      absent = %w[coil fan w2 ob] - story.columns
      named = absent.map { |id| Catalogue.recorded.dig("columns", id, "title") }
      unseen = { "fan" => "fan", "strips" => "w2" }.select { |part, id| story.has?(id) && !seen_parts[part] }
      named +=
        unseen.values.map do |id|
          Catalogue.words("recorded.too_few_seen", column: Catalogue.recorded.dig("columns", id, "title"))
        end
      named.any? ? named : [Catalogue.words("recorded.nothing_missing")]
    end
  end
end
