# frozen_string_literal: true

module Gorvant
  module Formats
    # A timeline's events as CSV: seconds, clock, what, value, says, because (the line's own number), rule. Cells that a
    # spreadsheet would take for a formula are defused.
    module TimelineCsv
      OF_RUN = { path: "events", type: "text/csv" }.freeze
      HEAD = %w[number seconds time signal value says because_of rule as_designed].freeze

      class << self
        def dump(timeline)
          rows =
            timeline.events.map do |event|
              [
                event.id + 1,
                format("%.3f", event.seconds),
                clock(event.seconds),
                event.signal,
                event.value,
                event.says,
                event.because && (event.because + 1),
                event.rule_says,
                event.as_designed
              ]
            end
          [HEAD, *rows].map { |row| row.map { |cell| cell(cell) }.join(",") }.join("\r\n") << "\r\n"
        end

        # "1:02:03"
        def clock(seconds)
          whole = seconds.floor
          [whole / 3600, (whole / 60) % 60, whole % 60].map { |part| part.to_s.rjust(2, "0") }
            .join(":")
            .delete_prefix("0")
        end

        private

        def cell(value)
          text = Spreadsheet.plain(value)
          text.match?(/[",\r\n]/) ? %("#{text.gsub('"', '""')}") : text
        end
      end
    end
  end
end
