# frozen_string_literal: true

require "prawn"
require "prawn-svg"
require "ttfunk"

module Gorvant
  module Server
    module Reports
      # Inks, and points of a page.
      module Paper
        INK = "1B1A17"
        SOFT = "5A564D"
        RULE = "8A8474"
        ALARM = "8F1D14"
        MARGIN = 54
        FOOT = 30
      end

      # What letters a document's codes stand for, so that it can be searched and copied from: Prawn 2.5 loses those
      # whose neighbors stand for others (its :short spans hold the whole slice). Each code is told by itself.
      module EachCode
        private

        def mapping_spans(mapping) = mapping.sort.map { |pair| [:short, [pair]] }
      end
      Prawn::Fonts::ToUnicodeCMap.prepend(EachCode)

      # The type that documents are set in: the application's own, and a wide one for Greek, Cyrillic and signs. What
      # neither can set is shown by its number, so that nothing is lost unseen.
      module Type
        FOLDER = File.join(__dir__, "fonts")
        FAMILIES = {
          "Text" => {
            normal: File.join(FOLDER, "AtkinsonHyperlegibleNext-Regular.ttf"),
            bold: File.join(FOLDER, "AtkinsonHyperlegibleNext-Bold.ttf")
          },
          "Wide" => {
            normal: File.join(FOLDER, "DejaVuSansCondensed.ttf"),
            bold: File.join(FOLDER, "DejaVuSansCondensed-Bold.ttf")
          }
        }.freeze
        # Scripts that are set letter by letter, from left to right.
        SET = /\A[\p{Latin}\p{Greek}\p{Cyrillic}\p{Common}\p{Inherited}]\z/

        class << self
          def onto(pdf)
            pdf.font_families.update(FAMILIES)
            pdf.font("Text")
          end

          # Words as they can be set: [words, whether the wide type is needed].
          def set(words)
            plain = words.to_s.unicode_normalize(:nfc).delete("\u2060").gsub(/[\t\r]+/, " ")
            return plain, false if plain.each_char.all? { |char| char == "\n" || known("Text").key?(char.ord) }

            set = plain.each_char.map { |char| settable?(char) ? char : format("⟨U+%04X⟩", char.ord) }.join
            [set, true]
          end

          private

          def settable?(char) =
            char == "\n" || known("Text").key?(char.ord) || (known("Wide").key?(char.ord) && char.match?(SET))

          # { code point => true } of a family.
          def known(family)
            (@known ||= {})[family] ||= TTFunk::File
              .open(FAMILIES.fetch(family)[:normal])
              .cmap
              .unicode
              .flat_map { |table| table.code_map.keys }
              .to_h { |code| [code, true] }
          end
        end
      end
    end
  end
end
