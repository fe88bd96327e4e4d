# frozen_string_literal: true

module Gorvant
  # What a section of a report is made of, as JSON has it, so that page and PDF draw the same. What a person wrote
  # stands under "own", and is left as it is written.
  module Blocks
    SIGNS = { "agrees" => "=", "disagrees" => "≠", "look" => "~" }.freeze

    class << self
      # How a verdict is shown, in one sign.
      def sign(verdict) = SIGNS.fetch(verdict, "·")
      def text(says) = { "kind" => "text", "says" => says }
      def own(written) = { "kind" => "text", "own" => written.to_s.strip }
      # For what nobody may overlook.
      def large(says, written = nil) = { "kind" => "large", "says" => says, "own" => written }.compact
      def list(lines) = { "kind" => "list", "lines" => lines }
      # rows: as many cells as head has, each words, a cell of one's own words, or a time.
      def table(head, rows) = { "kind" => "table", "head" => head, "rows" => rows }
      # pairs: [[title, words]].
      def facts(pairs) = { "kind" => "facts", "pairs" => pairs }
      # rows: [{ "title", "expected", "seen" }] seconds on one axis of `seconds`; seen nil where it is only expected.
      def tape(rows, seconds) = { "kind" => "tape", "rows" => rows, "seconds" => seconds }
      # rows: [{ "title", "from", "to", "says" }], to nil for as long as it lasts.
      def stages(rows, seconds) = { "kind" => "stages", "rows" => rows, "seconds" => seconds }
      def drawing(title, svg) = { "kind" => "drawing", "title" => title, "svg" => svg }
      def photo(id, title, note) = { "kind" => "photo", "id" => id, "title" => title, "own" => note }
      # A cell that is a time, ISO 8601; told by the reader's own clock.
      def at(time) = time ? { "at" => time } : ""
      def cell(written) = { "own" => written.to_s.strip }
    end
  end
end
