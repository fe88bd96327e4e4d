# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # Jumpers, bridges and plugs of a test: how each stands by the marks and by what a person said, and what is open
    # before it is closed.
    module Tally
      # What has to be as it was before anybody leaves.
      AT_REST = { "coil_jumper" => "off", "bridge" => "off", "sensor_plug" => "on" }.freeze
      PUT_ON = { "coil_jumper" => %w[jumper_on jumper_off], "bridge" => %w[bridge_on bridge_off] }.freeze

      # How each item of this test's tally stands, by the marks and by what a person said: { item => "on", "off" or nil
      # for nobody said }.
      def tally = items.to_h { |item| [item, stands(item)] }

      # What the marks leave open, and has to be said before the test is closed: { item => question }.
      def questions =
        tally
          .select { |_item, state| state.nil? }
          .to_h { |item, _state| [item, Catalogue.words("defrost.ask_#{item}")] }

      # Items of the tally that are not as they have to be left: words.
      def left_behind
        tally
          .reject { |item, state| state.nil? || AT_REST.fetch(item) == state }
          .map { |item, state| Catalogue.words("defrost.left_#{item}", state: state) }
      end

      # Raises BadHistory while anything is left behind, or nobody said.
      def refuse_close!
        left = left_behind + questions.keys.map { |item| Catalogue.words("defrost.unsaid_#{item}") }
        if record.closed && left.any?
          raise BadHistory.new(
                  [
                    {
                      "field" => "/test/tally",
                      "problem" => Catalogue.words("defrost.not_closed", left: left.join("; "))
                    }
                  ]
                )
        end
      end

      private

      # The bridge of every test; plug and jumper where the board is gone into by them.
      def items
        unplugs = rig[:sensing] == "coil_switch" && profile.forced_entry == "speed_up"
        used = {
          "bridge" => marks.key?("bridge_on"),
          "coil_jumper" => marks.key?("jumper_on") || (unplugs && marks.key?("bridge_on")),
          "sensor_plug" => marks.key?("jumper_on") || (unplugs && marks.key?("bridge_on"))
        }
        AT_REST.keys.select { |item| used.fetch(item) || record.tally.key?(item) }
      end

      # What a person said of it, else the last mark.
      def stands(item)
        return record.tally[item] if record.tally.key?(item)

        on, off = PUT_ON[item]
        return "off" if off && marks[off]

        on && marks[on] ? "on" : nil
      end
    end
  end
end
