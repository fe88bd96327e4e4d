# frozen_string_literal: true

require_relative "../../core/lib/gorvant"

# A rig's facts in, a table that a technician can read out: what runs in each call, key voltages, findings.
module Golden
  FOLDER = File.expand_path("../golden", __dir__)
  POINTS = %w[outdoor.R outdoor.Y outdoor.board.T1 outdoor.CC.1 outdoor.W2_out air_handler.W].freeze

  class << self
    def names = Dir[File.join(FOLDER, "*.yml")].map { |path| File.basename(path, ".yml") }.sort
    def kept(name) = File.read(File.join(FOLDER, "#{name}.out"))
    def accept(name) = File.write(File.join(FOLDER, "#{name}.out"), made(name))

    def made(name)
      given = YAML.safe_load_file(File.join(FOLDER, "#{name}.yml"))
      given.fetch("cases", [given]).map { |one| told(one) }.join("\n")
    end

    private

    def told(given)
      rig = Gorvant::Composer.compose(name: given.fetch("name"), facts: given.fetch("facts", {}))
      rows = Gorvant::Outputs.calls(rig).map { |call| row(rig, call, given.fetch("condition", {})) }
      table(
        [
          [
            "call",
            *POINTS.map { |point| point.sub("outdoor.", "").sub("air_handler", "ah") },
            "VA",
            "runs",
            "findings"
          ],
          *rows
        ],
        given.fetch("name")
      )
    rescue Gorvant::Error => e
      "#{given.fetch("name")}\n\nerror: #{e.message}\n"
    end

    def row(rig, call, condition)
      trace = Gorvant::Trace.new(rig, Gorvant::Condition.parse({ "call" => call }.merge(condition)))
      volts =
        POINTS.map do |point|
          trace.netlist.node?(point) ? format("%.1f", trace.reading(point, "outdoor.C").first.volts_ac) : "-"
        end
      [
        call,
        *volts,
        trace.supply[:drawn_va].round.to_s,
        (trace.loads.select(&:on).map(&:code) - %w[BOARD THERMOSTAT]).join(" "),
        trace.findings.map(&:code).join(" ")
      ]
    end

    def table(rows, title)
      widths = rows.transpose.map { |column| column.map(&:length).max }
      lines =
        rows.map do |row|
          row
            .each_with_index
            .map { |cell, i| i.between?(1, POINTS.size + 1) ? cell.rjust(widths[i]) : cell.ljust(widths[i]) }
            .join("  ")
            .rstrip
        end
      [title, "", *lines, ""].join("\n")
    end
  end
end
