# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe "Sensors" do
  describe Gorvant::CoilSwitch do
    let(:switch) { described_class.new(closes_degrees_f: 28, opens_degrees_f: 68) }

    def seen(*pairs) = pairs.map { |degrees, state| described_class::Noted.new(degrees_f: degrees.to_f, state: state) }
    def codes(*pairs) = switch.check(seen(*pairs)).map(&:code)

    it "follows a history with its hysteresis, and calls a lone reading between undetermined" do
      expect(switch.states([75, 40, 29, 28, 45, 67, 68, 40, 27])).to eq(
        %w[open open open closed closed closed open open closed]
      )
      expect(switch.at(50)).to eq("undetermined")
      expect(described_class.marked(68, 40)).to eq(switch)
      expect([28, 68].map { |degrees| switch.with(inclusive: false).at(degrees) }).to eq(%w[undetermined undetermined])
    end

    {
      [[20, "closed"]] => %w[coil_switch_closed_right],
      [[20, "open"]] => %w[coil_switch_stuck_open],
      [[80, "closed"]] => %w[coil_switch_stuck_closed],
      [[50, "open"]] => %w[coil_switch_undetermined],
      [[80, "open"]] => %w[coil_switch_open_right],
      [[20, "closed"], [50, "open"]] => %w[coil_switch_closed_right coil_switch_history],
      [[20, "closed"], [50, "closed"], [70, "open"]] => %w[
        coil_switch_closed_right
        coil_switch_history_right
        coil_switch_open_right
        coil_switch_proved
      ]
    }.each { |pairs, expected| it("judges #{pairs.inspect}") { expect(codes(*pairs)).to eq(expected) } }

    it "says of a judgement by history that it takes the coil to have gone straight" do
      expect(switch.check(seen([20, "closed"], [50, "open"])).last.assumed).to include(
        "the coil went straight from 20 to 50 °F"
      )
    end
  end

  describe Gorvant::ThermistorTable do
    let(:table) { described_class.all.first }
    let(:other) { described_class.all.last }

    def point(degrees, ohms) = described_class::Point.new(degrees_f: degrees.to_f, ohms: ohms.to_f)
    # What a sensor that is off reads at a temperature.
    def off(table, degrees, by) = point(degrees, table.ohms_at(degrees + by))

    it "goes through its points, falls between them, and comes back" do
      described_class.all.each do |one|
        one.points.each { |degrees, ohms| expect(one.ohms_at(degrees)).to be_within(1e-6).of(ohms) }
        (-20..119).step(7) { |degrees| expect(one.degrees_at(one.ohms_at(degrees))).to be_within(1e-9).of(degrees) }
        expect((-20..120).step(3).map { |degrees| one.ohms_at(degrees) }.each_cons(2)).to all(
          satisfy { |cold, warm| cold > warm }
        )
      end
      expect([table.degrees_at(1e9), table.ohms_at(500)]).to eq([nil, nil])
    end

    it "fits beta and Steinhart–Hart with what is left over" do
      expect(table.beta_fit.coefficients["beta_kelvin"]).to be_within(10).of(3950)
      expect(table.steinhart_hart_fit.worst_degrees_f).to be <= table.beta_fit.worst_degrees_f + 0.05
      expect([table.beta_fit, table.steinhart_hart_fit].map(&:worst_degrees_f)).to all(be < 0.1)
      a, b, c = [1.1e-3, 2.3e-4, 8e-8]
      made =
        (500..30_000)
          .step(2_000)
          .map { |ohms| [(1.8 / (a + (b * Math.log(ohms)) + (c * (Math.log(ohms)**3)))) - 459.67, ohms.to_f] }
          .sort
      fit = described_class.new(id: "x", title: "x", points: made).steinhart_hart_fit
      expect(fit.coefficients.values).to match([be_within(1e-8).of(a), be_within(1e-9).of(b), be_within(1e-12).of(c)])
      expect(fit.worst_degrees_f).to be < 1e-3
    end

    it "names a sensor that reads 6 °F high, with its error in °F" do
      one = table.check([off(table, 40, 6)]).first
      expect([one.code, one.title.delete(Gorvant::Measures::MARK)]).to eq(["thermistor_drifted", "Reads 6.0 °F high"])
      two = table.check([off(table, 40, 6), off(table, 80, 6)], others: [other])
      expect([two.last.code, two.last.title.delete(Gorvant::Measures::MARK)]).to eq(
        ["thermistor_offset", "Reads 6.0 °F high at every point"]
      )
    end

    it "calls a sensor off alike only while its errors agree within the table's tolerance" do
      told = ->(first, second) do
        table.check([off(table, 40, first), off(table, 80, second)], others: [other]).last.code
      end
      tolerance = table.tolerance_degrees_f
      expect([told.call(6, 6 + (tolerance * 0.95)), told.call(6, 6 + (tolerance * 1.1))]).to eq(
        %w[thermistor_offset thermistor_no_table]
      )
      expect(table.check([off(table, 40, tolerance * 0.95), off(table, 80, tolerance * 0.95)]).map(&:code)).to eq(
        %w[thermistor_right thermistor_right]
      )
      low = table.check([off(table, 40, -6), off(table, 80, -6)]).last
      expect([low.code, low.title]).to match(["thermistor_offset", include("low")])
    end

    it "notices another maker's table over two points, and says which fits" do
      points = [off(other, 30, 0), off(other, 90, 0)]
      expect(table.check(points, others: [table, other]).last).to have_attributes(
        code: "thermistor_other_table",
        title: a_string_including("Tarn")
      )
      expect(table.check([off(table, 30, 0), off(table, 80, 20)], others: [other]).last.code).to eq(
        "thermistor_no_table"
      )
      expect(other.check(points).map(&:code)).to eq(%w[thermistor_right thermistor_right])
    end

    {
      0 => "thermistor_short",
      3 => "thermistor_short",
      Float::INFINITY => "thermistor_open",
      9e6 => "thermistor_open",
      1.1e5 * 2 => "thermistor_outside"
    }.each do |ohms, code|
      it("calls #{ohms} Ω #{code}") { expect(table.check([point(50, ohms)]).map(&:code)).to eq([code]) }
    end

    it "compares coil and air when long off" do
      expect([described_class.pair(41, 40), described_class.pair(50, 40)].map(&:code)).to eq(
        %w[pair_agrees pair_differs]
      )
    end

    it "reads a maker's table as a spreadsheet writes it, or refuses it row by row" do
      rows = table.points.map { |degrees, ohms| "#{((degrees - 32) / 1.8).round(6)};#{ohms / 1000.0}\r\n" }
      text = "\uFEFFdegrees_c;kilohms\r\n#{rows.join}"
      read = Gorvant::Formats::SensorTableCsv.read(text, id: "own", title: "Own")
      expect(read.refused).to eq([])
      expect(read.table.points.flatten.zip(table.points.flatten)).to all(
        satisfy { |got, wanted| (got - wanted).abs < 0.01 }
      )
      bad =
        Gorvant::Formats::SensorTableCsv.read(
          "degrees_f,ohms\n10,100\n20,200\n30,-5\n40,warm\n,3\n",
          id: "x",
          title: "X"
        )
      expect(bad.refused.map { |one| one[:line] }).to eq([4, 5, 6])
      expect(
        Gorvant::Formats::SensorTableCsv.read("degrees_f,ohms\n10,100\n20,200\n30,50\n", id: "x", title: "X").refused
      ).to match([include(line: 3, problem: include("have to fall"))])
      ["", "a,b\n1,2", "degrees_f,ohms\n1,2\n", "degrees_f,ohms\n10,3\n10,2\n20,1", "\xFF".b].each do |wrong|
        expect(Gorvant::Formats::SensorTableCsv.read(wrong, id: "x", title: "X")).to have_attributes(
          table: nil,
          refused: be_any
        )
      end
    end
  end
end
