# frozen_string_literal: true

module Gorvant
  # What to see to before a reading that disagrees is believed to be a fault. Source: docs/sources.md, field-practice.
  module Advice
    class << self
      # A sentence, nil for none. judgement: an Agreement::Judgement of a reading between two points of a trace.
      def on(trace, first, second, judgement)
        return nil unless judgement.verdict == "disagrees" && heating?(trace)

        live = judgement.measured_klass == "about_24"
        point = ([first, second] - %w[wall.C air_handler.C outdoor.C]).then { |left| left.one? ? left.first : nil } or
          return nil
        if live && changeover?(point) && trace.rig.changeover == "O"
          return Catalogue.words("advice.changeover_live", letter: "O")
        end

        if !live && point.start_with?("outdoor.board.RVS", "outdoor.RVS") && trace.rig.changeover == "B"
          Catalogue.wording.fetch("advice.changeover_dead")
        end
      end

      private

      # A heating call in which nobody supposed a defrost.
      def heating?(trace) =
        Catalogue.calls.fetch(trace.condition.call).then { |call| call["mode"] == "heating" && !call["board"] } &&
          !trace.condition.board&.fetch("defrost", false)
      def changeover?(point) =
        %w[O OB].include?(point.split(".").last) || point == "outdoor.board.RVS" || point.start_with?("outdoor.RVS")
    end
  end
end
