# frozen_string_literal: true

module Gorvant
  # What a person calls the points of a rig.
  module Naming
    class << self
      # "outdoor Y", "air handler R"
      def terminal(rig, place, terminal) = "#{rig.place_title(place)} #{terminal.sub('_', ' ')}"
      # "yellow of cable A"
      def conductor(cable, conductor) = "#{conductor.id.tr('_', ' ')} of #{cable(cable)}"
      # "cable A"
      def cable(cable) = cable.id.tr("_", " ").sub(/ ([a-z])\z/) { " #{Regexp.last_match(1).upcase}" }
      def component(code) = Catalogue.components.fetch(code).fetch("title")
    end
  end
end
