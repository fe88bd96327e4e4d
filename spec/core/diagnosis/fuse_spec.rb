# frozen_string_literal: true

require_relative "../../support/finding_trial"

# A fuse that blows: what opens it is found with a lamp in its place, and without a second fuse burnt.
RSpec.describe "A fuse that blows" do
  let(:find) { Finding.new(Finding.library("one stage", Gorvant::Composer.compose(name: "One", facts: {}), 34.0)) }
  let(:library) { find.library }
  let(:clues) { Gorvant::Diagnosis::Clues.new(library) }
  let(:lamps) { Gorvant::Diagnosis.numbers.fetch("fuse_lamp").keys }

  def finder(told, symptoms: %w[fuse_blows]) =
    Gorvant::Diagnosis::Finder.new(library, symptoms: symptoms, evidence: told)

  # Answers as a unit with this truth would, until nothing is asked any more: [Finder, Test]
  def played(truth)
    told = []
    asked = []
    now = finder(told)
    until now.settled? || asked.size == 16 || (test = now.next_test&.test).nil?
      asked << test
      column = library.column(test)
      row = column.scale.by_answer(column.scale.row(column.codes[library.index(truth)]))
      told << clues.answered(test, column.scale.answers[row.index(row.max)])
      now = finder(told)
    end
    [now, asked]
  end

  def said(finder) = Gorvant::Desks::Find::Words.new(finder).to_h
  def test(id) = library.test(id)
  def code(truth, id) = library.column(test(id)).codes[library.index(truth)]

  {
    "coil_shorted:CC" => 8,
    "coil_shorted:SEQ" => 8,
    "short:outdoor.cable_b.white~outdoor.C" => 8,
    "short:air_handler.cable_a.yellow~air_handler.C" => 10,
    "short:outdoor.cable_b.red~outdoor.C" => 8,
    "landed:cable_b.white@outdoor:outdoor.C" => 8,
    "short:wall.R~wall.C" => 8
  }.each do |truth, most|
    it "is found in at most #{most} looks, none of which can burn a fuse: #{truth}" do
      finder, asked = played(truth)
      expect(finder).to be_sure
      top = finder.top.indexes.first
      alike = library.remedies[top] == library.remedies[library.index(truth)]
      seen = finder.seen_at_wires?(library.index(truth))
      expect(seen || alike || library.class_of[top] == library.class_of[library.index(truth)]).to be(true)
      expect(asked.size).to be <= most
      expect(asked.reject { |one| one.state.nil? || lamps.include?(one.place) }).to eq([])
      expect(said(finder)[:care][:steps].size).to be > 4
    end
  end

  it "asks for the lamp before anything else, and for no ice: the fuse goes before any can grow" do
    ways =
      %w[cheapest fewest].map { |mode| Gorvant::Diagnosis::Finder.new(library, symptoms: %w[fuse_blows], mode: mode) }
    expect(ways.map { |way| way.next_test.test.place } - lamps).to eq([])
    truths = %w[coil_shorted:RVS coil_shorted:CC coil_shorted:SEQ short:wall.R~wall.C]
    expect(truths.map { |truth| code(truth, "seen|ice|person") }.uniq).to eq(["usual_frost"])
    expect(code("open:BOARD", "seen|ice|person")).to eq("solid_block")
  end

  describe "by a conductor bared against the chassis, where C is bonded to it" do
    let(:library) do
      bonded = Gorvant::Composer.compose(name: "Bonded", facts: { "c_bonded" => "yes" })
      Finding.library("bonded", bonded, 34.0)
    end
    let(:truth) { "to_ground:air_handler.cable_b.yellow" }
    let(:bare) { %w[air_handler.chassis air_handler.cable_b.yellow] }

    it "is found without a fuse burnt, and proved by ohms to the chassis, its two ends off" do
      now, asked = played(truth)
      expect([now.sure?, asked.reject { |one| one.state.nil? || lamps.include?(one.place) }]).to eq([true, []])
      expect(library.remedies[now.top.indexes.first]).to eq(library.remedies[library.index(truth)])
      expect([now.top.proved, now.next_test]).to eq([true, nil])
      joined = Finding.new(library).finder(%w[fuse_blows], ["off", "ohms", bare, 0.2, { isolated: true }])
      expect([joined.top.proved, library.hypotheses[joined.top.indexes.first].id]).to eq([true, truth])
    end

    it "is cleared by none other than its own: C is bare metal here, the others are open to it" do
      own = library.tests.select { |one| one.from_node == bare.first }
      expect(own.size).to eq(library.situation.rig.cables.sum { |cable| cable.conductors.count { |wire| !wire.spare } })
      shown = own.to_h { |one| [one.to_node, code(truth, one.id)] }
      expect(shown.select { |_node, is| is == "joined" }.keys).to eq([bare.last])
      expect(own.map { |one| code("short:outdoor.cable_b.white~outdoor.C", one.id) }.uniq).to eq(["open"])
    end
  end

  it "accuses nothing where nothing blows: the lamp lights up in no call" do
    finder, asked = played("nothing")
    expect(asked.map(&:place)).to include("fuse_lamp")
    expect([finder.sure?, said(finder)[:outcome][:key]]).to eq([false, "not_now"])
  end

  it "accuses nothing before anything was looked at" do
    expect([finder([]).sure?, said(finder([]))[:outcome][:key]]).to eq([false, "open"])
  end

  it "is not called none of these by one odd reading, of which nobody knows yet whether it was one" do
    stray = find.finder(%w[no_heat], ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 60.0])
    expect(find.first(stray.top)).to be_none_of_these
    expect(said(stray)[:outcome].values_at(:key, :says)).to match(
      ["open", /\ANot told apart yet\. (?!.*None of these)/]
    )
  end

  it "lights the lamp where the way is whole: in its call, and with the outdoor cable off only where the short is indoors" do
    table = {
      "coil_shorted:CC" => %w[full not_full not_full not_full],
      "short:air_handler.cable_a.yellow~air_handler.C" => %w[full full not_full not_full],
      "short:outdoor.R~outdoor.C" => %w[full not_full full not_full],
      "short:air_handler.R~air_handler.C" => %w[full full full full],
      "nothing" => %w[not_full not_full not_full not_full]
    }
    tests = %w[heat|fuse_lamp heat|fuse_lamp_no_outdoor off|fuse_lamp off|fuse_lamp_no_field]
    found = table.keys.to_h { |truth| [truth, tests.map { |one| code(truth, "seen|#{one}|person") }] }
    expect(found).to eq(table)
  end

  it "reads ohms between two conductors that touch, and not between others" do
    blue_white = "short:outdoor.cable_b.blue~outdoor.cable_b.white"
    codes =
      %w[white orange].flat_map do |wire|
        %W[#{blue_white} short:outdoor.cable_b.white~outdoor.C short:outdoor.cable_b.orange~outdoor.C].map do |truth|
          code(truth, "ohms|between|outdoor.cable_b.blue|outdoor.cable_b.#{wire}|ohmmeter")
        end
      end
    expect(codes).to eq(%w[joined joined open open open joined])
  end

  it "reads across a fuse behind a short as open or whole, and of an open fuse as open" do
    id = "ohms|FU|air_handler.TRAN.R|air_handler.R|ohmmeter"
    expect(%w[coil_shorted:CC stuck_open:FU nothing].map { |truth| code(truth, id) }).to eq(%w[open+joined open joined])
  end

  it "is not made with a lamp where no fuse is fitted" do
    rig = Gorvant::Composer.compose(name: "No fuse", facts: { "fuse_amps" => 0 })
    situation = Gorvant::Diagnosis::Situation.new(rig)
    tests = Gorvant::Diagnosis::Tests.new(situation, Gorvant::Diagnosis::Hypotheses.new(situation).all).all
    expect(tests.map(&:place) & lamps).to eq([])
  end

  describe "found open" do
    let(:dead) { ["off", "volts_ac", %w[air_handler.C air_handler.R], 0.0] }
    let(:across) { ["off", "volts_ac", %w[air_handler.TRAN.R air_handler.R], 24.4] }
    let(:display) { %w[off seen display blank] }

    it "is said, and that something opened it; the fuse is no cause" do
      finder = find.finder(%w[thermostat_blank], display, across, dead)
      expect([said(finder)[:outcome][:key], finder.fuse_care?]).to eq(["open", true]) # R to C, too, reads like this
      finder = find.finder(%w[thermostat_blank], display, across, dead, %w[off seen fuse_lamp not_full])
      outcome = said(finder)[:outcome]
      expect([outcome[:key], outcome[:says]]).to match(["fuse_open", /What opened it is not said yet/])
      expect([finder.next_test, said(finder)[:care]]).to match([nil, include(:steps)])
    end

    it "sets aside what was read while it lay open, once the complaint is the fuse; what opened it is still found" do
      told = [dead, across, %w[heat seen fuse_lamp full], %w[off seen fuse_lamp not_full]]
      finder = find.finder(%w[fuse_blows], *told)
      expect(finder.aside.map { |clue| clue.test.function }).to eq(%w[volts_ac volts_ac])
      expect(said(finder)[:evidence].map { |one| one[:says] }).to include(
        /about 0|0\.0.*set aside: the fuse was open then/
      )
      beside = find.finder(%w[fuse_blows], *told.last(2))
      expect(finder.top.belief).to be_within(1e-9).of(beside.top.belief)
    end

    it "does not set aside a reading with all well, nor one of another complaint" do
      live = ["off", "volts_ac", %w[air_handler.C air_handler.R], 24.4]
      expect(find.finder(%w[fuse_blows], live).aside).to eq([])
      expect(find.finder(%w[no_heat], dead, across).aside).to eq([])
    end
  end

  describe "wires seen otherwise than drawn" do
    let(:wall) { %w[heat seen wires_wall otherwise] }

    it "end the search where that explains it, and send to the Wiring page" do
      finder, = played("landed:cable_a.orange@wall:wall.C")
      outcome = said(finder)[:outcome]
      expect([outcome[:key], finder.next_test]).to eq(["landings", nil])
      expect(outcome[:not_proved]).to include("write down on Wiring")
      expect([finder.top.belief, finder.remedy_belief]).to match([be < 0.7, be > 0.95])
      told = finder.evidence.reject { |clue| clue.test.place == "wires_wall" }
      expect(finder(told).landings_seen?).to be(false) # where nobody looked at them
    end

    it "end nothing where they lie as drawn, or at another place than the suspect's" do
      drawn = find.finder(%w[fuse_blows], %w[heat seen wires_wall as_drawn], %w[off seen fuse_lamp full])
      expect(drawn.landings_seen?).to be(false)
      expect(drawn.seen_at_wires?(library.index("short:wall.R~wall.C"))).to be(false)
      finder = find.finder(%w[fuse_blows], wall)
      expect(finder.seen_at_wires?(library.index("landed:cable_b.orange@outdoor:outdoor.C"))).to be(false)
    end
  end

  it "is no care of any other complaint: volts are read, and no lamp is asked for" do
    other = finder([], symptoms: %w[no_heat])
    expect([other.fuse_care?, other.next_test.test.function]).to eq([false, "volts_ac"])
    expect(other.next_tests.possible?(test("seen|heat|fuse_lamp|person"))).to be(false)
  end
end
