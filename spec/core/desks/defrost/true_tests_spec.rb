# frozen_string_literal: true

require_relative "../../../support/core"
require_relative "../../../support/true_test"

# No verdict may say what is not so, however much was left unmarked, whatever the selector is on and whatever is broken.
RSpec.describe Gorvant::ForcedTest do
  let(:ends) do # what each verdict claims
    {
      "ended_by_time" => "defrost_by_time",
      "ended_by_time_jumpered" => "defrost_by_time",
      "ended_hurried" => "defrost_by_time",
      "ended_by_temperature" => "defrost_by_temperature",
      "ended_by_hand" => "defrost_by_temperature"
    }
  end
  let(:outputs) do
    {
      "fan" => %w[fan_stopped fan_runs],
      "valve" => %w[valve_shifted valve_not],
      "strips" => %w[strips_on strips_missing]
    }
  end

  def unit(random)
    facts = {
      "changeover" => %w[O B],
      "defrost_clock" => %w[run_time free time_only],
      "defrost_limit_minutes" => [8, 10],
      "speed_up_hurries_limit" => [true, true, false],
      "speed_up_factor" => [180, 256],
      "defrost_interval_minutes" => [30, 60, 90, 120]
    }
    Gorvant::Composer.compose(name: "Bench", facts: facts.transform_values { |values| values.sample(random: random) })
  end

  (1..120).each do |seed|
    it "says nothing that is not so (test #{seed})" do
      random = Random.new(seed)
      truth = unit(random)
      interval = truth[:defrost_interval_minutes]
      test = TrueTest.new(truth, random)
      judged = described_class.new(truth.set({ "defrost_interval_minutes" => 60 }), described_class.parse(test.record))
      codes = judged.verdicts.to_h { |verdict| [verdict.code, verdict] }
      about =
        "#{test.record}, truly #{interval} min, #{test.counted} counted, #{test.fault || "nothing"} broken, " \
          "ended #{test.ended_by}: #{codes.keys}"
      expect(judged.found_interval_minutes).to be_nil.or(eq(interval)), about
      expect(codes.keys & %w[entry_none interval_none fan_not_back strips_stay]).to eq([]), about
      expect(interval).to eq(60), about if codes.key?("interval_as_set")
      expect(codes["interval_other"].title).to include("on #{interval} min"), about if codes.key?("interval_other")
      %w[interval_counted interval_several interval_not_set].each do |code|
        expect(codes[code].says).to include("#{interval} "), about if codes.key?(code)
      end
      outputs.each { |output, (did, did_not)| expect(codes).not_to have_key(test.did[output] ? did_not : did), about }
      ends.each { |code, rule| expect(test.ended_by).to eq(rule), about if codes.key?(code) }
    end
  end
end
