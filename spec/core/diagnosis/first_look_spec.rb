# frozen_string_literal: true

require_relative "../../support/finding"
require_relative "../../../bench/rigs"

# What is there of a unit's signatures before the rest: the same as in the end, as far as it goes, and never sure.
RSpec.describe Gorvant::Diagnosis::FirstLook do
  let(:unknown) { Gorvant::Diagnosis::Scale::UNKNOWN }

  def situation(rig = BenchRigs::SINGLE, degrees_f = 34.0) =
    Gorvant::Diagnosis::Situation.new(rig, outdoor_degrees_f: degrees_f)

  def look(symptoms, at = situation) = described_class.of(at, symptoms)

  {
    "no complaint, in winter" => [[], 34.0, ["heat"], false],
    "no complaint, in summer" => [[], 95.0, ["cool"], false],
    "a call of its own" => [%w[no_auxiliary_heat], 34.0, ["heat_aux"], false],
    "two complaints" => [%w[no_heat thermostat_blank], 34.0, %w[heat off], false],
    "calls that the weather forbids left out" => [%w[contactor_silent], 34.0, ["heat"], false],
    "the season's, where the weather forbids the complaint's" => [%w[no_heat], 95.0, ["cool"], false],
    "a call that this unit does not have left out" => [
      %w[second_stage_never emergency_heat_dead],
      34.0,
      ["emergency"],
      false
    ],
    "the season's, where this unit has none of its calls" => [%w[second_stage_never], 34.0, ["heat"], false],
    "both calls where the weather lets both" => [%w[contactor_silent], 68.0, %w[heat cool], false],
    "any call: the season's" => [%w[contactor_chatters], 95.0, ["cool"], false],
    "frost, with what frosts and thaws" => [%w[iced_outdoor_unit], 34.0, %w[heat heat_cold defrost], true]
  }.each do |what, (symptoms, degrees_f, states, frost)|
    it "is of the complaint's calls: #{what}" do
      found = look(symptoms, situation(BenchRigs::SINGLE, degrees_f))
      expect([found.states, found.frost]).to eq([states, frost])
    end
  end

  it "is not there for a fuse that blows: nothing is offered before all calls are known" do
    expect([look(%w[fuse_blows]), look(%w[no_heat fuse_blows])]).to eq([nil, nil])
  end

  BenchRigs::ALL.each do |name, rig|
    %w[no_heat iced_outdoor_unit].each do |symptom|
      it "shows what the whole will show, and says of nothing else that it knew it: #{symptom}, #{name}" do
        whole = Finding.library(name, rig, 34.0)
        maker = Gorvant::Diagnosis::Maker.new(whole.situation)
        first = look([symptom], whole.situation)
        here = maker.tests.each_index.select { |i| first.at?(maker.tests[i]) }
        there = maker.tests.each_index.to_a - here
        expect([here.size, there.size].min).to be > 50
        maker
          .hypotheses
          .each_slice(7)
          .map(&:first)
          .each do |one|
            early = maker.shows(one, first) or next
            all = maker.shows(one)
            expect([one.id, early["codes"].values_at(*here)]).to eq([one.id, all["codes"].values_at(*here)])
            expect(early["codes"].values_at(*there).uniq).to eq([unknown])
            expect(all["marks"].slice(*early["marks"].keys)).to eq(early["marks"]) if first.frost
            expect(early["marks"].keys).to eq(all["marks"].keys & first.states)
          end
      end
    end
  end

  it "is of the likeliest, what comes and goes with what stays; all others weigh with none of these" do
    all = Gorvant::Diagnosis::Hypotheses.new(situation).all
    among = look(%w[no_heat]).among(all)
    ids = among.map(&:id)
    expect(ids).to include("nothing", *among.filter_map(&:steady))
    expect([ids, ids.last]).to eq([all.map(&:id) & ids, "none"])
    shares = [all, among].map { |list| list.reject(&:steady).sum(&:share) }
    expect(shares.first).to be_within(1e-9).of(
      shares.last - all.select { |one| one.steady && !ids.include?(one.id) }.sum(&:share)
    )
    steady = ->(list) { list[0...-1].reject(&:steady) }
    left = steady.call(all) - steady.call(among)
    expect(left.map(&:share).max).to be <=
      (steady.call(among) - [among.find { |one| one.id == "nothing" }]).map(&:share).min
    expect(steady.call(among).sum(&:share) / steady.call(all).sum(&:share)).to be_between(0.8, 0.815)
  end

  describe "an answer of it" do
    let(:early) do
      whole = Finding.library("single stage", BenchRigs::SINGLE, 34.0)
      Finding.new(Gorvant::Diagnosis::Library.of(whole.situation, look(%w[no_heat], whole.situation)))
    end
    let(:whole) { Finding.new(Finding.library("single stage", BenchRigs::SINGLE, 34.0)) }
    # A yellow conductor that is open between its two ends.
    let(:sure) do
      [
        ["heat", "volts_ac", %w[wall.C wall.Y], 24.2],
        ["heat", "volts_ac", %w[air_handler.C air_handler.Y], 0.1],
        ["heat", "volts_ac", %w[wall.C wall.OB], 0.0],
        %w[heat seen wires_wall as_drawn],
        %w[heat seen wires_air_handler as_drawn],
        ["off", "ohms", %w[wall.cable_a.yellow air_handler.cable_a.yellow], nil, { open: true, isolated: true }]
      ]
    end

    def words(find, told) = Gorvant::Desks::Find::Words.new(find.finder(%w[no_heat], *told)).to_h

    it "names itself, offers nothing that it does not know, and is sure of nothing that the whole is sure of" do
      expect(whole.finder(%w[no_heat], *sure)).to be_sure
      first = words(early, sure)
      expect(first[:first_look]).to match(/\AFirst look: the likeliest \d+ of \d+ causes, as they show in Heat\./)
      expect([first[:looked_at][:tests], words(whole, sure)[:first_look]]).to match([be < 150, nil])
      expect(first[:outcome][:key]).to eq("open")
      finder = early.finder(%w[no_heat], *sure)
      expect([finder.sure?, finder.not_now?, finder.found?, finder.unexplained?]).to eq([false] * 4)
      expect(finder.next_tests.all.map(&:test)).to all(satisfy { |test| early.library.look.at?(test) })
    end

    it "leaves what it does not know as likely as before: a reading of another call weighs nothing yet" do
      cooling = ["cool", "volts_ac", %w[wall.C wall.Y], 24.2]
      plain, told = [[], [cooling]].map { |list| early.finder(%w[no_heat], *list).beliefs.all }
      expect(told.zip(plain).map { |now, before| (now - before).abs }.max).to be < 1e-12
      before, after = [[], [cooling]].map { |list| whole.finder(%w[no_heat], *list).beliefs.all }
      expect(after.zip(before).map { |now, then_| (now - then_).abs }.max).to be > 1e-4
    end

    it "spares a fuse: what may burn one in a call that is still to come counts as if it did" do
      ids = ->(find, &those) do
        find.library.hypotheses.each_index.select(&those).map { |i| find.library.hypotheses[i].id }
      end
      blowing = [whole, early].map { |find| ids.call(find) { |i| find.library.blows?(i) } }
      known = ids.call(early) { true }
      expect([(blowing.first & known).size, (blowing.first & known) - blowing.last]).to match([be > 2, []])
      expect(early.finder(%w[no_heat])).not_to be_fuse_care
      dead =
        %w[wall air_handler outdoor].map { |place| ["heat", "volts_ac", ["#{place}.C", "#{place}.R"], 0.1] } +
          [%w[heat seen display blank], ["heat", "volts_ac", %w[wall.C wall.Y], 0.0], %w[heat seen contactor out]]
      told = (1..3).flat_map { |count| dead.combination(count).to_a }
      told.select! { |list| whole.finder(%w[no_heat], *list).fuse_care? }
      expect(told.size).to be > 20
      expect(told.reject { |list| early.finder(%w[no_heat], *list).fuse_care? }).to eq([])
      runs = [%w[heat seen contactor in], %w[heat seen compressor runs], %w[heat seen blower stands]]
      [[dead.last], [["heat", "volts_ac", %w[wall.C wall.R], 24.3]], runs].each do |list|
        expect(early.finder(%w[no_heat], *list)).not_to be_fuse_care
      end
    end
  end
end
