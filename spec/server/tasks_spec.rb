# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

RSpec.describe "Long work", :server do
  include_context "with the API's contract"

  let(:worker) { Gorvant::Server::Worker.new(db) }
  let(:path) { "/api/visits/#{visit_id}/alike" }

  def ask = send_json(:post, path, "")

  it "answers 202, works it out once, and then gives the answer" do
    2.times { ask }
    expect([last_response.status, db[:tasks].count]).to eq([202, 1])
    id = answer["id"]
    worker.run_one
    fetch "/api/tasks/#{id}"
    expect(answer).to include("state" => "done", "done" => answer["total"])
    ask
    expect(last_response.status).to eq(200)
    alike = answer["classes"].find { |group| group.include?({ "kind" => "stuck_closed", "at" => "DFR.valve" }) }
    expect(answer["unseen"]).to include({ "kind" => "valve_stuck", "at" => "RVS" })
    # A contact welded, a thermostat stuck, and every place where red and orange can touch: no voltage tells them apart.
    expect(alike).to include(
      { "kind" => "stuck_closed", "at" => "DFR.valve" },
      { "kind" => "stuck_closed", "at" => "THERMOSTAT.O" },
      { "kind" => "short", "at" => %w[air_handler.R air_handler.O] }
    )
    expect(alike.map { |fault| fault["kind"] }.tally).to eq("stuck_closed" => 2, "short" => 5)
    expect(answer["classes"].flatten.size).to be > 20
    expect(worker.run_one).to be_nil
  end

  it "takes a newcomer among its kinds as a class that says its kind" do
    counting =
      Class.new do
        def initialize(input, _db) = @upto = input.fetch("upto")
        def resumes? = true
        def total = @upto
        def step(index) = index + 1
        def answer(pieces) = { "sum" => pieces.sum }
      end
    counting.const_set(:KIND, "counting")
    stub_const("Gorvant::Server::Counting", counting)
    tasks = Gorvant::Server::Tasks.new(db, ServerBench.viewer)
    id = Gorvant::Server::Crew.as(ServerBench.viewer.crew_id) { tasks.ask("counting", "counted", { "upto" => 4 }) }[:id]
    worker.run_one
    fetch "/api/tasks/#{id}"
    expect(answer).to include("state" => "done", "done" => 4, "total" => 4)
    expect(Gorvant::Server::Computed.new(db).get("counted").then { |text| JSON.parse(text) }).to eq("sum" => 10)
  end

  it "is not worked out again where it was asked for just as its like came to its end" do
    ask
    worker.run_one
    row = db[:tasks].first
    Gorvant::Server::Crew.as(ServerBench.viewer.crew_id) do
      Gorvant::Server::Tasks.new(db, ServerBench.viewer).ask(row[:kind], row[:key], row[:input].to_hash)
    end
    allow(Gorvant::Server::Alike).to receive(:new).and_call_original
    id = worker.run_one
    fetch "/api/tasks/#{id}"
    expect([id == row[:id], answer["state"]]).to eq([false, "done"])
    expect(Gorvant::Server::Alike).not_to have_received(:new)
    ask
    expect(last_response.status).to eq(200)
  end

  it "is done again where it does more than answer, as reading in a record that was taken out and put back" do
    done = []
    noting =
      Class.new do
        define_method(:initialize) { |input, _db| @record = input.fetch("record") }
        define_method(:step) { |_index| done << @record }
        def resumes? = false
        def total = 1
        def answer(_pieces) = { "record" => @record }
      end
    noting.const_set(:KIND, "noting")
    stub_const("Gorvant::Server::Noting", noting)
    tasks = Gorvant::Server::Tasks.new(db, ServerBench.viewer)
    2.times do
      Gorvant::Server::Crew.as(ServerBench.viewer.crew_id) { tasks.ask("noting", "noted", { "record" => "winter" }) }
      fetch "/api/tasks/#{worker.run_one}"
    end
    expect([done, answer["state"]]).to eq([%w[winter winter], "done"])
  end

  it "of several visits is called off once none of them wants it any more, whether it waits or runs" do
    tasks = Gorvant::Server::Tasks.new(db, ServerBench.viewer)
    want = ->(visit, key) do
      Gorvant::Server::Crew.as(ServerBench.viewer.crew_id) { tasks.ask_anew("shared", key, visit, {})[:id] }
    end
    state = ->(id) { fetch("/api/tasks/#{id}") && answer["state"] }
    %w[waiting running].product([%w[north south], %w[south north]]) do |now, (first, last)|
      cold = "cold #{now} #{first}"
      shared = want.call("north", cold)
      db[:tasks].where(id: shared).update(state: now)
      2.times { expect([want.call("south", cold), want.call("north", cold)]).to eq([shared, shared]) }
      others = [want.call(first, "warm #{cold}")]
      expect(state.call(shared)).to eq(now)
      others << want.call(last, "mild #{cold}")
      expect([state.call(shared), *others.map(&state)]).to eq(%w[cancelled waiting waiting])
    end
  end

  it "goes on where a killed worker stood, and leaves alone what a living one holds" do
    ask
    id = answer["id"]
    healthy = "seen before"
    db[:tasks].where(id: id).update(state: "running", beat_at: Time.now, partial: Sequel.pg_jsonb([healthy]))
    expect(worker.run_one).to be_nil
    db[:tasks].where(id: id).update(beat_at: Time.now - 60)
    expect(worker.run_one).to eq(id)
    ask
    expect(answer["unseen"]).to eq([]) # no fault looks like the made-up healthy piece: it was not worked out again
  end

  it "stops when it is cancelled, and can be asked for again" do
    ask
    send_json(:post, "/api/tasks/#{answer["id"]}/cancellation", "")
    expect(answer["state"]).to eq("cancelled")
    expect(worker.run_one).to be_nil
    ask
    expect(answer["state"]).to eq("waiting")
  end

  it "stops in the middle of its work when it is cancelled, and leaves no answer behind" do
    stub_const("Gorvant::Server::Worker::SAVE_EVERY_SECONDS", 0)
    ask
    id = answer["id"]
    steps = 0
    allow(Gorvant::Server::Alike).to receive(:new).and_wrap_original do |made, input|
      made
        .call(input)
        .tap do |alike|
          allow(alike).to receive(:step) do |index|
            steps += 1
            db[:tasks].where(id: id).update(state: "cancelled") if index == 3
            "piece #{index}"
          end
        end
    end
    worker.run_one
    fetch "/api/tasks/#{id}"
    expect([answer["state"], steps < 8, db[:computed_results].count]).to eq(["cancelled", true, 0])
  end

  it "tells how far it is, piece by piece, and never backwards" do
    stub_const("Gorvant::Server::Worker::SAVE_EVERY_SECONDS", 0)
    ask
    id = answer["id"]
    seen = []
    allow(Gorvant::Server::Alike).to receive(:new).and_wrap_original do |made, input|
      made
        .call(input)
        .tap do |alike|
          allow(alike).to receive(:step) { |index| seen << db[:tasks].where(id: id).get(:done) and "piece #{index}" }
          allow(alike).to receive_messages(total: 12, answer: { "classes" => [], "unseen" => [] })
        end
    end
    worker.run_one
    expect(seen).to eq(seen.sort)
    expect(db[:tasks].where(id: id).get(%i[state done total])).to eq(["done", 12, 12])
  end

  it "forgets two days later what has ended, and nothing that waits or runs" do
    states = %w[waiting running done failed cancelled].product([47, 49])
    states.each_with_index do |(state, hours), i|
      at = Time.now - (hours * 3600)
      fields = { kind: "alike", key: "k#{i}", input: Sequel.pg_jsonb({}), state: state, updated_at: at, created_at: at }
      db[:tasks].insert(crew_id: ServerBench.viewer.crew_id, created_by: ServerBench.viewer.user_id, **fields)
    end
    Gorvant::Server::Worker.new(own = Gorvant::Server::Database.connect(as: :worker)).tidy
    fetch("/api/viewer")
    left = db[:tasks].select_map(%i[state key]).map { |state, key| [state, states[key.delete("k").to_i].last] }
    kept = states.reject { |state, hours| hours == 49 && %w[done failed cancelled].include?(state) }
    expect(left).to match_array(kept)
  ensure
    Gorvant::Server::Database.forget(own) if own
  end

  it "says why a task failed" do
    ask
    id = answer["id"]
    db[:tasks].where(id: id).update(input: Sequel.pg_jsonb({ "rig" => {} }))
    worker.run_one
    fetch "/api/tasks/#{id}"
    expect(answer).to include("state" => "failed", "error" => /rig file/)
  end
end
