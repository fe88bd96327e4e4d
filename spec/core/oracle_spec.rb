# frozen_string_literal: true

require "open3"
require "tempfile"
require_relative "../support/random_rigs"

# ngspice solves the deck that Gorvant writes; the deck is made from rig and contact states, not from the solver's
# matrix.
RSpec.describe "The circuit oracle" do
  def ngspice(deck)
    Tempfile.create(%w[deck .cir]) do |file|
      file.write(deck)
      file.flush
      output, status = Open3.capture2e("ngspice", "-b", file.path)
      raise "ngspice: #{output[-400..]}" unless status.success? || output.include?("ngspice")

      output
    end
  end

  def oracle(trace, **options)
    solution = trace.solution
    Gorvant::Formats::Spice.parse(
      trace.netlist,
      ngspice(Gorvant::Formats::Spice.dump(trace.netlist, closed: solution.closed, open: solution.open, **options))
    )
  end

  (1..20).each do |batch|
    it "agrees in ten random rigs, calls and faults (batch #{batch})" do
      (((batch * 10) - 9)..(batch * 10)).each do |seed|
        trace = Gorvant::Trace.new(*RandomRigs.case(seed))
        next if trace.solution.chatter?

        oracle(trace).each do |node, (real, imaginary)|
          ours = trace.solution.volts.fetch(node)
          expect(ours.abs).to be_within(1e-6).of(Math.hypot(real, imaginary)),
          "seed #{seed}, #{node}: #{ours.abs} against #{Math.hypot(real, imaginary)}"
          expect(Complex(ours).imaginary).to be_within(1e-6).of(imaginary) unless trace.low_voltage?(node)
        end
      end
    end
  end

  # What a meter shows: its own resistance and the cable's capacitance in the deck.
  (1..12).each do |seed|
    it "reads floating and held points as a meter in the deck does (seed #{seed})" do
      rig, condition = RandomRigs.case(seed)
      random = Random.new(seed)
      lifted =
        rig
          .cables
          .flat_map do |cable|
            cable.conductors.map do |conductor|
              { "kind" => "lifted", "at" => "#{cable.id}.#{conductor.id}@#{cable.to}" }
            end
          end
          .sample(2, random: random)
      trace = Gorvant::Trace.new(rig, condition.with(faults: lifted))
      next if trace.solution.chatter?

      points =
        trace
          .netlist
          .nodes
          .select { |node| trace.low_voltage?(node) && node.include?(".cable_") }
          .sample(3, random: random)
      %w[high_impedance low_impedance]
        .product(points)
        .each do |instrument, node|
          expected = trace.reading(node, "air_handler.C", instrument).first
          ohms = Gorvant::Meter.instruments.fetch(instrument).fetch("input_ohms")
          there = oracle(trace, couplings: true, meter: [node, "air_handler.C", ohms])
          apart = Math.hypot(*there.fetch(node).zip(there.fetch("air_handler.C")).map { |a, b| a - b })
          expect(expected.volts_ac).to be_within(0.05).of(apart),
          "#{node} by #{instrument}, seed #{seed}: #{expected.to_h} against #{apart}"
        end
    end
  end
end
