# frozen_string_literal: true

require_relative "../../support/core"

# What a board's setting costs over a year.
RSpec.describe Gorvant::Desks::Defrost::YearPlan do
  let(:profile) { Gorvant::ClockProfile.of(rig) }

  # A few kinds of weather are enough to see which way it goes.
  def climate(*bins)
    made =
      bins.map do |degrees, humidity, hours|
        Gorvant::Climate::Bin.new(month: 1, degrees_f: degrees, humidity_percent: humidity, hours: hours)
      end
    Gorvant::Climate.new(title: "made up", bins: made, wind_mph: 5.0)
  end

  def plan(minutes, climate)
    plan = described_class.new(profile.with(interval_seconds: minutes * 60.0), climate)
    plan.answer(plan.days.map { |day| plan.day(day) })
  end

  def year(answer, id) = answer["settings"].find { |one| one["id"] == id }["year"]

  it "counts most defrosts of a 30 min board in the dry cold as without ice, says what they cost, and takes a longer one" do
    answer = plan(30, climate([2.5, 55.0, 300.0], [12.5, 55.0, 300.0]))
    own = year(answer, "30")
    expect(own["dry"]).to be > own["defrosts"] / 2
    expect(answer["says"]).to include(/On 30 min most of its defrosts.*cost about \d+ kWh/)
    expect(answer["recommended"].to_i).to be > 30
    expect(year(answer, "demand")["defrosts"]).to be < own["defrosts"] / 2
  end

  it "takes a shorter one in the wet about freezing, for the frost that grows, and none that costs the fins more" do
    answer = plan(120, climate([32.5, 95.0, 400.0], [37.5, 95.0, 300.0]))
    expect(answer["recommended"].to_i).to be_between(30, 90)
    worst = answer["settings"].reject { |one| one["id"] == "demand" }.map { |one| one["year"]["worst_frost_kg"] }
    expect(worst).to eq(worst.sort)
    expect(answer["says"].first).to match(/more than the fins bear|kWh a year less/)
  end

  it "keeps the maker's setting where another would save little, and has nothing to plan where it never frosts" do
    settled = plan(90, climate([32.5, 90.0, 300.0]))
    expect(settled["settings"].find { |one| one["makers"] }["id"]).to eq("90")
    expect(settled["recommended"]).to eq("90") if settled["says"].first.start_with?("Stay")
    mild = plan(60, climate([57.5, 80.0, 700.0]))
    expect([mild["recommended"], year(mild, "60")["defrosts"]]).to eq(["60", 0])
  end

  it "names the heat of what backs it up: more of gas than of strips, none where there is none" do
    wet = climate([32.5, 90.0, 300.0])
    strips, gas, none =
      %w[strips gas none].map do |backup|
        plan = described_class.new(profile, wet, backup: backup)
        plan.answer(plan.days.map { |day| plan.day(day) })
      end
    heat = [strips, gas, none].map { |answer| year(answer, "60")["backup_kwh"] }
    expect([heat[0] > 5, heat[1] > heat[0], heat[2]]).to eq([true, true, 0])
    expect([gas, strips].map { |answer| answer["assumed"].grep(/gas heat/).size }).to eq([1, 0])
    cool = [strips, none].map { |answer| year(answer, "60")["cool_air_minutes"] }
    expect(cool[1]).to be > cool[0]
  end

  it "says whether a demand board has fewer than every interval that lets no more frost grow" do
    answer = plan(60, climate([22.5, 75.0, 300.0], [32.5, 85.0, 300.0]))
    demand = year(answer, "demand")
    alike = answer["settings"].reject { |one| one["id"] == "demand" }.map { |one| one["year"] }
    alike = alike.select { |one| one["worst_frost_kg"] <= demand["worst_frost_kg"] }
    says = answer["says"].grep(/demand board/).first
    expect(says).to include(alike.all? { |one| demand["defrosts"] < one["defrosts"] } ? "fewer than any" : "not fewer")
  end

  it "adds months up to the year, hours up to the bins, and reads a site's own hours" do
    hours = 48.times.map { |i| "2026-01-#{format("%02d", 1 + (i / 24))} #{i % 24}:00,#{20 + (i % 24)},80" }
    own = Gorvant::Formats::ClimateCsv.climate("text" => "Time,Outdoor °F,Humidity %\n#{hours.join("\n")}\n")
    expect([own.hours, own.bins.map(&:month).uniq]).to eq([48.0, [1]])
    expect(Gorvant::Climate.shipped("lake_village").hours).to be_within(1).of(8760)
    expect {
      Gorvant::Formats::ClimateCsv.climate(
        "text" => "Time,Outdoor °F,Humidity %\n2026-01-01 0:00,20,180\n2026-13-01 1:00,2,80\n"
      )
    }.to raise_error(Gorvant::Formats::BadFieldLog) { |error|
      expect(error.problems.map { |one| one["field"] }).to eq(%w[/climate/lines/2 /climate/lines/3])
    }
  end
end
