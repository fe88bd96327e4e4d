# frozen_string_literal: true

module Gorvant
  # Why something is on or off at a time, walked back link by link; and when it will be otherwise.
  class Chain
    # seconds: when it came so, nil for how things stand; rule_says: the rule behind it; left_seconds: until it is over
    # by itself, and at the least, where nobody read how long it lasts; deciding: whether the answer hangs on this link.
    Because =
      Value.define(
        :seconds,
        :signal,
        :says,
        :rule_says,
        :as_designed,
        :left_seconds,
        :left_at_least_seconds,
        :deciding,
        defaults: {
          left_at_least_seconds: nil,
          deciding: false
        }
      )
    # Lengths that a board's own hold has where nobody read it: see profile, hold_unread_seconds.
    HOLDS = %w[short_cycle_hold hold_after_power hold_on_make].freeze
    MOST_LINKS = 14

    attr_reader :links

    # Raises UnknownSignal.
    def initialize(timeline, signal, at)
      @timeline = timeline
      @at = at
      timeline.signal(signal)
      @links = []
      @seen = []
      follow(signal)
      decide
    end

    # The next time that it comes on, with the event that brings it: nil within this run.
    def next_on
      on = @timeline.value_at(@links.first&.signal || "", @at)
      on == true ? nil : @timeline.next_event(@links.first.signal, @at, true)
    end

    # As designed when the link that it hangs on is: a hold, a delay, a latch, a balance point; not when what came
    # before that happens to be.
    def as_designed? = links.find(&:deciding)&.as_designed == true

    private

    # The first link with a rule behind it; without one, the last.
    def decide
      at = links.index { |link| !link.as_designed.nil? && link.rule_says } || (links.size - 1 if links.any?)
      @links[at] = links[at].with(deciding: true) if at
    end

    # Where the hold was not read, it is between the shortest and the longest that are usual.
    def at_least(rule, left)
      return nil unless left && HOLDS.include?(rule) && unread_hold?

      low, high = Catalogue.profile.dig("sequence", "hold_unread_seconds")
      [left - (high - low), 0.0].max
    end

    def unread_hold? = ClockProfile.assumed(@timeline.rig, %w[board_hold_seconds]).any?

    def follow(signal)
      return if @seen.include?(signal) || @links.size >= MOST_LINKS
      return by_hand(signal) unless signal?(signal)

      @seen << signal
      value = @timeline.value_at(signal, @at)
      missing = load?(signal) && value == false ? first_missing(signal) : nil
      return through(signal, missing) if missing

      standing(signal, value)
    end

    def signal?(id) = @timeline.signals.any? { |one| one.id == id }

    # A temperature or a mode leads back to who set it, if anybody did.
    def by_hand(what)
      event = @timeline.last_event("script.#{what}", @at)
      events(event) if event
    end

    def trace = @trace ||= Trace.new(@timeline.rig, @timeline.condition_at(@at))
    def load?(signal) = trace.netlist.branch?(signal) && trace.netlist[signal].load?
    def first_missing(load) = trace.loop_of(load).first_missing&.branch
    def signals =
      @signals ||= Run::Signals.new(@timeline.rig, Assembly.netlist(@timeline.rig), Run::Cast.new(@timeline.rig))

    # Off, because the way to it is open somewhere.
    def through(signal, branch)
      @links << link(nil, signal, Catalogue.words("chain.open", title: cap(signals.title(signal)), link: branch.label))
      mover = signals.movers(branch).find { |id| held?(id) } || signals.movers(branch).last
      return fault(branch) unless mover && signal?(mover)

      follow(mover)
    end

    # Of two movers the one that holds the branch open now.
    def held?(id) = @timeline.value_at(id, @at) == true && %w[hold lockout].include?(id)

    def fault(branch)
      event =
        @timeline.events.reverse_each.find do |one|
          one.seconds <= @at && %w[script.fault script.jumper].include?(one.signal)
        end
      event ? events(event) : @links << link(nil, branch.id, Catalogue.words("chain.open_itself", link: branch.label))
    end

    # How a switch, an output or a running load came to stand as it does.
    def standing(signal, value)
      event = @timeline.last_event(signal, @at)
      reason = @timeline.standing_reason(signal, @at)
      now =
        (
          if reason &&
               (
                 event.nil? || reason.until_seconds.to_f > @at ||
                   Catalogue.sequence.fetch(reason.rule)["says"] != event.rule_says
               )
            reason
          else
            nil
          end
        )
      now = nil if now && value == true && load?(signal)
      if now && waiting?(now, event)
        @links << reasoned(signal, value, now)
        return now.from && now.from != signal ? follow(now.from) : nil
      end
      if event
        events(event)
      else
        @links << link(
          nil,
          signal,
          Catalogue.words("chain.from_start", title: cap(signals.title(signal)), value: words(value))
        )
      end
    end

    # A reason that says more than the last event: something is being waited for.
    def waiting?(reason, event)
      event.nil? || (reason.rule != event.rule && (reason.until_seconds.nil? || reason.until_seconds > @at)) ||
        (reason.until_seconds && reason.until_seconds > @at)
    end

    def reasoned(signal, value, reason)
      rule = Catalogue.sequence.fetch(reason.rule)
      left = reason.until_seconds && (reason.until_seconds - @at)
      Because.new(
        seconds: nil,
        signal: signal,
        says: Catalogue.words("chain.stands", title: cap(signals.title(signal)), value: words(value)),
        rule_says: format(rule["says"], reason.fields),
        as_designed: rule["as_designed"],
        left_seconds: left&.positive? ? left : nil,
        left_at_least_seconds: at_least(reason.rule, left&.positive? ? left : nil)
      )
    end

    # The chain of events back to the one that nothing led to.
    def events(event)
      while event && @links.size < MOST_LINKS
        left = event.until_seconds && event.until_seconds > @at ? event.until_seconds - @at : nil
        @links << Because.new(
          seconds: event.seconds,
          signal: event.signal,
          says: event.says,
          rule_says: event.rule == "script" ? nil : event.rule_says,
          as_designed: event.rule == "script" ? nil : event.as_designed,
          left_seconds: left,
          left_at_least_seconds: at_least(event.rule, left)
        )
        event = event.because && @timeline.events[event.because]
      end
    end

    def link(seconds, signal, says) =
      Because.new(seconds: seconds, signal: signal, says: says, rule_says: nil, as_designed: nil, left_seconds: nil)
    def cap(words) = words[0].upcase + words[1..]
    def words(value) = { true => "on", false => "off" }.fetch(value, value.to_s)
  end
end
