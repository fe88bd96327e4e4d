# frozen_string_literal: true

require_relative "../../support/finding"

# Cases of the trade: what Find says first, what it asks next, and what it leaves open.
RSpec.describe Gorvant::Diagnosis::Finder do
  def boathouse = Finding.new(Finding.library("boathouse", rig("boathouse_north"), 34.0))
  def kiln = Finding.new(Finding.library("kiln", rig("lantern_kiln"), 34.0))

  def balanced(outdoor)
    facts = { "outdoor_sensor" => true, "balance_points" => true, "auxiliary_balance_degrees_f" => 50 }
    composed = Gorvant::Composer.compose(name: "Balanced", facts: facts)
    Finding.new(Finding.library("balanced #{outdoor}", composed, outdoor))
  end

  # How much all suspects weigh whose id fits.
  def weight(find, finder, pattern) =
    find.library.hypotheses.each_index.sum do |i|
      find.library.hypotheses[i].id.match?(pattern) ? finder.beliefs[i] : 0.0
    end

  # The finder that is sure, or has asked eight tests that were answered as this truth answers most often; and them.
  def followed(find, truth, symptoms:, stands:)
    clues = Gorvant::Diagnosis::Clues.new(find.library)
    index = find.library.index(truth)
    told = []
    loop do
      finder = described_class.new(find.library, symptoms: symptoms, evidence: told, stands: stands, mode: "fewest")
      return finder, told if finder.sure? || told.size == 8

      test = finder.next_test.test
      stands = test.at || stands
      column = find.library.column(test)
      row = column.scale.by_answer(column.scale.row(column.codes[index]))
      told << clues.answered(test, column.scale.answers[row.index(row.max)])
    end
  end

  def asks(finder) = finder.next_test&.test&.then { |test| [test.function, test.state, test.place || test.to_node] }

  describe "cold air in heating, O live outdoors" do
    let(:find) { boathouse }
    let(:o_live) { ["heat", "volts_ac", %w[outdoor.C outdoor.O], 24.2] }

    it "looks first whether a defrost is running, and condemns no thermostat before wire and terminal are read apart" do
      finder = find.finder(%w[cold_air_in_heating], o_live, stands: "outdoor", call: "heat")
      expect(asks(finder)).to eq(%w[seen heat outdoor_fan])
      expect(find.top(finder)).to eq("defrost_running")
      told = [o_live, %w[heat seen outdoor_fan turns], ["heat", "volts_ac", %w[outdoor.C outdoor.W2_out], 0.1]]
      after = find.finder(%w[cold_air_in_heating], *told, stands: "outdoor", call: "heat")
      expect(weight(find, after, /defrost_running/)).to be < 0.05
      expect(weight(find, after, /THERMOSTAT\.O/)).to be < 0.8
      off = find.finder(%w[cold_air_in_heating], *told, ["off", "volts_ac", %w[outdoor.C outdoor.O], 24.0])
      expect(weight(find, off, /THERMOSTAT\.O/)).to be < 0.8
      expect(weight(find, off, /DFR\.valve/)).to be > 0.1
    end

    it "tells wire from board by the lifted wire, each way" do
      joint = "cable_b.orange@outdoor"
      lifted = { condition: { "faults" => [{ "kind" => "lifted", "at" => joint }] }, instrument: "low_impedance" }
      begin_with = [o_live, %w[heat seen outdoor_fan turns], ["off", "volts_ac", %w[outdoor.C outdoor.O], 24.0]]
      wire = find.finder([], *begin_with, ["heat", "volts_ac", %w[outdoor.C outdoor.cable_b.orange], 24.1, lifted])
      board = find.finder([], *begin_with, ["heat", "volts_ac", %w[outdoor.C outdoor.O], 24.1, lifted])
      expect([weight(find, wire, /DFR\.valve/), weight(find, board, /THERMOSTAT\.O/)]).to all(be < 0.02)
      expect(weight(find, board, /DFR\.valve/)).to be > 0.3
    end
  end

  describe "the contactor dead with Y live" do
    let(:find) { kiln }
    let(:told) do
      [
        ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.1, { minutes: 1.17 }],
        ["heat", "seen", "contactor", "out", { minutes: 1.17 }]
      ]
    end

    it "names the hold first while it is on, and asks to wait out what is left of it" do
      finder = find.finder(%w[contactor_silent], *told, stopped_minutes: 1.17, stands: "outdoor", call: "heat")
      expect(find.top(finder)).to eq("hold")
      expect(finder.top.belief).to be > 0.5
      expect(finder.next_test.test.place).to eq("after_the_wait")
      expect(finder.remaining_minutes).to eq([(180.0 / 60) - 1.17])
    end

    it "reads no safety during the hold: volts across one are for after it" do
      finder = find.finder(%w[contactor_silent], *told, stopped_minutes: 1.17, stands: "outdoor", call: "heat")
      across =
        find.library.tests.select { |test| test.from_node == "outdoor.LPS.1" && test.state.to_s.start_with?("heat") }
      expect(across).not_to be_empty
      expect(across.select { |test| finder.next_tests.possible?(test) }).to be_empty
    end

    it "asks when it last ran where nobody knows, and never offers T1 as what parts hold from safety" do
      unknown = told.map { |call, function, where, value, _| [call, function, where, value] }
      finder = find.finder(%w[contactor_silent], *unknown, stands: "outdoor", call: "heat")
      expect(asks(finder)).to eq(["minutes", nil, "since_stop"])
      t1 = find.library.column(find.library.test("volts_ac|heat|outdoor.C|outdoor.board.T1|high_impedance"))
      codes = %w[hold opened_LPS].map { |id| t1.codes[find.library.index(id)] }
      expect(codes.uniq.size).to eq(1)
    end

    it "goes on to the safeties once the hold is over" do
      over = told.map { |call, function, where, value, _| [call, function, where, value, { minutes: 9.0 }] }
      finder = find.finder(%w[contactor_silent], *over, stopped_minutes: 9.0, stands: "outdoor", call: "heat")
      expect(weight(find, finder, /\Ahold\z/)).to be < 0.02
      expect(finder.next_test.test.from_node.to_s).to match(/LPS|HPS|DTS|outdoor\.C/)
    end

    it "knows the hold from an answer without a number too, and is done with it after the wait" do
      clues = Gorvant::Diagnosis::Clues.new(find.library)
      told =
        [%w[minutes|since_stop|person within], %w[seen|heat|after_the_wait|person out]].map do |id, answer|
          clues.answered(find.library.test(id), answer)
        end
      holds =
        [told.first(1), told].map do |evidence|
          described_class.new(find.library, symptoms: %w[contactor_silent], evidence: evidence)
        end
      expect(holds.map(&:hold)).to eq(%w[in_force over])
      expect(holds.first.next_test.test.place).to eq("after_the_wait")
      expect(weight(find, holds.last, /\Ahold\z/)).to be < 0.02
    end

    it "gives a range where nobody read how long the hold lasts" do
      open = Finding.new(Finding.library("mossgate", rig("mossgate_roof"), 34.0))
      expect(open.finder([], stopped_minutes: 1.0).remaining_minutes).to eq([2.0, 4.0])
    end
  end

  describe "backup that does not come" do
    let(:dead) { ["heat_aux", "volts_ac", %w[air_handler.C air_handler.W], 0.1] }

    it "is as designed above its balance point" do
      find = balanced(58.0)
      finder = find.finder(%w[no_auxiliary_heat], dead)
      expect(find.top(finder)).to eq("above_balance")
      expect(finder.top.belief).to be > 0.5
    end

    it "is as designed below it only if the thermostat's own sensor stands above: that is not taken for granted" do
      find = balanced(40.0)
      finder = find.finder(%w[no_auxiliary_heat], dead)
      expect(weight(find, finder, /above_balance/)).to be_between(0.02, 0.6)
      own = %w[heat_aux degrees_f thermostat_outdoor]
      above, below = [55, 41].map { |degrees| find.finder(%w[no_auxiliary_heat], dead, [*own, degrees]) }
      expect(find.top(above)).to eq("above_balance")
      expect(weight(find, below, /above_balance/)).to be < 0.02
    end
  end

  describe "a safety that is open" do
    it "is opened by its pressure first, and the switch only after the port is inside its rating" do
      find = boathouse
      told = [["heat", "volts_ac", %w[outdoor.LPS.1 outdoor.LPS.2], 24.3], %w[heat seen contactor out]]
      finder = find.finder(%w[contactor_silent], *told, stands: "outdoor", call: "heat")
      expect(find.top(finder)).to eq("opened_LPS")
      inside = find.finder(%w[contactor_silent], *told, %w[heat seen suction_port inside])
      expect(find.top(inside)).to eq("stuck_open:LPS")
    end
  end

  it "gives a sequencer its time before anything in the strips' way is suspected" do
    find = boathouse
    told = [["heat_aux", "volts_ac", %w[air_handler.C air_handler.W], 24.1], %w[heat_aux seen strips off]]
    finder = find.finder(%w[no_auxiliary_heat], *told, stands: "air_handler", call: "heat_aux")
    expect(weight(find, finder, /sequencer_waits/)).to be > 0.1
    expect(asks(finder)).to eq(%w[seen heat_aux after_a_minute])
    over = find.finder(%w[no_auxiliary_heat], *told, %w[heat_aux seen after_a_minute off])
    expect(weight(find, over, /sequencer_waits/)).to be < 0.02
  end

  describe "the refrigerant side" do
    let(:fed_rightly) do
      [
        ["heat", "volts_ac", %w[outdoor.C outdoor.O], 0.1],
        %w[heat seen compressor runs],
        %w[heat seen outdoor_fan turns]
      ]
    end

    it "a lukewarm line speaks for compressor or leaking valve, not for a stuck one; the tubes part them" do
      find = boathouse
      finder = find.finder(%w[cold_air_in_heating], *fed_rightly, %w[heat seen vapour_line_by_hand lukewarm])
      expect(weight(find, finder, /not_pumping|valve_leaking|charge/)).to be > 0.7
      expect(weight(find, finder, /valve_stuck/)).to be < 0.1
      near =
        find.finder(
          %w[cold_air_in_heating],
          *fed_rightly,
          %w[heat seen vapour_line_by_hand lukewarm],
          %w[heat seen ports near_equal]
        )
      warm =
        find.finder(%w[cold_air_in_heating], *fed_rightly, %w[heat seen ports near_equal], %w[heat seen tubes warmer])
      even =
        find.finder(%w[cold_air_in_heating], *fed_rightly, %w[heat seen ports near_equal], %w[heat seen tubes alike])
      low = find.finder(%w[cold_air_in_heating], *fed_rightly, %w[heat seen ports equal_low])
      expect(weight(find, near, /charge/)).to be < 0.1
      expect([find.top(warm), find.top(even), find.top(low)]).to eq(%w[valve_leaking:RVS not_pumping:COMP charge])
    end

    it "a cold line stands for a valve in cooling" do
      find = boathouse
      finder = find.finder(%w[cold_air_in_heating], *fed_rightly, %w[heat seen vapour_line_by_hand cold])
      expect(find.top(finder)).to eq("valve_stuck:RVS_cooling")
    end
  end

  describe "ice" do
    it "is asked by its pattern first, where the complaint is ice: from anywhere, however the test is chosen, once" do
      ways = [{}, { stands: "outdoor" }, { stands: "wall", mode: "fewest" }, { call: "heat", mode: "cheapest" }]
      first = ["seen", nil, "ice"]
      expect(ways.map { |how| asks(boathouse.finder(%w[no_heat iced_outdoor_unit], **how)) }).to all(eq(first))
      pattern = %w[heat seen ice bottom_rows]
      id = boathouse.library.tests.find { |test| test.place == "ice" }.id
      others = [
        boathouse.finder(%w[iced_outdoor_unit], pattern),
        boathouse.finder(%w[iced_outdoor_unit], skip: [id]),
        boathouse.finder(%w[iced_outdoor_unit], stands: "wall", mode: "here"),
        boathouse.finder(%w[no_heat], stands: "outdoor")
      ]
      expect(others.map { |finder| asks(finder) }).not_to include(first)
      open = ["off", "ohms", %w[outdoor.DFT.1 outdoor.DFT.2], nil, { open: true, isolated: true }]
      points = %w[outdoor.C outdoor.board.DFT_2]
      told = [open, ["heat", "volts_ac", points, 0.1, { condition: { "coil_degrees_f" => 20.0 } }]]
      sure = boathouse.finder(%w[iced_outdoor_unit], *told, %w[heat seen forced_defrost goes_in_right])
      expect(sure).to be_sure # then what is in front is looked at itself, whatever was not asked
      expect(asks(sure)).not_to eq(first)
    end

    # What leaves a coil iced, by what was planted; on a board whose clock asks for cold as it counts, a switch that
    # flickers.
    counting = { "defrost_clock" => "run_time_cold" }
    direct = { "safeties_return" => "contactor" }
    {
      "stuck_open:DFT" => {
      },
      "switch_off_pipe" => {
      },
      "drain_blocked" => {
      },
      "interval_long" => {
      },
      "stuck_closed:DFR.fan" => {
      },
      "stuck_open:DFR.valve" => {
      },
      "valve_stuck:RVS_heating" => {
      },
      "open:BOARD" => {
      },
      "clock_dead" => {
      },
      "open:T1_IN" => direct,
      "flickers" => counting
    }.each do |truth, facts|
      it "finds #{truth} in five tests at most#{" (#{facts.values.first})" unless facts.empty?}" do
        composed = Gorvant::Composer.compose(name: "Iced", facts: facts)
        find = Finding.new(Finding.library("iced #{facts}", composed, 28.0))
        finder, told = followed(find, truth, symptoms: %w[iced_outdoor_unit], stands: "outdoor")
        expect(find.library.remedies[finder.top.indexes.first]).to eq(find.library.remedies[find.library.index(truth)])
        expect(finder).to be_sure
        expect(told.size).to be <= 5
      end
    end

    it "hears what a forced defrost does, and takes “goes in” for no more than it says" do
      find = boathouse
      fan, valve = %w[stuck_closed:DFR.fan valve_stuck:RVS_heating].map { |id| find.library.index(id) }
      heard = ->(choice) { find.finder(%w[iced_outdoor_unit], ["heat", "seen", "forced_defrost", choice]).beliefs }
      right, turns, hot, in_ = %w[goes_in_right goes_in_fan goes_in_hot goes_in].map { |choice| heard.call(choice) }
      expect([turns[fan] / in_[fan], hot[valve] / in_[valve]]).to all(be > 2)
      expect([right[fan] / in_[fan], right[valve] / in_[valve]]).to all(be < 0.2)
      stays = heard.call("stays_out")
      expect([stays[fan] / in_[fan], stays[valve] / in_[valve]]).to all(be < 0.2)
      %w[goes_in_right goes_in_fan goes_in_hot goes_in].each do |choice|
        expect(find.finder([], ["heat", "seen", "forced_defrost", choice]).call).to eq("defrost")
      end
    end
  end

  it "puts right first what the visit found, where that explains the complaint, and not where it does not" do
    clinic = Finding.new(Finding.library("clinic", rig("clinic_waiting"), 38.0))
    o_live = ["heat", "volts_ac", %w[outdoor.C outdoor.O], 24.2]
    finder = clinic.finder(%w[cold_air_in_heating], o_live, %w[heat seen vapour_line_by_hand cold])
    expect([finder.found?, finder.next_test]).to eq([true, nil])
    expect(Gorvant::Desks::Find::Words.new(finder).to_h[:outcome][:says]).to include("O/B", "Set O/B to")
    expect(clinic.finder(%w[blower_silent]).found?).to be(false)
  end

  it "is a function of its evidence alone: what is taken back is as if it had never been, in any order" do
    find = boathouse
    told = [["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.1], %w[heat seen compressor runs], %w[heat seen ice none]]
    plain = find.finder(%w[no_heat], *told).beliefs.all
    turned = find.finder(%w[no_heat], *told.reverse).beliefs.all
    expect(plain.zip(turned).map { |a, b| (a - b).abs }.max).to be < 1e-12
    expect(plain.sum).to be_within(1e-9).of(1.0)
  end

  it "names what changed at one point in one call, and swings to certainty on neither" do
    find = boathouse
    finder =
      find.finder(
        %w[no_heat],
        ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.1, { at: "09:00" }],
        ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 0.1, { at: "09:02" }]
      )
    expect(finder.contradictions.map { |one| one.clues.map(&:at) }).to eq([%w[09:00 09:02]])
    expect(finder.top.belief).to be < 0.5
    expect(weight(find, finder, /_at_times/)).to be > weight(find, find.finder(%w[no_heat]), /_at_times/) * 3
  end

  # Whoever reads one thing again learns that it was no slip, and no more: joint, load and specimen are the same.
  {
    "volts that leave much open" => ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 12.0],
    "volts by the usual" => ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 22.6],
    "ice that may be this or that" => %w[heat seen ice thin_even]
  }.each do |name, reading|
    it "believes of #{name} no more when it is read eight times" do
      once, twice, often = [1, 2, 8].map { |times| boathouse.finder(%w[no_heat], *([reading] * times)).beliefs.all }
      expect(twice.zip(often).map { |a, b| (a - b).abs }.max).to be < 0.02
      expect(once.zip(often).map { |a, b| (a - b).abs }.max).to be < 0.06
    end
  end

  it "takes the points of one wire for one thing, and what a second look denies for a slip or a change" do
    find = boathouse
    at = ->(points, volts = 12.0) { ["heat", "volts_ac", points, volts] }
    terminal, coil = %w[outdoor.C outdoor.O], %w[outdoor.RVS.1 outdoor.RVS.2]
    once, again, along =
      [[terminal], [terminal] * 2, [terminal, coil]].map do |points|
        find.finder(%w[no_heat], *points.map(&at)).beliefs.all
      end
    expect(again).to eq(along)
    expect(again).not_to eq(once) # no slip
    other = find.finder(%w[no_heat], at.call(terminal), at.call(terminal, 24.2))
    expect(other.contradictions.map(&:kind)).to eq(%w[changed])
    expect(other.beliefs.all.max).to be < 0.5
  end

  it "clears nothing that comes and goes by seeing it well again and again" do
    well = ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.2]
    once, often =
      [1, 10].map { |n| weight(boathouse, boathouse.finder(%w[contactor_silent], *([well] * n)), /yellow_at_times/) }
    expect(often).to be > once / 4
  end

  it "suspects nothing that comes and goes of what meter and line wander, and does of what fell away" do
    at_times = ->(*volts) do
      told = volts.map { |one| ["heat", "volts_ac", %w[outdoor.C outdoor.Y], one] }
      weight(boathouse, boathouse.finder(%w[no_heat], *told), /_at_times/)
    end
    expect([at_times.call(24.1, 23.2), at_times.call(24.1, 22.9, 23.7)]).to all(be <= at_times.call(24.1))
    expect(at_times.call(24.1, 0.1)).to be > at_times.call(24.1) * 5
  end

  # At an edge between two classes nothing has changed, nor does what is believed.
  [ # two readings at one point in one call, and whether they are told as changed
    [21.9, 22.1, false],
    [20.4, 20.6, false],
    [21.2, 22.8, false],
    [1.9, 2.1, false],
    [20.9, 23.0, true],
    [24.0, 19.0, true],
    [1.9, 4.0, true]
  ].each do |first, second, changed|
    it "takes #{first} V and later #{second} V for #{changed ? "changed" : "one reading"}" do
      told = [first, second].map { |volts| ["heat", "volts_ac", %w[outdoor.C outdoor.Y], volts] }
      expect(boathouse.finder(%w[no_heat], *told).contradictions.map(&:kind)).to eq(changed ? %w[changed] : [])
    end
  end

  it "believes of 20.4 V about what it believes of 20.6 V, and of 1.9 V another thing than of 2.1 V" do
    most = ->(first, second) do
      one, other =
        [first, second].map do |volts|
          boathouse.finder(%w[no_heat], ["heat", "volts_ac", %w[outdoor.C outdoor.Y], volts]).beliefs.all
        end
      one.zip(other).map { |a, b| (a - b).abs }.max
    end
    expect([most.call(20.4, 20.6), most.call(21.9, 22.1), most.call(17.9, 18.1)]).to all(be < 0.1)
    expect(most.call(1.9, 2.1)).to be > 0.1 # under 2 V is about 0
  end

  # What hums with its run winding fed: the capacitor before the winding, by µF alone.
  {
    0.2 => [/\Aopen:CAP.herm/, true],
    20.0 => [/\Acapacitor_weak/, true],
    39.0 => [/\Aopen:COMP.start/, false]
  }.each do |microfarads, (truth, proved)|
    it "takes #{microfarads} µF of 40 marked for #{truth.source}, and condemns nothing that hums before it is read" do
      facts = { "capacitor_herm_microfarads" => 40.0 }
      marked = Gorvant::Composer.compose(name: "Marked", facts: facts, source: "measured")
      find = Finding.new(Finding.library("marked", marked, 34.0))
      hum = [%w[heat seen compressor hums], %w[heat seen outdoor_fan turns]]
      before = find.finder(%w[no_heat], *hum)
      expect(before.sure? && before.top.proved).to be(false)
      asked = before.next_tests.about([find.library.index("open:CAP.herm")]).map { |choice| choice.test.function }
      expect(asked.first(2)).to include("microfarads")
      after = find.finder(%w[no_heat], *hum, ["off", "microfarads", "CAP.herm", microfarads])
      expect([find.top(after), after.top.proved]).to match([truth, proved])
    end
  end

  it "draws nothing from a capacitor that reads more than it can have" do
    facts = { "capacitor_herm_microfarads" => 40.0 }
    marked = Gorvant::Composer.compose(name: "Marked", facts: facts, source: "measured")
    find = Finding.new(Finding.library("marked", marked, 34.0))
    read = ->(value) { find.finder(%w[no_heat], ["off", "microfarads", "CAP.herm", value]).evidence.size }
    expect([43.6, 43.7, 60.0].map(&read)).to eq([1, 0, 0])
  end

  it "holds a capacitor for neither weak nor right whose marking nobody read" do
    find = boathouse
    hum = [%w[heat seen compressor hums], ["off", "microfarads", "CAP.herm", 20.0]]
    patterns = [/\Acapacitor_weak\z/, /\Aopen:COMP.start\z/, /\Aopen:CAP.herm\z/]
    before, after =
      [hum.first(1), hum].map do |told|
        finder = find.finder(%w[no_heat], *told)
        patterns.map { |pattern| weight(find, finder, pattern) }
      end
    expect(after[0] / after[1]).to be_within(0.01).of(before[0] / before[1])
    expect(after[2] / after[1]).to be < before[2] / before[1] / 20
  end

  it "names two readings of a call that no one thing shows both of, with their times and what may have made it so" do
    find = boathouse
    silent = ["heat", "seen", "compressor", "silent", { at: "2026-11-03T09:00:00Z" }]
    hot = ["heat", "seen", "vapour_line_by_hand", "hot", { at: "2026-11-03T09:04:00Z" }]
    together = ->(*told) { find.finder(%w[no_heat], *told).impossible.map { |one| one.clues.map(&:at) } }
    expect(together.call(silent, hot)).to eq([[silent, hot].map { |told| told.last[:at] }])
    # The same in two calls; in one, what a fault shows both of; each by itself.
    lukewarm = %w[heat seen vapour_line_by_hand lukewarm]
    turns = %w[fan seen outdoor_fan turns]
    others = [[silent, ["cool", *hot.drop(1)]], [silent, turns], [silent, lukewarm], [silent], [hot], []]
    others.each { |told| expect(together.call(*told)).to eq([]), told.inspect }
    said =
      Gorvant::Desks::Find::Words.new(find.finder(%w[no_heat], silent, hot)).to_h[:changed].map { |one| one[:says] }
    expect(said).to match([/\ANot both at one instant.*silent at 09:00;.*hot at 09:04\. .*misread: read both again/])
  end

  it "does not clear what comes and goes by one good reading" do
    find = boathouse
    good = find.finder(%w[contactor_silent], ["heat", "volts_ac", %w[outdoor.C outdoor.board.T1], 24.1])
    expect(weight(find, good, /\Aopen:.*yellow\z/)).to be < 0.01
    expect(weight(find, good, /\Aopen:.*yellow_at_times/)).to be > 0.001
  end

  it "counts what parts two repairs, and not what parts two causes of one" do
    find = boathouse
    ohms = ["off", "ohms", %w[outdoor.CC.1 outdoor.CC.2], 0, { "open" => true, "value" => nil, "isolated" => true }]
    beliefs = find.finder(%w[contactor_silent], ohms).beliefs
    columns = find.library.tests.map { |test| find.library.column(test) }.uniq
    gains = columns.map { |column| [beliefs.gain(column), beliefs.rough_gain(column)] }
    expect(gains).to all(satisfy { |own, most| own.between?(-1e-9, most + 1e-9) })
    contactor = find.library.column(find.library.test("seen|heat|contactor|person"))
    expect(beliefs.gain(contactor)).to be < beliefs.rough_gain(contactor) - 0.03
  end

  it "says of nothing wrong how much was read, and what that leaves open" do
    find = boathouse
    clues = Gorvant::Diagnosis::Clues.new(find.library)
    index = find.library.index("nothing")
    told = []
    made = -> { described_class.new(find.library, symptoms: [], evidence: told) }
    until told.size == 90 || (test = made.call.next_test&.test).nil?
      column = find.library.column(test)
      row = column.scale.by_answer(column.scale.row(column.codes[index]))
      told << clues.answered(test, column.scale.answers[row.index(row.max)])
    end
    expect(find.top(made.call)).to eq("nothing")
    outcome = Gorvant::Desks::Find::Words.new(made.call).to_h[:outcome]
    expect(outcome[:says]).to include("Nothing wrong shows", "readings: #{told.size}")
    expect(outcome[:not_proved]).to start_with("Not proved: what comes and goes")
  end

  it "takes nothing from what could not be told, and nothing from ohms in the circuit" do
    find = boathouse
    expect(find.clue("heat", "seen", "compressor", "could_not_tell")).to be_nil
    expect(find.clue("off", "ohms", %w[outdoor.CC.1 outdoor.CC.2], 12.0)).to be_nil
    expect(find.clue("off", "ohms", %w[outdoor.CC.1 outdoor.CC.2], 12.0, isolated: true).answer).to include("12")
  end

  it "offers no cooling in the cold" do
    finder = boathouse.finder(%w[no_cooling])
    calls = finder.next_tests.all.filter_map { |choice| choice.test.state }
    expect(calls).not_to include("cool")
    expect(calls).to include("heat")
  end
end
