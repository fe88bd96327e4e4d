# frozen_string_literal: true

module Gorvant
  # What has to be seen to before a hand goes in, on a rig.
  module SafetyPoints
    class << self
      # Keys of Catalogue.safety that this rig asks for.
      def of(rig) =
        Catalogue
          .safety
          .select { |_key, about| about.fetch("needs", {}).all? { |fact, value| rig[fact] == value } }
          .keys

      # How a visit's first page stands: told what the customer says, and every point of safety seen to.
      def standing(rig, told:, seen:)
        open = of(rig) - seen
        looked = [*("what the customer says" if told), *(seen & of(rig)).map { |key| says(key) }]
        taken = [*("what the customer says" unless told), *open.map { |key| says(key) }]
        Standing.of("intake", wrong: false, looked_at: looked, taken: taken, count: open.size)
      end

      private

      def says(key) = Catalogue.safety.fetch(key).fetch("says").then { |words| words[0].downcase + words[1..] }
    end
  end
end
