# frozen_string_literal: true

module Gorvant
  # What a person calls the points of a rig.
  module Naming
    class << self
      # What stands at a terminal: "Y", "Y1" where there is a Y2, "O/B", "W2 out".
      def letter(rig, terminal)
        return "Y1" if terminal == "Y" && rig[:compressor_stages] == 2

        { "OB" => "O/B" }.fetch(terminal, terminal.sub("_", " "))
      end

      # "outdoor Y", "air handler R", with the maker's own name where it differs.
      def terminal(rig, place, terminal)
        printed = rig.terminal_names["#{place}.#{terminal}"]
        "#{rig.place_title(place)} #{letter(rig, terminal)}#{" (marked #{printed})" if printed}"
      end

      # "the wall", "the outdoor unit": a place in a sentence.
      def place(rig, place) = place == "outdoor" ? "outdoor unit" : rig.place_title(place)

      # "yellow of cable A"
      def conductor(cable, conductor) = "#{conductor.id.tr("_", " ")} of #{cable(cable)}"
      # "yellow of cable A" of ids alone, for a conductor that no rig knows.
      def wire(conductor_id, cable_id) = "#{conductor_id.tr("_", " ")} of #{cable_name(cable_id)}"
      # "cable A"
      def cable(cable) = cable_name(cable.id)
      def cable_name(id) = id.tr("_", " ").sub(/ ([a-z])\z/) { " #{Regexp.last_match(1).upcase}" }
      # "yellow" of "outdoor.cable_a.yellow" where the other is of that cable at that place, and has both said of it.
      def beside(node, other)
        *whence, conductor = node.split(".")
        conductor.tr("_", " ") if whence.size > 1 && whence == other.split(".")[0...-1]
      end

      # "YE" for yellow; the first letters of a color that no standard knows.
      def color_code(color) = Catalogue.colors.dig(color.downcase.tr(" ", "_"), "code") || color[0, 3].upcase

      # "YE", or "YE→WH" where it goes on in another color past a splice.
      def sheath_codes(conductor, backwards: false)
        all = [conductor.color, *conductor.splices.map(&:color)].map { |color| color_code(color) }
        (backwards ? all.reverse : all).chunk_while { |a, b| a == b }.map(&:first).join("→")
      end

      # The maker's own code for a component, where it differs from ours.
      def code(rig, code) = rig.maker_codes.fetch(code, code)

      # "outdoor fan motor, tab R"
      def tab(code, tab) = "#{component(code)}, tab #{tab}"
      def component(code) = Catalogue.components.fetch(code).fetch("title")
    end
  end
end
