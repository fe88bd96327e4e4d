# frozen_string_literal: true

require_relative "../../support/core"

# Two thermistors and what a board takes for coil and air; out of range is a failed sensor, never a temperature.
RSpec.describe Gorvant::Sensed do
  def sensed(*faults, coil: 20.0, air: 35.0) = described_class.through(faults, coil: coil, air: air)
  def move(at, what, value, **more) =
    { "at_seconds" => at.to_f, "what" => what, "value" => value }.merge(more.transform_keys(&:to_s))

  def rig_with(**facts)
    usual = {
      board_family: "larch",
      defrost_clock: "demand",
      forced_entry: "held_pins",
      demand_minimum_minutes: 30,
      demand_maximum_minutes: 60
    }
    Gorvant::Composer.compose(name: "Sensed", facts: usual.merge(facts).transform_keys(&:to_s))
  end

  # Whether a defrost begins in 100 minutes of heating, and by which rule.
  def begun(rig, *faults, coil: 5.0)
    moves = [
      *faults.map { |fault| move(0, "fault", "begins", of: fault) },
      move(0, "call", "heat"),
      move(0, "coil", coil)
    ]
    timeline =
      Gorvant::Run.of(
        rig,
        Gorvant::Script.parse(
          { "start" => { "outdoor_degrees_f" => 35.0, "coil_degrees_f" => coil }, "moves" => moves },
          6000.0
        )
      )
    timeline.events.find { |event| event.signal == "defrost" && event.value }&.rule
  end

  %w[COIL_T AMB_T].each do |code|
    reads = { "COIL_T" => :coil_degrees_f, "AMB_T" => :air_degrees_f }.fetch(code)

    it "takes #{code} open, shorted or jumpered for failed, and the other for good" do
      [
        { "kind" => "sensor_open", "at" => code },
        { "kind" => "sensor_shorted", "at" => code },
        { "kind" => "jumper", "at" => [1, 2].map { |pin| "outdoor.board.#{code}_#{pin}" } }
      ].each do |fault|
        found = sensed(fault)
        expect([found.failed?, found.public_send(reads)]).to eq([true, nil])
        expect((%i[coil_degrees_f air_degrees_f] - [reads]).map { |other| found.public_send(other) }).not_to include(
          nil
        )
      end
    end

    it "drifts #{code} by its own figure, and not the other" do
      found = sensed({ "kind" => "sensor_drifted", "at" => code, "by_degrees_f" => -7.0 })
      expect([found.coil_degrees_f, found.air_degrees_f]).to eq(code == "COIL_T" ? [13.0, 35.0] : [20.0, 28.0])
    end
  end

  it "swaps what it reads, while a sensor's own fault stays with its plug" do
    swapped = { "kind" => "sensors_swapped", "at" => "COIL_T" }
    expect(sensed(swapped)).to have_attributes(coil_degrees_f: 35.0, air_degrees_f: 20.0)
    both = sensed(swapped, { "kind" => "sensor_open", "at" => "COIL_T" })
    expect([both.coil_degrees_f, both.air_degrees_f]).to eq([nil, 20.0])
  end

  it "reads high in the sun by the profile's figure" do
    sun = Gorvant::Catalogue.profile.dig("sensors", "sun_degrees_f")
    expect(sensed({ "kind" => "sensor_in_sun", "at" => "AMB_T" }).air_degrees_f).to eq(35.0 + sun)
  end

  it "is left alone by faults elsewhere" do
    expect(
      sensed({ "kind" => "open", "at" => "DTS" }, { "kind" => "jumper", "at" => %w[outdoor.R outdoor.Y] })
    ).to have_attributes(coil_degrees_f: 20.0, air_degrees_f: 35.0)
  end

  describe "on the tape" do
    it "begins by frost with both sensors good, and by none with one failed" do
      expect(begun(rig_with)).to eq("defrost_demanded")
      expect(begun(rig_with, { "kind" => "sensor_open", "at" => "COIL_T" })).to be_nil
    end

    it "still has the longest interval with a failed sensor where the board does that" do
      expect(begun(rig_with(failed_sensor_backstop: true), { "kind" => "sensor_open", "at" => "AMB_T" })).to eq(
        "defrost_backstop"
      )
    end

    it "begins by frost that is not there when the coil's sensor reads far too low, and not when swapped" do
      # No frost; and warm.
      expect([31.0, 33.0].map { |coil| begun(rig_with, coil: coil) }).to eq(["defrost_backstop", nil])
      expect(
        begun(rig_with, { "kind" => "sensor_drifted", "at" => "COIL_T", "by_degrees_f" => -25.0 }, coil: 28.0)
      ).to eq("defrost_demanded")
      expect(begun(rig_with, { "kind" => "sensors_swapped" })).not_to eq("defrost_demanded")
    end
  end
end
