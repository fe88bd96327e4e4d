# frozen_string_literal: true

require_relative "../support/server"

RSpec.describe Gorvant::Server::Turns do
  def hold(turns, gate) = Thread.new { turns.serve { gate.pop } }

  it "lets one run and some wait, tells whoever comes later to come again, and is free again after a failure" do
    turns = described_class.new(running: 1, waiting: 1, wait_seconds: 5)
    gate = Queue.new
    running = hold(turns, gate)
    Thread.pass until turns.taken == 1
    waiting = hold(turns, gate)
    Thread.pass until turns.taken == 2
    expect { turns.serve { nil } }.to raise_error(Gorvant::Server::Busy)
    2.times { gate << :done }
    expect([running.value, waiting.value, turns.taken]).to eq([:done, :done, 0])
    expect { turns.serve { raise "broke" } }.to raise_error("broke")
    expect(turns.serve { :again }).to eq(:again)
  end

  it "stands back only while somebody else asks: a dear answer alone in its process has the machine" do
    turns = described_class.new(running: 1, waiting: 1, wait_seconds: 5)
    stub_const("Gorvant::Server::Warm::TURNS", turns)
    budget = Gorvant::Server::Budget
    asked = ->(other) do
      budget.count(1)
      budget.count(1) if other
      turns.serve { budget.others? }
    ensure
      budget.count(other ? -2 : -1)
    end
    expect([asked.call(false), asked.call(true), asked.call(false)]).to eq([false, true, false])
  end

  it "waits no longer than it is told to, and one turn serves what its answer asks for in turn" do
    turns = described_class.new(running: 1, waiting: 1, wait_seconds: 0.05)
    gate = Queue.new
    holder = hold(turns, gate)
    Thread.pass until turns.taken == 1
    expect { turns.serve { nil } }.to raise_error(Gorvant::Server::Busy)
    gate << :done
    holder.join
    expect(turns.serve { turns.serve { [described_class.mine?, turns.taken] } }).to eq([true, 1])
    expect([described_class.mine?, turns.taken]).to eq([false, 0])
  end
end
