# frozen_string_literal: true

module Gorvant
  # A contact that follows its coil after a delay: a sequencer that heats and bends, a blower board with its own timing.
  class DelayedContact < Controller
    attr_reader :id

    # contact: branch id; coil: what it follows; rules: { on:, off: } keys of sequence.yml.
    def initialize(contact, coil:, on_seconds:, off_seconds:, rules:)
      super()
      @id = contact
      @coil = coil
      @delays = { true => on_seconds.to_f, false => off_seconds.to_f }
      @rules = rules
    end

    def memory = { closed: false, turning: nil, since: 0.0 }

    def step(memory, seen)
      wanted = seen.works?(@coil)
      return as_it_is(memory) if wanted == memory[:closed]

      since = memory[:turning] == wanted ? memory[:since] : seen.now
      over = since + @delays.fetch(wanted)
      done = seen.now >= over
      kept =
        (
          if done
            { closed: wanted, turning: nil, since: since }
          else
            { closed: memory[:closed], turning: wanted, since: since }
          end
        )
      answer(kept, { id => kept[:closed] }, reasons: { id => reason(wanted, over, done) }, wake_at: done ? nil : over)
    end

    private

    # Where its coil came back before the delay was over, that delay is no reason any more.
    def as_it_is(memory)
      reasons = memory[:turning].nil? ? {} : { id => because("delay_called_off", from: @coil) }
      answer(memory.merge(turning: nil), { id => memory[:closed] }, reasons: reasons)
    end

    def reason(wanted, over, done) =
      because(@rules.fetch(wanted ? :on : :off), from: @coil, until_seconds: done ? nil : over)
  end
end
