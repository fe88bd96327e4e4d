# frozen_string_literal: true

require "did_you_mean"

module Gorvant
  module Notation
    # The words of a rung, and what a person may write for them.
    module Vocabulary
      INLINE = %w[FLS FRS].freeze # what sits on the way from one terminal to the next, in the run of a conductor
      OUTPUTS = { "K" => "BOARD.compressor", "LOCK" => "BOARD.divert", "DEFROST" => "BOARD.defrost" }.freeze
      PINS = { "M" => "outdoor.board.M", "T1" => "outdoor.board.T1" }.freeze
      CONTACTS = %w[DFR/no DFR/nc].freeze
      PLAIN_LOADS = %w[
        THERMOSTAT
        IFR
        CC
        CC2
        Y2S
        RVS
        RVR
        HGS
        SEQ
        SEQ2
        HR
        HR2
        BIR
        GAS
        BOARD
        DFT_IN
        APS_IN
        COIL_T
        AMB_T
        DFR
        DFR2
      ].freeze
      PLACES = {
        "wall" => "wall",
        "stat" => "wall",
        "tstat" => "wall",
        "air_handler" => "air_handler",
        "ah" => "air_handler",
        "indoor" => "air_handler",
        "outdoor" => "outdoor",
        "out" => "outdoor"
      }.freeze
      TERMINALS = {
        "wall" => %w[R C Y Y2 G O B OB W1 W2 E],
        "air_handler" => %w[R C Y Y2 G O B W W2],
        "outdoor" => %w[R C Y Y2 O B W2 W2_in W2_out]
      }.freeze
      ALIASES = {
        "O/B" => "OB",
        "Y1" => "Y",
        "AUX" => "W2",
        "W2OUT" => "W2_out",
        "W2_OUT" => "W2_out",
        "W2IN" => "W2_in",
        "W2_IN" => "W2_in"
      }.freeze
      CAPPED = "capped"
      TITLES = {
        "R" => "hot rail",
        "C" => "common rail",
        "M" => "the board's compressor terminal",
        "T1" => "the board's run-time tap",
        "K" => "the board's own delay",
        "LOCK" => "the board's lockout relay",
        "DEFROST" => "the board's defrost output",
        "DFR/no" => "defrost relay contact, open at rest",
        "DFR/nc" => "defrost relay contact, closed at rest"
      }.freeze

      class << self
        # Every word, as it is printed.
        def all
          @all ||= {}.compare_by_identity
          @all[Catalogue.options] ||= [
            "R",
            "C",
            *terminals,
            *devices,
            *PINS.keys,
            *OUTPUTS.keys,
            *CONTACTS,
            *loads.map { |code| "(#{code})" }
          ].freeze
        end

        # Switches and the fuse of the low voltage, by their codes.
        def devices = (Options.switches & Options.low) + %w[DFT FU]
        # What a rung may lead to.
        def loads = PLAIN_LOADS + (Options.across & Options.low)

        # What a word stands for, for completion.
        def title(word)
          place, terminal = word.split(".").map { |part| part.tr("_", " ") }
          return "#{place}, terminal #{terminal}" if terminal

          TITLES.fetch(word) { Catalogue.components.fetch(word.delete("()")).fetch("title") }
        end

        # The word as printed, or nil.
        def find(text)
          return terminal(text) if text.include?(".")

          known = text.start_with?("(") ? "(#{text[1..].delete(")").upcase})" : text.downcase.sub(%r{\A[^/]+}, &:upcase)
          all.include?(known) ? known : nil
        end

        # The known word that is nearest.
        def nearest(text)
          candidates = all + devices.map { |code| "(#{code})" }
          return nil if text.size > Nearest::MOST_CHARACTERS

          Nearest.of(text.downcase, all.map(&:downcase))&.then { |low| all.find { |word| word.downcase == low } } ||
            Nearest.closest(text, candidates).then { |word| all.include?(word) ? word : word.delete("()") }
        end

        private

        def terminals = TERMINALS.flat_map { |place, terminals| terminals.map { |terminal| "#{place}.#{terminal}" } }

        def terminal(text)
          place, name = text.split(".", 2)
          place = PLACES[place.downcase] or return nil
          return "#{place}.#{CAPPED}" if name.downcase == CAPPED

          name = ALIASES.fetch(name.upcase, name.upcase)
          name = "W" if name == "W1" && place == "air_handler"
          TERMINALS.fetch(place).include?(name) ? "#{place}.#{name}" : nil
        end
      end
    end
  end
end
