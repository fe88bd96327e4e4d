# frozen_string_literal: true

require_relative "../../support/random_rigs"

# Random resistor networks with one source, seeded: the laws must hold whatever the topology.
RSpec.describe Gorvant::Section do
  def network(seed)
    random = Random.new(seed)
    nodes = %w[c r] + Array.new(random.rand(3..14)) { |i| "n#{i}" }
    Gorvant::Netlist.build(references: "c") do |net|
      net.source("supply", from: "c", to: "r", volts_ac: 24.0, ohms: 1.0)
      nodes
        .drop(1)
        .each_with_index do |node, i|
          other = nodes[random.rand(0..i)]
          other = "c" if other == node
          net.load("tree#{i}", from: node, to: other, ohms: random.rand(0.01..500.0), works_above_volts_ac: 18.0)
        end
      random
        .rand(0..10)
        .times do |i|
          pair = nodes.sample(2, random: random)
          net.wire("extra#{i}", from: pair[0], to: pair[1], ohms: 10**random.rand(-2.0..4.0))
        end
    end
  end

  (1..60).each do |seed|
    it "keeps Kirchhoff's current law at every node of network #{seed}" do
      netlist = network(seed)
      solution = Gorvant::Settling.settle(netlist)
      (netlist.nodes - ["c"]).each do |node|
        sum =
          netlist
            .branches_at(node)
            .sum do |branch|
              drive = branch.behavior.source? ? branch[:volts_ac] : 0.0
              towards = (solution.volts[branch.to] - solution.volts[branch.from] - drive) / branch[:ohms]
              branch.from == node ? towards : -towards
            end
        expect(sum).to be_within(1e-7).of(0.0)
      end
    end
  end

  it "gives the same volts whatever the order of the branches" do
    netlist = network(7)
    shuffled = Gorvant::Netlist.new(references: ["c"], branches: netlist.branches.shuffle(random: Random.new(1)))
    expect(Gorvant::Settling.settle(shuffled).volts).to eq(Gorvant::Settling.settle(netlist).volts)
  end

  it "gives the same volts written out as in loops, in every call" do
    fitted = rig("bakery_shop")
    states = Gorvant::Outputs.calls(fitted).map { |call| trace(call, on: fitted).solution.closed }
    section = Gorvant::Assembly.netlist(fitted).sections.find(&:follower?)
    volts = trace("heat", on: fitted).solution.volts
    in_loops = states.map { |closed| section.factor_and_solve(closed, nil, volts) }
    described_class::STRAIGHT_AFTER_SOLVES.times { section.factor_and_solve(states.first, nil, volts) }
    states.zip(in_loops) do |closed, before|
      section.factor_and_solve(closed, nil, volts).zip(before) { |one, other| expect(one).to be_within(1e-9).of(other) }
    end
  end

  # What a fault makes of a netlist takes over what did not change; made anew from the same branches it has to be the
  # same.
  (1..12).each do |seed|
    it "makes of a changed netlist what it would be made anew (seed #{seed})" do
      random = Random.new(seed)
      fitted = RandomRigs.rig(seed)
      netlist = Gorvant::Assembly.netlist(fitted)
      library = Gorvant::Faults::Library.of(fitted) + Gorvant::Faults::Library.landings_of(fitted)
      4.times do
        given = library.sample(random.rand(1..3), random: random)
        changed, held = Gorvant::Fault.inject(netlist, given.map { |one| Gorvant::Fault.parse(one) })
        anew =
          Gorvant::Netlist.new(
            references: changed.references,
            branches: changed.branches.shuffle(random: random),
            labels: changed.labels,
            ties: changed.ties
          )
        expect(looks(changed)).to eq(looks(anew))
        call = Gorvant::Condition.new(call: Gorvant::Outputs.calls(fitted).sample(random: random))
        one, other =
          [changed, anew].map do |net|
            Gorvant::Settling.settle(net, positions: Gorvant::Assembly.positions(fitted, call), held: held)
          end
        expect([one.working, one.closed, one.blown, one.chattering]).to eq(
          [other.working, other.closed, other.blown, other.chattering]
        )
        one.volts.each do |node, volts|
          expect((volts - other.volts.fetch(node)).abs).to be < 1e-6, "#{node} under #{given.inspect}"
        end
      end
    end
  end

  def looks(netlist)
    lists = %i[nodes branches switching fuses movers couplings].map { |list| netlist.public_send(list) }
    lists +
      [
        netlist.nodes.map { |node| netlist.branches_at(node) },
        netlist.sections.map { |section| [section.nodes.sort, section.branches, section.reference] }
      ]
  end

  it "finds the resistance between two points as a hand would" do
    netlist =
      Gorvant::Netlist.build(references: "c") do |net|
        net.source("supply", from: "c", to: "r", volts_ac: 24.0, ohms: 1.0)
        net.wire("first", from: "r", to: "m", ohms: 9.0)
        net.load("second", from: "m", to: "c", ohms: 10.0, works_above_volts_ac: 1.0)
      end
    column = netlist.sections.first.inverse_columns(["m"], {}).fetch("m")
    expect(column.fetch("m")).to be_within(1e-6).of(5.0) # 10 Ω beside 9 + 1 Ω
  end
end
