# frozen_string_literal: true

module Gorvant
  # The drawings that a trace has, by name.
  module Views
    ALL = { "loops" => LoopView, "ladder" => Ladder, "connections" => ConnectionView, "focus" => FocusView }.freeze

    class << self
      # options: what the view understands of { opened:, at_rest:, panel:, only:, load:, taken: }. panel: what is not
      # fitted is drawn too, struck out. Raises KeyError for an unknown view.
      def scene(view, trace, options = {})
        return panel_ladder(trace, options) if view == "ladder" && options[:panel]

        ALL.fetch(view).scene(trace, **options.slice(*OPTIONS.fetch(view)))
      end

      # A line under a drawing's title: the call, what was supposed, what was broken.
      def state_words(trace)
        supposed = trace.condition.switches.map { |code, position| "#{code} #{position}" } + trace.fault_titles
        supposed +=
          trace.condition.supplies.reject { |_id, on| on }.keys.map { |id| "#{trace.rig.place_title(id)} supply off" }
        call = Catalogue.calls.fetch(trace.condition.call)
        ["#{call.fetch("title")}: #{call.fetch("says")}", *("supposed: #{supposed.join(", ")}" if supposed.any?)].join(
          " · "
        )
      end

      private

      def panel_ladder(trace, options)
        absent = Gorvant::Options.on_panels.reject { |fact, _codes| trace.rig[fact] }
        facts = absent.keys.to_h { |fact| [fact, Fact.new(value: true, provenance: Provenance.new(source: "diagram"))] }
        whole = Trace.new(trace.rig.with(facts: trace.rig.facts.merge(facts)), trace.condition)
        Ladder.scene(whole, struck: absent.values.flatten, **options.slice(:at_rest, :only))
      end
    end

    OPTIONS = {
      "loops" => %i[opened],
      "ladder" => %i[at_rest only],
      "connections" => [],
      "focus" => %i[load taken]
    }.freeze
  end
end
