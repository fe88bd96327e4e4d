# frozen_string_literal: true

require_relative "../support/core"
require_relative "../support/random_rigs"
require_relative "../support/true_test"

# Whatever the core says to a person, of any rig in any state: whole sentences, names and not ids, numbers that can be.
RSpec.describe "What the core says" do
  # The ways in which a sentence goes wrong.
  let(:faults) do
    {
      "an id" => /\b[a-z_]+\.(?:[A-Z]|cable_|board\.)|\bcable_[ab]\b|@(?:wall|outdoor|air_handler)|[a-z]_[a-z]/,
      "a gap" => /%<|nil\b|#<|\(\)|: *\z|(?<=\S)  +(?=\S)|\A\s*\z/,
      "no number" => /NaN|Infinity|\d\.\d{4,}|\de[-+]?\d/,
      "a time that cannot be" => /(?<![\d.–-])-\d+(?:\.\d+)? (?:s|min|h)\b/,
      "a stop too many" => /\.\.(?!\.)|,,|;;|: :/
    }
  end

  def expect_clean(said, about)
    wrong =
      said.compact.uniq.flat_map do |words|
        faults.select { |_name, pattern| words.match?(pattern) }.keys.map { |name| "#{name} in #{words.inspect}" }
      end
    expect(wrong).to eq([]), "#{about}: #{wrong.first(4).join("\n")}"
  end

  def of_finding(finding) = [finding.title, finding.says, finding.next_step, *finding.evidence, *finding.assumed]
  def of_verdict(verdict) =
    [verdict.title, verdict.says, verdict.next_step, *verdict.evidence, *verdict.assumed, *verdict.not_proved]
  def of_effect(effect) =
    [effect.title, effect.says, *effect.nodes.map { |node| node[:label] }, *effect.wrong.map { |wrong| wrong[:title] }]

  (1..14).each do |seed|
    describe "rig #{seed}" do
      let(:random) { Random.new(seed) }
      let(:fitted) { RandomRigs.rig(seed) }
      let(:faulty) { Gorvant::Faults::Library.of(fitted).sample(random: random) }

      it "is clean in readings, reasons, loads and findings" do
        rig, condition = RandomRigs.case(seed)
        trace = Gorvant::Trace.new(rig, condition)
        nodes = trace.netlist.nodes
        readings = Array.new(60) { trace.reading(*nodes.sample(2, random: random)).last.says }
        expect_clean(
          readings + nodes.map { |node| trace.netlist.label(node) } +
            trace.findings.flat_map { |finding| of_finding(finding) } +
            trace.loads.flat_map { |load| [load.title, load.why] },
          condition
        )
      end

      it "is clean in the wiring and the settings as found" do
        target = Gorvant::Target.rig(fitted)
        ends =
          target.cables.flat_map do |cable|
            cable.conductors.flat_map do |conductor|
              [cable.from, cable.to].map { |place| [cable.id, conductor.id, place] }
            end
          end
        landings =
          ends
            .sample(3, random: random)
            .map do |cable, conductor, place|
              {
                "cable" => cable,
                "conductor" => conductor,
                "place" => place,
                "lands_on" => [nil, *target.terminals(place)].sample(random: random)
              }
            end
        found =
          Gorvant::AsFound.parse(
            { "landings" => landings, "settings" => { "sensor_offset_degrees_f" => -2, "fast_heating" => "either" } },
            fitted
          )
        check = Gorvant::WiringCheck.new(fitted, found)
        told =
          check.told.flat_map do |one|
            of_finding(one.finding) + one.moves + one.effects.flat_map { |effect| of_effect(effect) }
          end
        settings = Gorvant::SettingsCheck.new(fitted, found, set_point_degrees_f: 95.0, wiring: check)
        expect_clean(
          told + check.correction.moves + settings.findings.flat_map { |finding| of_finding(finding) } +
            settings.items.flat_map { |item| [item.title, item.should] },
          landings
        )
      end

      it "is clean on the tape, and in why and until when" do
        moves = [
          { "at_seconds" => 0, "what" => "call", "value" => "heat" },
          { "at_seconds" => 60, "what" => "fault", "of" => faulty, "value" => "begins" },
          { "at_seconds" => 900, "what" => "call", "value" => "off" }
        ]
        tape =
          Gorvant::Run.of(
            fitted,
            Gorvant::Script.parse({ "start" => { "outdoor_degrees_f" => 30 }, "moves" => moves }, 4000)
          )
        chains =
          tape.signals.flat_map do |signal|
            Gorvant::Chain
              .new(tape, signal.id, 500)
              .then { |chain| chain.links.flat_map { |link| [link.says, link.rule_says] } << chain.next_on&.says }
          end
        events = tape.events.flat_map { |event| [event.says, event.rule_says] }
        expect_clean(
          events + chains + tape.findings.flat_map { |noticed| of_finding(noticed.finding) } +
            tape.signals.map(&:title),
          faulty
        )
      rescue Gorvant::ZeroTimeLoop, Gorvant::BadScript => e
        expect_clean([e.message], faulty)
      end

      it "is clean at the defrost desk" do
        moment =
          Gorvant::DefrostOutlook::Moment.new(
            call: "heat",
            outdoor_degrees_f: 30.0,
            coil_degrees_f: [nil, 20.0, 50.0, 90.0].sample(random: random),
            counted_minutes: [nil, 0, 50].sample(random: random)
          )
        outlook = Gorvant::DefrostOutlook.new(fitted, moment)
        following = outlook.following
        said =
          outlook.lamps.flat_map { |lamp| [lamp.title, lamp.waits_for] } +
            outlook.checklist.flat_map { |line| [line.title, line.says] }
        test =
          TrueTest.new(
            Gorvant::Composer.compose(
              name: "Bench",
              facts: {
                "defrost_interval_minutes" => [30, 90].sample(random: random)
              }
            ),
            random
          )
        verdicts =
          Gorvant::ForcedTest
            .new(fitted, Gorvant::ForcedTest.parse(test.record))
            .then do |judged|
              judged.verdicts.flat_map { |verdict| of_verdict(verdict) } + judged.warnings + judged.steps.map(&:does)
            end
        expect_clean(
          said + [following.says, *following.because, *following.assumed, *following.course.map(&:says)] + verdicts,
          moment
        )
      end
    end
  end
end
