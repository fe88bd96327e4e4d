# frozen_string_literal: true

require_relative "../../support/finding_trial"
require_relative "../../../bench/rigs"

# Two conductors of a cable that touch: what tells them from all others is ohms between these two, off at both ends.
RSpec.describe "conductors that touch" do
  BenchRigs::ALL.each do |name, rig|
    describe "in #{name}" do
      let(:library) { Finding.library(name, rig, 34.0) }
      let(:apart) { library.tests.select { |test| test.place == "between" && !test.from_node.end_with?("chassis") } }

      # Names of the two, where C is the blue conductor.
      def pair(hypothesis)
        at = hypothesis.faults.first["at"]
        cable = at.filter_map { |node| node[/cable_\w/] }.first
        cable && at.map { |node| "#{cable}.#{node.end_with?(".C") ? "blue" : node.split(".").last}" }.sort
      end

      def ends(test) = [test.from_node, test.to_node].map { |node| node.split(".").last(2).join(".") }.sort

      it "are parted by one test each, that reads open for whatever else is wrong" do
        library.hypotheses.each_with_index do |one, i|
          next if one.steady || one.none_of_these?

          joined = apart.select { |test| library.column(test).codes[i] == "joined" }
          own = one.kind == "short" ? [pair(one)].compact : []
          expect(joined.map { |test| ends(test) }).to eq(own), one.id
        end
        wires = rig.cables.map { |cable| cable.conductors.count { |wire| !wire.spare } }
        expect(apart.size).to eq(wires.sum { |count| count * (count - 1) / 2 })
      end

      it "are named with their cable and place said once; what touches bare metal has its own end in full" do
        words = Gorvant::Desks::Find::Words.new(Finding.new(library).finder(%w[no_heat]))
        says = apart.to_h { |test| [test, words.send(:says, test)] }
        said = ->(id) { id.tr("_", " ") }
        says.each do |test, line|
          place, cable, color = test.from_node.split(".")
          other = test.to_node.split(".").last
          whole =
            "from #{said.call(color)} to #{said.call(other)} of #{said.call(cable)}, at the #{rig.place_title(place)}"
          expect([line.downcase.include?(whole), line.scan("cable").size]).to eq([true, 1])
        end
        bare = library.tests.find { |test| test.place == "between" && test.from_node.end_with?("chassis") }
        expect(words.send(:says, bare)).to match(/Ω from .*chassis.* to .* of cable/)
      end

      it "are found in ten tests where the complaint shows it, and proved by the last" do
        complaint = "cold_air_in_heating"
        beliefs = Gorvant::Diagnosis::Beliefs.new(library)
        truths =
          library.hypotheses.each_index.select { |i| two?(library.hypotheses[i]) && beliefs.shows?(i, complaint) }
        trial = FindingTrial.new(library, Random.new(3), misread: 0)
        played = truths.first(4).map { |truth| trial.play(truth, [complaint], mode: "fewest") }
        expect([played.size, played.map(&:tests)]).to match([be > 1, all(be <= 10)])
        names = [played.map(&:top), truths.first(4)].map { |list| list.map { |i| pair(library.hypotheses[i]) } }
        expect(names.first).to eq(names.last)
      end

      def two?(one) = one.kind == "short" && one.steady.nil? && one.faults.first["at"].all?(/cable_/)
    end
  end
end
