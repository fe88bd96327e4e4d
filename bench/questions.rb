# frozen_string_literal: true

# Questions by name, each a [method, path, body] that never came before; of a share of them (usual) the body is one of a
# few, as where people open pages.
class Questions
  CALLS = %w[off fan cool heat heat_aux emergency defrost].freeze

  def initialize(bench, seed, usual: 0)
    @bench = bench
    @usual = usual
    @random = Random.new(seed)
  end

  def names
    %w[
      visits
      visit
      rig
      readings
      trace
      expected
      drawing_loops
      drawing_ladder
      drawing_connections
      legend
      measurement
      way
      wiring
      settings
      outlook
      schools
      forced_test
      timeline
      faults
      notation
      rigs
    ]
  end

  def make(name)
    visit = "/api/visits/#{@bench.visits.sample(random: @random)}"
    case name
    when "visits"
      [:get, "/api/visits"]
    when "rigs"
      [:get, "/api/rigs"]
    when "visit"
      [:get, visit]
    when "rig", "readings", "faults"
      [:get, "#{visit}/#{name}"]
    when "notation"
      [:get, "/api/rigs/#{@bench.rigs.sample(random: @random)}/notation"]
    when /\Adrawing_(.*)/
      [:post, "#{visit}/drawing", { condition: condition, view: Regexp.last_match(1) }]
    when "trace", "legend"
      [:post, "#{visit}/#{name}", { condition: condition }]
    when "expected"
      [:post, "#{visit}/expected", { condition: condition, instrument: "high_impedance" }]
    when "measurement"
      [
        :post,
        "#{visit}/measurement",
        { condition: condition, from_node: "outdoor.C", to_node: "outdoor.Y", instrument: "high_impedance" }
      ]
    when "way"
      [:post, "#{visit}/way", { condition: condition, to_node: "outdoor.Y" }]
    else
      desk(name, visit)
    end
  end

  # A tape of two days with a toggle a few minutes apart: as dear as one request can be.
  def dear
    moves =
      Array.new(480) do |i|
        { at_seconds: (i * 350) + @random.rand(100), what: "call", value: i.even? ? "heat" : "off" }
      end
    [
      :post,
      "/api/visits/#{@bench.visits.sample(random: @random)}/timeline",
      { script: { moves: moves }, duration_seconds: 172_800 }
    ]
  end

  private

  def desk(name, visit)
    case name
    when "wiring"
      [
        :post,
        "#{visit}/wiring",
        {
          as_found: {
            landings: [],
            settings: {
              compressor_balance_degrees_f: some([30], @random.rand(20..35) + @random.rand)
            }
          }
        }
      ]
    when "settings"
      [:post, "#{visit}/settings", { settings: { stage_delay_minutes: @random.rand(5..20) } }]
    when "outlook"
      [
        :post,
        "#{visit}/defrost/outlook",
        { call: "heat", outdoor_degrees_f: degrees, counted_minutes: some([0, 30], @random.rand * 60) }
      ]
    when "schools"
      [
        :post,
        "#{visit}/defrost/schools",
        { history: { minutes: 240, fed: "0-#{some([40], @random.rand(20..60))}, 80-", cold: "always" } }
      ]
    when "forced_test"
      [
        :post,
        "#{visit}/defrost/forced_test",
        { test: { marks: { bridge_on: 2, fan_off: some([16], (8 + (@random.rand * 20)).round(2)) } } }
      ]
    when "timeline"
      [
        :post,
        "#{visit}/timeline",
        {
          script: {
            start: {
              outdoor_degrees_f: degrees
            },
            moves: [{ at_seconds: 5, what: "call", value: "heat" }]
          },
          duration_seconds: 7_200
        }
      ]
    end
  end

  def some(usual, odd) = @random.rand < @usual ? usual.sample(random: @random) : odd
  def degrees = some([17, 35, 47], (20 + (@random.rand * 40)).round(4))
  def condition = { call: CALLS.sample(random: @random), outdoor_degrees_f: degrees }
end
