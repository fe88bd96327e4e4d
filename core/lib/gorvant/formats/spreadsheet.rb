# frozen_string_literal: true

module Gorvant
  module Formats
    # Cells for a spreadsheet: what it would take for a formula is defused.
    module Spreadsheet
      def self.plain(value)
        text = value.to_s
        text.match?(/\A[=+\-@\t\r]/) && !text.match?(/\A-?\d+(\.\d+)?\z/) ? "'#{text}" : text
      end
    end
  end
end
