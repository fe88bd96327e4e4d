# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/by_hand"

# What a technician with a pencil would find, half minute by half minute, beside what the clock finds from event to
# event.
RSpec.describe Gorvant::DefrostClock do
  # Stretches of whole minutes.
  def stretches(random, minutes)
    points = Array.new(random.rand(0..12)) { random.rand(0...minutes) }.uniq.sort
    points.each_slice(2).map { |from, to| [from, to || Float::INFINITY] }
  end

  def lanes(random, minutes)
    lanes = %w[fed cold y cooling].to_h { |lane| [lane, stretches(random, minutes)] }
    lanes["fed"] = [[0, Float::INFINITY]] if random.rand < 0.5
    lanes["cold"] = [[0, Float::INFINITY]] if random.rand < 0.4
    lanes["cooling"] = [] if random.rand < 0.5
    lanes.merge("unpowered" => random.rand < 0.6 ? [] : stretches(random, minutes))
  end

  def text(list) = list.map { |from, to| "#{from}-#{to if to.finite?}" }.join(", ")

  (1..60).each do |seed|
    it "starts in every school when a pencil says so (history #{seed})" do
      random = Random.new(seed)
      lanes = lanes(random, 480)
      answers = ByHand::DefrostClock::FACTS.transform_values { |values| values.sample(random: random) }
      rig =
        Gorvant::Composer.compose(
          name: "Bench",
          facts: answers.merge("defrost_interval_minutes" => ByHand::DefrostClock::INTERVAL)
        )
      history = Gorvant::RunHistory.parse(lanes.transform_values { |list| text(list) }.merge("minutes" => 480))
      Gorvant::Schools
        .new(history, Gorvant::ClockProfile.of(rig))
        .courses
        .each do |course|
          pencil =
            ByHand::DefrostClock.new(
              course.school,
              answers,
              lanes,
              Gorvant::Catalogue.profile.dig("defrost", "lasts_minutes")
            )
          (0..960).each { |half| pencil.half_minute(half / 2.0) }
          expect(course.starts).to eq(pencil.starts),
          "#{course.school}, #{answers}, #{lanes}: #{course.starts}, by hand #{pencil.starts}"
        end
    end
  end
end
