# frozen_string_literal: true

require "open3"
require_relative "../../support/core"

# The stand-in logger, as a person calls it.
RSpec.describe "bin/sim-logger" do
  def sim(*options) = Open3.capture3(File.expand_path("../../../bin/sim-logger", __dir__), *options)

  it "writes the same file for the same seed, another for another, with the fault that was asked for" do
    asked = %w[--days 0.2 --every 60 --fault fan_runs_in_defrost --columns outdoor,coil,fan,ob,amps]
    first, again, other = [4, 4, 5].map { |seed| sim(*asked, "--seed", seed.to_s).first }
    expect(first).to eq(again)
    expect(other).not_to eq(first)
    expect(first.lines.size).to eq(289)
    fan, valve = first.lines.drop(1).map { |line| line.split(",").map(&:to_f) }.partition { |row| row[4] < 13 }
    expect(valve).not_to be_empty
    expect(valve.map { |row| row[3] }.max).to be > 0.8 # the fan draws while the valve is turned
    expect(fan.map { |row| row[3] }.max).to be > 0.8
  end

  it "says what is wrong with what it was asked, and writes nothing" do
    [%w[--columns outdoor,moon], %w[--rig nowhere.json], %w[--zone Lake/Mere]].each do |wrong|
      out, err, status = sim(*wrong)
      expect([out.lines.size, err, status.success?]).to match([be <= 1, /moon|nowhere|Lake/, false])
    end
  end

  it "sends to this machine alone, and says what it lacks" do
    {
      %w[--url http://192.0.2.7:9292 --token gorvant-x --record r --seconds 1] => /this machine only/,
      %w[--url http://127.0.0.1:9 --token gorvant-x --record r --seconds 1] => /no server there/,
      %w[--url http://127.0.0.1:9292 --token gorvant-x] => /together/,
      %w[--url http://127.0.0.1:9 --token x --record r --times 0] => /--times/
    }.each do |options, says|
      out, err, status = sim(*options)
      expect([out, err, status.success?]).to match(["", says, false])
    end
  end
end
