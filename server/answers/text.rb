# frozen_string_literal: true

module Gorvant
  module Server
    class Answers
      # An answer as the text that is sent.
      module Text
        # What people wrote themselves, and get back as they wrote it.
        OWN_WORDS = %w[complaint note name rig_name site content desks labels as_found text own handover].freeze

        class << self
          # content: text, or a value as JSON has it; units: those in which it speaks of quantities otherwise than the
          # core does, as Measures.chosen names them.
          def of(content, units)
            units.empty? ? written(content).delete(Measures::MARK) : in_units(content, units).to_json
          end

          # Parsed JSON with what it speaks of in the units that were asked for.
          def in_units(content, units) =
            Measures.all(JSON.parse(written(content)), units) { |key, whole| own?(key, whole) }

          private

          # The labels of a drawing, which stand at a point each, are the core's.
          def own?(key, whole)
            return false unless OWN_WORDS.include?(key)

            key == "text" ? !whole.key?("x") : key != "labels" || whole[key].is_a?(Hash)
          end

          def written(content) = content.is_a?(String) ? content : JSON.generate(content)
        end
      end
    end
  end
end
