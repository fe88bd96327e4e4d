# frozen_string_literal: true

module Gorvant
  module Desks
    # From the complaint and what was read to why, and what to measure next. It keeps nothing: what it asks for is kept
    # as a reading, so that what is taken back there is gone here.
    module Find
      Read = VisitRead

      class << self
        # Find is looked at anew whenever it is opened, and says then how it stands (Words#mark): from a record alone
        # nothing of it is known.
        def standing(_record) = Standing::UNTOUCHED

        # The unit that a visit looks into.
        def situation(rig, as_found, outdoor_degrees_f) =
          Diagnosis::Situation.new(rig, found: as_found, outdoor_degrees_f: outdoor_degrees_f)

        # A Finder of all that the visit knows. reads: [Read], oldest first; told: { desk => [[test id, answer, words]]
        # }.
        def finder(library, symptoms:, reads:, told: {}, **asked)
          clues = Diagnosis::Clues.new(library)
          own = reads.filter_map { |read| clue(clues, read) }
          others =
            told.flat_map do |desk, list|
              list.filter_map { |id, answer, words| of_desk(library, clues, desk, id, answer, words) }
            end
          last = own.last
          Diagnosis::Finder.new(
            library,
            symptoms: symptoms,
            evidence: others + own + asked.fetch(:further, []),
            stopped_minutes: stopped(reads, library.situation.rig),
            stands: asked[:stands] || last&.test&.at,
            call: asked[:call] || reads.last&.condition&.call,
            mode: asked[:mode],
            past: asked.fetch(:past, []),
            skip: asked.fetch(:skip, []) + untold(clues, reads)
          )
        end

        # What other pages of the visit tell: { desk => [[test id, answer, words]] }.
        def told(record) =
          Desks
            .all
            .compact
            .select { |_id, desk| desk.respond_to?(:evidence) }
            .transform_values { |desk| desk.evidence(record) }

        private

        def clue(clues, read) =
          clues.of(read.observation, read.condition, source: read.id, at: read.at, minutes: read.minutes)

        # Tests whose answer nobody could tell, as long as that stands.
        def untold(clues, reads) =
          reads.filter_map { |read| clues.untold(read.observation, read.condition, minutes: read.minutes)&.id }

        def of_desk(library, clues, desk, id, answer, words)
          return nil unless library.test?(id)

          test = library.test(id)
          return nil unless clues.answer?(test, answer)

          clues.answered(test, answer, source: desk).with(answer: words)
        end

        # Minutes since the compressor stopped, as last told, and what has gone by since. What was done counts: a wait
        # waited out is over; power that came back begins the hold of a board that holds then.
        def stopped(reads, rig)
          last = reads.reverse.find { |read| stood(read, rig) } or return nil
          ran = reads.reverse.find { |read| runs?(read) }
          return nil if ran && reads.index(ran) > reads.index(last)

          stood(last, rig) + last.age_minutes
        end

        # Minutes that the hold had run when this was told; nil of what tells nothing of it.
        def stood(read, rig)
          return read.observation.amount.low if since_stop?(read)
          return read.minutes if read.minutes
          return Diagnosis.hold_seconds(rig).max / 60.0 if done?(read, "waiting", "waited_out")

          0.0 if done?(read, "power", "restored") && rig[:hold_on_power]
        end

        def done?(read, place, choice) =
          read.observation.function == "did" && read.observation.place == place && read.observation.choice == choice

        def since_stop?(read) = read.observation.function == "minutes" && read.observation.place == "since_stop"
        def runs?(read) = read.observation.place == "compressor" && read.observation.choice == "runs"
      end
    end
  end
end
