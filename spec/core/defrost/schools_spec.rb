# frozen_string_literal: true

require_relative "../../support/core"

# One history, every school: the table that a technician would work out by hand.
RSpec.describe Gorvant::Schools do
  def profile(**facts) =
    Gorvant::ClockProfile.of(
      Gorvant::Composer.compose(
        name: "Bench",
        facts: { defrost_interval_minutes: 60 }.merge(facts).transform_keys(&:to_s)
      )
    )
  def history(cold, fed: "0-25, 40-62, 75-", **more) =
    Gorvant::RunHistory.parse({ "minutes" => 170, "fed" => fed, "cold" => cold }.merge(more.transform_keys(&:to_s)))
  def courses(history, **facts) =
    described_class.new(history, profile(**facts)).courses.to_h { |course| [course.school, course] }
  def first(history, **facts) = courses(history, **facts).transform_values { |course| course.starts.first&.round(6) }

  { # coil switch closed => [free clock, run time (waits), time only, run time while cold, run time (restarts)]
    "always" => [60, 88, 88, 88, 88],
    "50-" => [60, 88, 88, 123, 88],
    "0-70, 80-" => [60, 88, 88, 140, 88],
    "never" => [nil, nil, 88, nil, nil],
    "95-" => [120, 95, 88, 155, 148]
  }.each do |cold, expected|
    it "starts first at #{expected.inspect} with the coil switch closed #{cold}" do
      expect(
        first(history(cold)).values_at("free", "run_time", "time_only", "run_time_cold", "run_time_restarts")
      ).to eq(expected)
    end
  end

  it "says of each school what a board of it is, and which is this board's own" do
    all = courses(history("always"), defrost_clock: "run_time", at_expiry: "wait")
    expect(all.select { |_id, course| course.own }.keys).to eq(%w[run_time])
    expect(all.transform_values(&:facts)).to include(
      "run_time" => {
        "defrost_clock" => "run_time",
        "at_expiry" => "wait"
      },
      "run_time_restarts" => {
        "defrost_clock" => "run_time",
        "at_expiry" => "restart"
      },
      "time_only" => {
        "defrost_clock" => "time_only"
      }
    )
    all.each_value do |course|
      same = profile(**course.facts.transform_keys(&:to_sym))
      expect(described_class.new(history("95-"), same).courses.find(&:own).starts).to eq(
        courses(history("95-")).fetch(course.school).starts
      )
    end
  end

  it "keeps the count over an off time; one short opening in it resets only run time while cold" do
    expect(first(history("0-30, 31-"))).to include("run_time" => 88, "run_time_cold" => 113)
    expect(first(history("always")).values_at("run_time", "run_time_cold")).to eq([88, 88])
  end

  it "makes a free clock miss its turn while the compressor is not fed" do
    one = courses(history("always", fed: "0-55, 70-"))["free"]
    expect(one.starts.first).to eq(120)
    expect(one.steps.map(&:says)).to include(
      a_string_including("60: full, misses its turn with the compressor not fed")
    )
  end

  it "freezes a T1 counter and not a Y counter while a safety is open, or a hold is on" do
    split = history("always", fed: "0-20, 35-", y: "0-")
    expect(first(split, clock_counts_on: "T1")["run_time"]).to eq(75)
    expect(first(split, clock_counts_on: "Y")["run_time"]).to eq(60)
  end

  it "answers every open question as its field says" do
    cooled = history("always", fed: "0-", cooling: "0-30")
    expect(first(cooled)["run_time"]).to eq(60)
    expect(first(cooled, clock_counts_in_cooling: false)["run_time"]).to eq(90)
    lost = history("always", fed: "0-30, 31-", unpowered: "30-31")
    expect(first(lost)["run_time"]).to eq(91)
    expect(first(lost, clock_survives_power: true)["run_time"]).to eq(61)
    long = Gorvant::RunHistory.parse({ "minutes" => 200, "fed" => "0-", "cold" => "always" })
    expect(courses(long)["run_time"].starts).to eq([60, 126, 192])
    expect(courses(long, clock_counts_in_defrost: true, clock_restarts_at: "start")["run_time"].starts).to eq(
      [60, 120, 180]
    )
    summer = history("always", fed: "0-", cooling: "0-")
    expect([false, true].map { |may| first(summer, defrost_in_cooling: may)["run_time"] }).to eq([nil, 60])
  end

  it "lets what was seen pick the schools that fit" do
    told = described_class.new(history("95-"), profile, seen: [95.4])
    expect(told.fitting).to eq(["run_time"])
    expect(told.courses.to_h { |course| [course.school, course.fits] }).to include(
      "free" => false,
      "time_only" => false
    )
    expect(described_class.new(history("50-"), profile, seen: [123]).fitting).to eq(["run_time_cold"])
    expect(described_class.new(history("always"), profile).courses.map(&:fits)).to all(be_nil)
    expect(told.differences.join(" ")).to include("time only: first at 88 min", "run time, waits: first at 95 min")
  end

  it "never starts more often in random histories than the interval allows, and the same twice" do
    (1..40).each do |seed|
      random = Random.new(seed)
      spans =
        lambda do
          points = Array.new(random.rand(0..9)) { random.rand(0..400) }.uniq.sort
          points.each_slice(2).map { |from, to| "#{from}-#{to}" }.join(", ")
        end
      made =
        Gorvant::RunHistory.parse(
          {
            "minutes" => 400,
            "fed" => spans.call,
            "cold" => spans.call,
            "cooling" => spans.call,
            "unpowered" => spans.call
          }
        )
      one, two = Array.new(2) { described_class.new(made, profile).courses }
      expect(one).to eq(two)
      one.each do |course|
        expect(course.starts.each_cons(2).map { |a, b| b - a }).to all(be >= 60)
        course.starts.each do |at|
          expect([seed, course.school, made.on?("fed", at), made.on?("cooling", at)]).to eq(
            [seed, course.school, true, false]
          )
        end
        course.starts.each { |at| expect(made.on?("cold", at)).to be(true) } unless course.school == "time_only"
      end
    end
  end

  it "reads a history as bars, as text and as a table, or says what is wrong" do
    table = "\uFEFFminutes;fed;cold\r\n0;1;0\r\n25;0;0\r\n40;1;1\r\n62;0;1\r\n75;1;1\r\n170;1;1\r\n"
    expect(Gorvant::Formats::RunHistoryCsv.read(table)).to eq(history("40-"))
    expect(Gorvant::RunHistory.parse(history("40-").to_json_hash)).to eq(history("40-"))
    bad = [
      { "minutes" => 0, "fed" => "0-25" },
      { "minutes" => 60, "fed" => "25-0" },
      { "minutes" => 60, "fed" => "0-30, 20-40" },
      { "minutes" => 60, "fed" => "soon" },
      { "minutes" => 60, "depth" => "1-2" },
      []
    ]
    bad.each { |given| expect { Gorvant::RunHistory.parse(given) }.to raise_error(Gorvant::BadHistory, /./) }
    [
      "",
      "a,b\n1,2",
      "minutes,fed\nx,1",
      "minutes,fed\n1,yes",
      "minutes,fed\n5,1\n3,0",
      "minutes,fed\n0,1\n1e9,0",
      "minutes,fed\n0,1\n1e999,0",
      "minutes,fed\n-3,1",
      "minutes,fed\n",
      "minutes,\"fed"
    ].each { |text| expect { Gorvant::Formats::RunHistoryCsv.read(text) }.to raise_error(Gorvant::BadHistory, /./) }
  end
end
