# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/by_hand"

# Stages on the tape, where each comes as an event, beside a thermostat that is asked every second.
RSpec.describe Gorvant::ThermostatController do
  # [[minute, what, value]], one at a minute, what holds at the beginning first.
  def course(random, mode)
    away = -> { (mode == "heat" ? 70 : 74) + ((mode == "heat" ? -1 : 1) * random.rand(-4..12) / 2.0) }
    list = [[0, "room", away.call], [0, "outdoor", random.rand(0..80)], [0, "set_point", mode == "heat" ? 70.0 : 74.0]]
    list +
      (1..90)
        .to_a
        .sample(25, random: random)
        .sort
        .map do |minute|
          what = %w[room room room outdoor set_point].sample(random: random)
          [
            minute,
            what,
            {
              "room" => away.call,
              "outdoor" => random.rand(0..80),
              "set_point" => (mode == "heat" ? 70 : 74) + (random.rand(-4..4) / 2.0)
            }.fetch(what)
          ]
        end
  end

  def tape(rig, mode, course)
    start = course.first(3).to_h { |_minute, what, value| ["#{what}_degrees_f", value] }
    moves =
      [{ "at_seconds" => 0, "what" => "mode", "value" => mode }] +
        course.drop(3).map { |minute, what, value| { "at_seconds" => minute * 60, "what" => what, "value" => value } }
    Gorvant::Run.of(
      rig,
      Gorvant::Script.parse({ "start" => start.merge("coil_degrees_f" => 60), "moves" => moves }, 95 * 60.0)
    )
  end

  def by_hand(settings, mode, course)
    pencil =
      ByHand::Stages.new(settings, mode, Gorvant::Catalogue.profile.dig("staging", "drop_differential_degrees_f"))
    now = course.first(3).to_h { |_minute, what, value| [what, value] }
    (0...(95 * 60)).filter_map do |second|
      course.drop(3).each { |minute, what, value| now[what] = value if minute * 60 == second }
      live = pencil.second(second, *now.values_at("set_point", "room", "outdoor"))
      live if second % 60 == 30
    end
  end

  (1..60).each do |seed|
    it "brings the stages that a watch and a table would (course #{seed})" do
      random = Random.new(seed)
      settings = ByHand::Stages::FACTS.transform_values { |values| values.sample(random: random) }
      rig =
        Gorvant::Composer.compose(
          name: "Bench",
          facts: {
            compressor_stages: 2,
            stage_2: "solenoid",
            balance_points: true,
            outdoor_sensor: true,
            thermostat_minimum_off_seconds: 0,
            anticipation: "own"
          }.merge(settings).transform_keys(&:to_s)
        )
      mode = %w[heat cool].sample(random: random)
      course = course(random, mode)
      timeline = tape(rig, mode, course)
      known = %w[W2 Y Y2].select { |terminal| timeline.signals.any? { |one| one.id == "THERMOSTAT.#{terminal}" } }
      seen =
        (0...95).map do |minute|
          known.select { |terminal| timeline.value_at("THERMOSTAT.#{terminal}", (minute * 60) + 30) }
        end
      wanted = by_hand(settings, mode, course)
      first = seen.zip(wanted).index { |one, other| one != other }
      expect(first).to be_nil,
      "minute #{first}: #{first && [seen[first], wanted[first]]} in #{mode} by #{settings}, course #{course}"
    end
  end
end
