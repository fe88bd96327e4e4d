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
            stopped_minutes: stopped(reads),
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

        # Minutes since the compressor stopped, as last told, and what has gone by since.
        def stopped(reads)
          last = reads.reverse.find { |read| read.minutes || since_stop?(read) } or return nil
          ran = reads.reverse.find { |read| runs?(read) }
          return nil if ran && reads.index(ran) > reads.index(last)

          (since_stop?(last) ? last.observation.amount.low : last.minutes) + last.age_minutes
        end

        def since_stop?(read) = read.observation.function == "minutes" && read.observation.place == "since_stop"
        def runs?(read) = read.observation.place == "compressor" && read.observation.choice == "runs"
      end
    end
  end
end
