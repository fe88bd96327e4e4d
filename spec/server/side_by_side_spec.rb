# frozen_string_literal: true

require "open3"
require_relative "../../server/tasks/side_by_side"

RSpec.describe Gorvant::Server::SideBySide do
  def here = Process.pid

  # Other examples keep processes of their own: theirs are not waited for.
  def children = Dir["/proc/self/task/*/children"].flat_map { |list| File.read(list).split }

  before { allow(described_class).to receive(:hands).and_return(2) }

  it "brings of any number what each by itself would, in their order, nothing and lists too" do
    [0, 1, 15, 16, 17, 40, 41].each do |size|
      work = ->(i) { (i % 3).zero? ? nil : [i, { "b#{i}" => [i] * 500 }] }
      expect(described_class.map((0...size).to_a, &work)).to eq((0...size).map(&work)), size.to_s
    end
  end

  it "shares the work with a process of its own, and only where there are enough for two" do
    expect(described_class.map((1..40).to_a) { here }.tally.values).to eq([20, 20])
    expect(described_class.map((1..15).to_a) { here }.uniq).to eq([here])
    allow(described_class).to receive(:hands).and_return(1)
    expect(described_class.map((1..40).to_a) { here }.uniq).to eq([here])
  end

  it "does itself what the other does not bring, and raises what its own half raises" do
    own, others = here, children
    ends = { raised: -> { raise "beside" }, killed: -> { Process.kill(:KILL, here) }, unsendable: -> { Float::NAN } }
    ends.each do |name, ending|
      made = described_class.map((1..40).to_a) { |i| here == own ? i : ending.call }
      expect(made).to eq((1..40).to_a), name.to_s
    end
    expect { described_class.map((1..40).to_a) { |i| Integer("#{i} of both") } }.to raise_error(ArgumentError)
    expect(children - others).to be_empty # none of them is left
  end

  # What a process has open (a database, a browser) is not for another to close.
  it "lets the other end without what this one does at its end" do
    script = <<~RUBY
      own = Process.pid
      at_exit { puts "ended" }
      p Gorvant::Server::SideBySide.map((1..20).to_a) { |i| own == Process.pid ? i * i : exit }.sum
    RUBY
    file = File.expand_path("../../server/tasks/side_by_side", __dir__)
    shown, status = Open3.capture2e("ruby", "-r", file, "-e", script)
    expect([shown, status.success?]).to eq(["2870\nended\n", true])
  end
end
