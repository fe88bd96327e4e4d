# frozen_string_literal: true

module Gorvant
  module Server
    class Answers
      # An answer as the text that is sent.
      module Text
        # What people wrote themselves, and get back as they wrote it.
        OWN_WORDS = %w[complaint note name rig_name site content desks labels as_found text own handover].freeze

        class << self
          # content: text, or a value as JSON has it; degrees: "F" or "C", in which the temperatures it speaks of are.
          def of(content, degrees)
            return in_degrees(content, "C").to_json if degrees == "C"

            written(content).delete(Degrees::MARK)
          end

          # Parsed JSON with the temperatures that it speaks of in the unit that was asked for.
          def in_degrees(content, degrees) = Degrees.all(JSON.parse(written(content)), degrees, own: OWN_WORDS)

          private

          def written(content) = content.is_a?(String) ? content : JSON.generate(content)
        end
      end
    end
  end
end
