# frozen_string_literal: true

module Gorvant
  # How much room words take in the type that the product ships, so that a drawing can keep them off lines and each
  # other.
  # Source: docs/sources.md, shipped-font.
  module TextSize
    PLAIN = 450
    BOLD = 700
    ASCENT = 0.74 # of the type size, above the baseline; capitals and figures, which is all that names need
    DESCENT = 0.2
    WIDEST = 900

    class << self
      # Pixels that a text takes at a size.
      def width(text, size, weight = PLAIN) =
        text.each_char.sum { |char| advances(weight).fetch(char, WIDEST) } * size / 1000.0

      # [left, top, right, bottom] of a text at its baseline point.
      def box(text, x, y, size:, weight: PLAIN, anchor: "start")
        width = width(text, size, weight)
        left = { "start" => x, "middle" => x - (width / 2), "end" => x - width }.fetch(anchor)
        [left, y - (size * ASCENT), left + width, y + (size * DESCENT)]
      end

      private

      def advances(weight)
        (@advances ||= {})[weight] ||= Catalogue
          .type
          .fetch(weight)
          .flat_map { |width, chars| chars.each_char.map { |char| [char, width] } }
          .to_h
      end
    end
  end
end
