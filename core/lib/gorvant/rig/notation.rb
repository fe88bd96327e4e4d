# frozen_string_literal: true

require_relative "notation/vocabulary"
require_relative "notation/reader"
require_relative "notation/printer"
require_relative "notation/wiring"
require_relative "notation/proof"
require_relative "notation/builder"

module Gorvant
  # Loop notation: a rig as its rungs, the way one reads them from the panel.
  #
  #   R > wall.Y [yellow] > air_handler.Y [yellow] > outdoor.Y > LPS > DTS > HPS > M > T1 > (CC) > C
  #   R > wall.W2 [white] > air_handler.W > (SEQ) > C
  #     | R > DFR/no > outdoor.W2_out [white] > air_handler.W
  #
  # `|` is another feed of the rung above, up to where it joins. Two terminals of one place beside each other are a
  # jumper. `with` states a fact that no rung shows. `#` begins a remark.
  module Notation
    MOST_TRIES = 6

    class << self
      # Text to a Rig. Raises BadNotation, whose problems name line, column and word.
      def parse(text, name:) = Builder.new(Reader.new(text), name).rig

      # A Rig as text that `parse` makes an equal rig of, as far as the notation speaks: facts, conductors with their
      # colors and splices, jumpers. Provenance is not said.
      def print(rig)
        "#{told(rig, Printer.new(rig).lines).join("\n")}\n"
      end

      # { load code => [Printer::Feed] }
      def rungs(rig) = Printer.new(rig).rungs

      # "yellow", "yellow /attic/ white"
      def sheath(conductor)
        [conductor.color, *conductor.splices.flat_map { |splice| ["/#{splice.id}/", splice.color] }].join(" ")
      end

      # "cable_c: " where two cables join the same places.
      def cable_mark(rig, cable) =
        rig.cables.count { |one| [one.from, one.to].sort == [cable.from, cable.to].sort } > 1 ? "#{cable.id}: " : ""

      private

      # The lines with those facts that do not follow from them; one stated fact may change what others default to.
      def told(rig, lines, tries = MOST_TRIES)
        read = Builder.new(Reader.new(lines.join("\n")), rig.name).unproved
        missing = Catalogue.facts.keys.reject { |key| read[key] == rig[key] }
        missing = %w[board_family] if missing.include?("board_family") # much else follows from it
        if missing.empty? || tries.zero?
          lines
        else
          told(rig, lines + missing.map { |key| "with #{key} #{fact_words(rig[key])}" }, tries - 1)
        end
      end

      def fact_words(value)
        case value
        when true
          "yes"
        when false
          "no"
        when Array
          if value.empty?
            "none"
          else
            value.map { |one| one.is_a?(Array) ? one.map { |number| format("%g", number) }.join(": ") : one }.join(", ")
          end
        else
          value.to_s
        end
      end
    end
  end
end
