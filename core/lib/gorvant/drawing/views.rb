# frozen_string_literal: true

module Gorvant
  # The drawings that a trace has, by name.
  module Views
    ALL = { "loops" => LoopView, "ladder" => Ladder, "connections" => ConnectionView, "focus" => FocusView }.freeze

    # options: what the view understands of { opened:, at_rest:, struck:, only: }. Raises KeyError for an unknown view.
    def self.scene(view, trace, options = {})
      ALL.fetch(view).scene(trace, **options)
    end
  end
end
