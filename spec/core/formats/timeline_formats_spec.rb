# frozen_string_literal: true

require "csv"
require "open3"
require "tmpdir"

RSpec.describe "Timelines as files" do
  let(:timeline) do
    rig = Gorvant::Composer.compose(name: "=SUM(A1) $end", facts: { "board_family" => "osier" })
    moves = [{ "at_seconds" => 5, "what" => "call", "value" => "heat" }]
    Gorvant::Run.of(rig, Gorvant::Script.parse({ "start" => { "outdoor_degrees_f" => 30 }, "moves" => moves }, 7200))
  end

  it "is a value change dump that others read, with every change in it" do
    text = Gorvant::Formats::Vcd.dump(timeline)
    Dir.mktmpdir do |folder|
      File.write(File.join(folder, "run.vcd"), text)
      said, status = Open3.capture2e("vcd2fst", File.join(folder, "run.vcd"), File.join(folder, "run.fst"))
      expect([status.success?, File.size?(File.join(folder, "run.fst"))]).to match([true, be_positive]), said
    end
    mark = text[/^\$var wire 1 (\S+) COMP \$end/, 1]
    changes =
      text
        .split(/^#/)
        .drop(1)
        .filter_map do |part|
          if part.match?(/^[01]#{Regexp.escape(mark)}$/)
            [part.lines.first.to_i, part[/^([01])#{Regexp.escape(mark)}$/, 1]]
          end
        end
    expect(changes).to eq(timeline.signal("COMP").steps.map { |at, on| [(at * 1000).round, on ? "1" : "0"] })
  end

  it "is CSV that says what each event came of, and no formula" do
    rows = CSV.parse(Gorvant::Formats::TimelineCsv.dump(timeline), headers: true)
    expect(rows.size).to eq(timeline.events.size)
    compressor = rows.find { |row| row["says"] == "Compressor on" }
    expect(rows[compressor["because_of"].to_i - 1]["says"]).to eq("Contactor on")
    expect(rows.map(&:to_h).flat_map(&:values).compact).to all(satisfy { |cell| !cell.match?(/\A[=+@]/) })
  end

  it "reads temperatures from CSV as straight lines, BOM, semicolons and Windows line ends or not" do
    text = "\uFEFFminutes;outdoor;coil\r\n\r\n0;35,0;30\r\n30;20;\r\n60;20;12\r\n"
    moves = Gorvant::Formats::CourseCsv.parse(text)
    expect(moves).to include(
      { "at_seconds" => 0.0, "what" => "outdoor", "value" => 20.0, "over_seconds" => 1800.0 },
      { "at_seconds" => 0.0, "what" => "coil", "value" => 12.0, "over_seconds" => 3600.0 }
    )
    expect { Gorvant::Script.parse({ "moves" => moves }, 3600) }.not_to raise_error
  end

  {
    "outdoor\n3\n" => "line 1 has to name the columns seconds or minutes",
    "minutes,wind\n1,2\n" => "missing: outdoor or coil or room",
    "seconds,room\n0,70\n10,warm\n" => "line 3 has no number under 'room'",
    "seconds,room\n0,70\n1e999,70\n" => "line 3 has no number under 'seconds'",
    "seconds,room\n10,70\n5,71\n" => "line 3 goes back in time",
    "seconds,\"room\n" => "cannot be read as a table"
  }.each do |text, says|
    it "refuses #{text.inspect}" do
      expect { Gorvant::Formats::CourseCsv.parse(text) }.to raise_error(Gorvant::BadScript, /#{says}/)
    end
  end
end
