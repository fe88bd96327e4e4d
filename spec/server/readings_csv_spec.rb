# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

RSpec.describe "Readings as a table", :server do
  include_context "with the API's contract"

  let(:visit) { "/api/visits/#{visit_id}" }
  let(:columns) do
    %i[function from_node to_node place value value_high about open isolated choice instrument condition verdict]
  end

  let(:good) { "2026-11-23T08:00:00Z,heat,volts_ac,outdoor.C,outdoor.Y,,24.1,,,,,,high_impedance,\n" }

  def table = fetch("#{visit}/readings-csv") && last_response.body.force_encoding("UTF-8")
  def take(text) = send_json(:post, "#{visit}/readings-csv", text: text) && answer
  def kept =
    db[:readings]
      .where(visit_id: visit_id)
      .order(:taken_at, :id)
      .select_map(columns)
      .map { |row| JSON.parse(JSON.generate(row)) }

  it "goes out and comes back the same, once, whatever a spreadsheet makes of it" do
    before = kept
    text = table
    db[:readings].where(visit_id: visit_id).delete
    spoilt = "\uFEFF#{text.gsub(",", ";").gsub("\n", "\r\n")}"
    expect(take(spoilt)).to include("rows" => 8, "kept" => 8, "refused" => [])
    expect(kept).to eq(before)
    expect(take(text)).to include("kept" => 0, "refused" => [])
    expect(kept.size).to eq(8)
  end

  {
    "a call unheard of" => [
      "2026-11-23T09:00:00Z,heat_9,volts_ac,outdoor.C,outdoor.Y,,24,,,,,,high_impedance,",
      /call has to be one of/
    ],
    "a point that is not there" => [
      "2026-11-23T09:00:00Z,heat,volts_ac,outdoor.C,outdoor.Q,,24,,,,,,high_impedance,",
      /to_node is no point of this rig/
    ],
    "no number" => ["2026-11-23T09:00:00Z,heat,volts_ac,outdoor.C,outdoor.Y,,lots,,,,,,high_impedance,", /value/],
    "no time" => ["noon,heat,volts_ac,outdoor.C,outdoor.Y,,24,,,,,,high_impedance,", /taken_at has to be a time/],
    "a choice that is none" => ["2026-11-23T09:00:00Z,heat,seen,,,ice,,,,,,hail,person,", /choice/]
  }.each do |what, (row, says)|
    it "keeps nothing of a table with #{what}, and names the line" do
      text = "#{table.lines.first(3).join}#{good}#{row}\n"
      before = kept
      expect(take(text)["refused"]).to match([include("line" => 5, "problem" => says)])
      expect([answer["kept"], kept]).to eq([0, before])
    end
  end

  it "says what a table lacks, defuses what a spreadsheet would run, and takes it back as it was" do
    expect(take("call,function\nheat,volts_ac\n")["refused"].first["problem"]).to include("taken_at")
    db[:readings].where(visit_id: visit_id, function: "looked_up").update(note: "=HYPERLINK(1)")
    expect(table).to include("'=HYPERLINK(1)")
    text = table
    db[:readings].where(visit_id: visit_id).delete
    take(text)
    expect(db[:readings].where(visit_id: visit_id, note: "=HYPERLINK(1)").count).to be >= 1
  end
end
