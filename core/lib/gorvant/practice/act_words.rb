# frozen_string_literal: true

module Gorvant
  module Practice
    # What was done, in words: "V AC outdoor C – outdoor Y".
    module ActWords
      class << self
        def title(act, netlist)
          told = Act::ASKS.fetch(act.kind) - Act::MAY_BE_LEFT_OUT
          about = act.given.values_at(*told).map { |value| label(act, value, netlist) }
          words = Catalogue.wording.fetch("practice.acts.#{act.kind}")
          [words, about.reject(&:empty?).join(" – ")].reject(&:empty?).join(" ")
        end

        private

        def label(act, value, netlist)
          return format("%g", value) if value.is_a?(Numeric)
          return netlist.label(value) if netlist.node?(value)
          return netlist[value].label if netlist.branch?(value)
          return Catalogue.calls.fetch(value).fetch("title") if act.kind == "call"
          return Catalogue.facts.fetch(value).fetch("title") if act.kind == "settings"

          place = Observation.functions.dig("seen", "places", value) || value
          place.is_a?(Hash) ? place.fetch("title") : place.tr("_", " ")
        end
      end
    end
  end
end
