# frozen_string_literal: true

require_relative "../../../support/core"

# What a record is and is not, in sentences.
RSpec.describe Gorvant::Desks::Defrost::RecordTold do
  let(:told) do
    {
      "repeated" => 0,
      "back_seconds" => 0.0,
      "gaps" => [],
      "gap_seconds" => 0.0,
      "strange" => {
      },
      "empty" => {
      },
      "stuck" => [],
      "changes" => []
    }
  end
  let(:on_off) { { "fan" => Gorvant::OnOff.new(over: 0.55, low: 0.0, high: 1.1, always: false) } }

  def lines(told, on_off: {}, story: nil) = described_class.new(told, on_off, story: story).lines
  def says(told, **more) = lines(told, **more).map { |line| line["says"] }

  it "says nothing of a record in which nothing is amiss" do
    expect(lines(told)).to eq([])
  end

  it "tells each thing that is, with its number, as a note" do
    amiss = {
      "gaps" => [[0, 7200]],
      "gap_seconds" => 7200.0,
      "repeated" => 2,
      "repeated_line" => 41,
      "strange" => {
        "coil" => 3
      },
      "empty" => {
        "fan" => 5
      },
      "stuck" => [["outdoor", 0, 36_000]],
      "changes" => [[1.0, -1.0], [2.0, 1.0]]
    }
    all = lines(told.merge(amiss), on_off: on_off)
    expect(all.map { |line| line["kind"] }.uniq).to eq(["note"])
    expect(all.map { |line| line["says"] }).to match(
      [
        /1 gaps, 2 h/,
        /2 rows.*line 41/,
        /Coil: 3 readings/,
        /Outdoor fan: 5 cells/,
        /Outdoor air read the very same for 10 h/,
        /put back by 1 h.*no hour counts twice/,
        /put on by 1 h.*no hour is lost/,
        /Outdoor fan counts as on over 0.6 A/
      ]
    )
  end

  it "doubts an hour that comes twice, once it is more than a few rows" do
    twice = { "repeated" => 60, "back_seconds" => 3600.0, "repeated_line" => 9 }
    expect(lines(told.merge(twice)).first).to include("kind" => "doubt", "says" => /60 rows come twice by up to 1 h/)
    few = twice.merge("back_seconds" => 90.0)
    expect(lines(told.merge(few)).map { |line| line["kind"] }).to eq(["note"])
  end

  it "says of a column that never changed whether it was on or off" do
    always = ->(on) { { "w2" => Gorvant::OnOff.new(over: nil, low: 0.0, high: 0.0, always: on) } }
    expect(says(told, on_off: always[true])).to eq(["W2 was on all the time."])
    expect(says(told, on_off: always[false])).to eq(["W2 was off all the time."])
  end
end
