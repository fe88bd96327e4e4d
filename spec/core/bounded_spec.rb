# frozen_string_literal: true

require_relative "../support/core"

# However many conductors touch, an answer costs a bounded number of settlings and searches: counted, so that no clock
# is needed.
RSpec.describe "Answers of a circuit in which much touches" do
  plain = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  netlist = Gorvant::Assembly.netlist(plain)
  points =
    %w[wall air_handler outdoor]
      .flat_map { |place| plain.terminals(place).map { |terminal| "#{place}.#{terminal}" } }
      .select { |node| netlist.node?(node) }

  def self.jumpered(rig, count)
    random = Random.new(count)
    jumpers =
      Array.new(count) do |i|
        place = %w[wall air_handler outdoor].sample(random: random)
        from, to = (rig.terminals(place) - ["R"]).sample(2, random: random)
        Gorvant::Jumper.new(
          id: "j#{i}",
          place: place,
          from: from,
          to: to,
          provenance: Gorvant::Provenance.new(source: "measured")
        )
      end
    Gorvant::Rig.build(**rig.to_h, jumpers: jumpers)
  end

  def self.shorts(points, count)
    random = Random.new(count)
    Array.new(count) { { "kind" => "short", "at" => points.sample(2, random: random) } }
  end

  # What may be asked of a circuit, by name.
  asked =
    Gorvant::Views::ALL
      .keys
      .to_h { |view| ["drawing #{view}", ->(trace) { Gorvant::Views.scene(view, trace, { load: "CC" }).to_h }] }
      .merge(
        "loads" => ->(trace) { trace.loads.map { |load| trace.loop_of(load.code) } },
        "legend" => ->(trace) { Gorvant::Legend.entries(trace) },
        "way" => ->(trace) { Gorvant::Way.new(trace, "outdoor.Y", nil).stops },
        "meter" => ->(trace) { trace.reading("outdoor.C", "outdoor.Y", "high_impedance") },
        "notation" => ->(trace) { Gorvant::Notation.print(trace.rig) },
        "deck" => ->(trace) do
          Gorvant::Formats::Spice.dump(
            trace.netlist,
            closed: trace.solution.closed,
            open: trace.solution.open,
            title: "x"
          )
        end,
        "wiring" =>
          lambda do |trace|
            check = Gorvant::WiringCheck.new(trace.rig, Gorvant::AsFound.parse({}, trace.rig))
            [check.told, check.correction, check.standing]
          end
      )

  def turns(&block)
    count = 0
    Gorvant::Patience.with(-> { (count += 1) > 3_000 }, &block)
    count
  end

  {
    "20 shorts" => [plain, shorts(points, 20)],
    "80 shorts" => [plain, shorts(points, 80)],
    "18 jumpers more" => [jumpered(plain, 18), []],
    "200 jumpers" => [jumpered(plain, 200), []]
  }.each do |what, (rig, faults)|
    it "of #{what}" do
      trace = Gorvant::Trace.new(rig, Gorvant::Condition.parse("call" => "heat_aux", "faults" => faults))
      asked.each do |name, question|
        next if name == "wiring" && faults.any? # the record's question, not the fault's

        expect(turns { expect(question.call(trace)).not_to be_nil }).to be < (name == "wiring" ? 3_000 : 120), name
      end
    end
  end

  it "still finds the way that conducts among all that touch, and its length is what a slow search over every way finds" do
    rig = self.class.jumpered(plain, 6)
    trace = Gorvant::Trace.new(rig, Gorvant::Condition.parse("call" => "heat"))
    checked =
      trace
        .load_codes
        .map { |code| trace.netlist[code] }
        .select { |branch| trace.low_voltage?(branch.from) }
        .map do |load|
          best =
            Gorvant::Loops
              .new(trace.solution, hot: Gorvant::Assembly::HOT, home: Gorvant::Assembly::HOME)
              .of(load)
              .best_feeder
          expect(best&.count(&:open?)).to eq(fewest_open(trace.solution, load)), load.id
          best
        end
    expect(checked.compact.size).to be > 4
  end

  # The fewest open links on any way from R to the load: a reckoning of its own, ring by ring.
  def fewest_open(solution, load)
    ring, reached, open = [Gorvant::Assembly::HOT], {}, 0
    until ring.empty?
      ring.each { |node| flood(solution, load, node, reached, open) }
      return reached[load.from] if reached.key?(load.from)

      ring =
        reached
          .keys
          .flat_map do |node|
            ways_on(solution, load, node).reject { |branch, _| solution.conducts?(branch) }.map(&:last)
          end
          .uniq - reached.keys
      open += 1
    end
  end

  def flood(solution, load, node, reached, open)
    return if reached.key?(node)

    reached[node] = open
    ways_on(solution, load, node).each do |branch, other|
      flood(solution, load, other, reached, open) if solution.conducts?(branch)
    end
  end

  def ways_on(solution, load, node)
    walked =
      solution
        .netlist
        .branches_at(node)
        .reject do |branch|
          branch.id == load.id || branch.load? || branch.behavior.source? || !branch.behavior.stamped?
        end
    walked
      .reject { |branch| branch.switching? && branch.from != node }
      .map { |branch| [branch, branch.other_end(node)] }
  end
end
