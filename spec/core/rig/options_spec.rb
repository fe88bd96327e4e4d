# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/draughtsman"

# What a rig can be fitted with beyond the usual: each changes the circuit as it does in the field, is drawn, and can be
# told in loops.
RSpec.describe "Options of a rig" do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Options", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def on(rig, call, **condition) =
    trace(call, on: rig, **condition).loads.select(&:on).map(&:code) & %w[COMP OFM RVS BLOWER HTR GAS BOARD THERMOSTAT]

  # option => [switch, what still runs in heating with it open, why the compressor stands]
  {
    { float_switch: "r" } => ["FLS", []],
    { float_switch: "y" } => ["FLS", %w[BLOWER BOARD THERMOSTAT]],
    { freeze_stat: true } => ["FRS", %w[BLOWER BOARD THERMOSTAT]],
    { door_switch: true } => ["DIS", []]
  }.each do |option, (code, left)|
    it "stops with #{option} what it stops, and names #{code}" do
      rig = rig_with(**option)
      healthy = on(rig, "heat")
      expect(healthy).to include("COMP", "BLOWER", "BOARD")
      expect(on(rig, "heat", switches: { code => "open" })).to match_array(left)
      compressor = trace("heat", on: rig, switches: { code => "open" }).load_state("COMP")
      expect(compressor).to have_attributes(on: false, as_designed: false)
      expect(compressor.missing).to eq(code) unless code == "DIS"
      expect(Gorvant::Assembly::Positions.movable(rig)).to include(code)
      expect { trace("heat", on: rig_with, switches: { code => "open" }) }.to raise_error(
        Gorvant::BadCondition,
        /not fitted/
      )
    end

    it "draws #{option} beside others in every view without a fault of the pen" do
      [
        { outdoor_thermostat: true },
        { compressor_stages: 2, stage_2: "contactor", strip_banks: 2 },
        { outdoor_thermostat: true, w1_terminal: true, compressor_stages: 2, split_r: true },
        { backup: "gas" },
        { board_family: "larch", fan_cycling_switch: true }
      ].each do |more|
        rig = rig_with(**option, **more)
        Gorvant::Outputs
          .calls(rig)
          .each do |call|
            %w[loops ladder connections].each do |view|
              complaints =
                Draughtsman.new(Gorvant::Views.scene(view, trace(call, on: rig), { opened: ["all"] })).complaints
              expect([more, call, view, complaints]).to eq([more, call, view, []])
            end
          end
      end
    end

    it "draws #{option} in every view without a fault of the pen, and tells it in loops and back" do
      rig = rig_with(**option)
      opened = trace("heat", on: rig, switches: { code => "open" })
      Gorvant::Views::ALL.each_key do |view|
        scene = Gorvant::Views.scene(view, opened, { load: "CC" })
        expect(Draughtsman.new(scene).complaints).to eq([])
      end
      back = Gorvant::Notation.parse(Gorvant::Notation.print(rig), name: "Options")
      option.each { |fact, value| expect(back[fact]).to eq(value) }
    end
  end

  describe "208 V" do
    def r_to_c(**facts) = volts(trace("heat", on: rig_with(**facts)), "air_handler.R", "air_handler.C")

    it "sags on the 240 V tap to what a meter then reads, and stands right on its own" do
      usual = r_to_c
      expect(r_to_c(supply_volts: 208, transformer_tap: 208)).to be_within(0.1).of(usual)
      expect(r_to_c(supply_volts: 208)).to be_within(0.3).of(usual * 208 / 240)
      expect(r_to_c(supply_volts: 240, transformer_tap: 208)).to be > usual * 1.1
    end

    it "is 208 between legs and 120 to ground on each" do
      one = trace("heat", on: rig_with(supply_volts: 208, contactor_poles: 2))
      read = ->(first, second) { volts(one, first, second) }
      expect(read.call("outdoor.CC.L1", "outdoor.CC.L2")).to be_within(6).of(208)
      %w[L1 L2].each { |leg| expect(read.call("outdoor.CC.#{leg}", Gorvant::Assembly::GROUND)).to be_within(2).of(120) }
    end
  end

  describe "a one-pole contactor, open" do
    def read(first, second, **facts) =
      trace("off", on: rig_with(contactor_poles: 1, **facts)).reading(
        "outdoor.CC.#{first}",
        second.include?(".") ? second : "outdoor.CC.#{second}"
      ).first

    ground = Gorvant::Assembly::GROUND
    # leg that it breaks => { pair => about so many volts }
    {
      "L2" => {
        %w[T1 T2] => 0,
        %w[L2 T2] => 240,
        %w[L1 T1] => 0
      },
      "L1" => {
        %w[T1 T2] => 0,
        %w[L1 T1] => 240,
        %w[L2 T2] => 0
      }
    }.each do |leg, table|
      it "that breaks #{leg} reads #{table.map { |pair, volts| "#{pair.join("–")} #{volts}" }.join(", ")}, and both T at 120 to ground" do
        table.each do |(first, second), wanted|
          expect(read(first, second, contactor_switched_leg: leg).volts_ac).to be_within(8).of(wanted)
        end
        %w[T1 T2].each do |point|
          expect(read(point, ground, contactor_switched_leg: leg).volts_ac).to be_within(5).of(120)
        end
      end
    end

    it "whose leg nobody read calls neither reading wrong, and one that fits neither it does" do
      unread = read("L1", "T1", contactor_switched_leg: "unknown")
      expect([0.1, 240.0, 60.0].map { |volts| Gorvant::Agreement.judge(unread, volts).verdict }).to eq(
        %w[undetermined undetermined disagrees]
      )
    end

    it "is taken for the dangerous one, with its caution, until the poles are read" do
      caution = ->(**facts) do
        trace("off", on: rig_with(**facts)).findings.select { |finding| finding.cautions.any? }.map(&:code)
      end
      expect(caution.call).to eq(["contactor_unread"])
      expect(caution.call(contactor_poles: 1)).to eq(["one_pole"])
      expect(caution.call(contactor_poles: 2)).to eq([])
    end
  end

  describe "usual kits" do
    Gorvant::Catalogue.kits.each do |id, about|
      let(id.to_sym) { Gorvant::Composer.compose(name: about["title"], facts: about["facts"]) }

      it "#{id} composes all assumed, heats and cools, and its defrost heats the house" do
        rig = public_send(id)
        expect(rig.facts.values).to all(be_assumed)
        expect(on(rig, "heat")).to include("COMP", "OFM", "BLOWER")
        expect(on(rig, "cool")).to include("COMP", "OFM", "BLOWER")
        expect(on(rig, "heat").include?("RVS")).to be(rig.changeover == "B")
        expect(on(rig, "defrost")).to include("COMP", rig[:backup] == "gas" ? "GAS" : "HTR").and(
          satisfy { |loads| !loads.include?("OFM") }
        )
        trials = Gorvant::WiringCheck.new(rig, Gorvant::AsFound.parse({}, rig))
        expect([trials.works?, trials.standing.mark]).to eq([true, "untouched"])
        Gorvant::Views::ALL.each_key do |view|
          expect(Draughtsman.new(Gorvant::Views.scene(view, trace("heat", on: rig), { load: "CC" })).complaints).to eq(
            []
          )
        end
      end
    end

    it "are about eight, each with one line and a picture of its own" do
      kits = Gorvant::Catalogue.kits.values
      expect(kits.size).to be_between(7, 9)
      expect(kits.map { |kit| kit["picture"] }.uniq.size).to eq(kits.size)
      expect(kits.map { |kit| kit["says"].length }).to all(be <= 70)
    end
  end

  it "shows the maker's own code for a part on every drawing, and the trade's where none is given" do
    rig = rig_with.with(maker_codes: { "CC" => "K7" })
    { rig => ["K7"], rig_with => ["CC"] }.each do |one, codes|
      Gorvant::Views::ALL.each_key do |view|
        texts = Gorvant::Views.scene(view, trace("heat", on: one), { load: "CC" }).labels.map(&:text)
        expect(texts & %w[K7 CC]).to eq(codes), "#{view}: #{texts.inspect}"
      end
    end
  end
end
