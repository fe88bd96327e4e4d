# frozen_string_literal: true

require "bundler/setup"
require_relative "../core/lib/gorvant"

# The two rigs that the budgets speak of, and a clock.
module BenchRigs
  SINGLE = Gorvant::Composer.compose(name: "Single stage", facts: {})
  TWO_STAGE =
    Gorvant::Composer.compose(
      name: "Two-stage dual fuel",
      facts: {
        "compressor_stages" => 2,
        "backup" => "gas",
        "changeover" => "B",
        "outdoor_thermostat" => true,
        "safeties" => %w[LPS DTS HPS HPS2],
        "board_family" => "larch"
      }
    )
  ALL = { "single stage" => SINGLE, "two-stage dual fuel" => TWO_STAGE }.freeze

  # Seconds that the block takes: the median of several runs.
  def self.seconds(runs = 5)
    times =
      Array.new(runs) do
        start = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        yield
        Process.clock_gettime(Process::CLOCK_MONOTONIC) - start
      end
    times.sort[runs / 2]
  end
end
