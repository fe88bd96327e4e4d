# frozen_string_literal: true

require_relative "../support/server"
require "tmpdir"

# What the one who looks after a server asks it.
RSpec.describe "Health and counts", :server do
  def ask(path, **env)
    get(path, {}, { "HTTP_HOST" => "probe.invalid", "REMOTE_ADDR" => "127.0.0.1" }.merge(env))
    last_response
  end

  def away = Sequel.connect("postgres://nobody:x@127.0.0.1:1/none", test: false, connect_timeout: 1)

  it "says that it lives and that it can answer, to whoever asks, by whatever name" do
    expect([ask("/health/live").status, ask("/health/ready").status]).to eq([200, 200])
    expect(last_response["cache-control"]).to eq("no-store")
    expect(ask("/health/other").body).not_to include("ready")
  end

  it "lives and is not ready while the database is away, and names which" do
    health = Gorvant::Server::Health.new(->(_) { [200, {}, []] }, { web: db, door: away })
    answers = %w[live ready].map { |way| health.call(Rack::MockRequest.env_for("/health/#{way}")) }
    expect(answers.map(&:first)).to eq([200, 503])
    expect(answers.last.last.join).to include("(door)")
  end

  describe "the counts" do
    {
      "somebody at this machine" => [{}, "", 200],
      "a proxy at this machine, for somebody" => [{ "HTTP_X_FORWARDED_FOR" => "192.0.2.1" }, "", 404],
      "another machine" => [{ "REMOTE_ADDR" => "192.0.2.1" }, "", 404],
      "another machine with an empty token" => [
        { "REMOTE_ADDR" => "192.0.2.1", "HTTP_AUTHORIZATION" => "Bearer " },
        "",
        404
      ],
      "another machine with the token" => [
        { "REMOTE_ADDR" => "192.0.2.1", "HTTP_AUTHORIZATION" => "Bearer a-long-word" },
        "a-long-word",
        200
      ],
      "this machine with a wrong token" => [{ "HTTP_AUTHORIZATION" => "Bearer another" }, "a-long-word", 404]
    }.each do |who, (env, token, status)|
      it("answer #{status} to #{who}") do
        health = Gorvant::Server::Health.new(nil, {}, token: token)
        from = Rack::MockRequest.env_for("/metrics", { "REMOTE_ADDR" => "127.0.0.1" }.merge(env))
        expect(health.call(from).first).to eq(status)
      end
    end

    # { line without its number => number }
    def counts = ask("/metrics").body.lines.grep_v(/^#/).to_h { |line| line.strip.rpartition(" ").values_at(0, 2) }

    it "count answers by route and not by address, refusals by code, and hold no word of a user" do
      route = 'gorvant_answers_total{route="POST /api/visits/:id/trace",status="200"}'
      before = counts
      condition = { call: "heat", outdoor_degrees_f: 31.25 }
      send_json(:post, "/api/visits/#{visit_id}/trace", condition: condition)
      fetch("/api/visits/#{uuid}")
      after = counts
      grown = ->(name) { after.fetch(name).to_f - before.fetch(name, 0).to_f }
      expect(grown.call(route)).to eq(1)
      expect(grown.call('gorvant_problems_total{code="not_found"}')).to eq(1)
      expect(after.keys.join).not_to match(/#{visit_id}|Boathouse|Local owner/)
    end

    it "count what the core worked out, once for as long as it is at hand" do
      # A digest that no other example has asked about.
      row = { digest: uuid, content: db[:rig_revisions].get(:content) }
      solved = -> { counts.fetch('gorvant_solver_seconds_count{what="trace"}', 0).to_f }
      before = solved.call
      2.times { Gorvant::Server::Warm.trace(row, Gorvant::Condition.new(call: "heat")) }
      expect(solved.call - before).to eq(1)
    end

    it "have tasks by state from the worker, none left out" do
      db[:tasks].insert(
        crew_id: ServerBench.viewer.crew_id,
        created_by: ServerBench.viewer.user_id,
        kind: "alike",
        key: "k",
        input: Sequel.pg_jsonb({})
      )
      Gorvant::Server::Worker.new(Gorvant::Server::Database.connect(as: :worker)).tidy
      states = counts.select { |name, _| name.start_with?("gorvant_tasks{") }
      expect(states.transform_keys { |name| name[/state="(\w+)"/, 1] }.transform_values(&:to_f)).to eq(
        "waiting" => 1.0,
        "running" => 0.0,
        "done" => 0.0,
        "failed" => 0.0,
        "cancelled" => 0.0
      )
    end
  end

  it "counts of several processes are one count, what a dead one held is held no longer" do
    Dir.mktmpdir do |folder|
      script = <<~RUBY
        require "#{Gorvant::Server::ROOT}/server/boot"
        metrics = Gorvant::Server::Metrics
        heard, done = IO.pipe
        count = -> { metrics.answered("GET /x", 200, 0.1, nil); metrics::STREAMS.set(3); done << "x"; sleep(30) }
        ids = Array.new(2) { fork(&count) }
        heard.read(2)
        metrics.answered("GET /x", 200, 0.1, nil)
        tell = -> { puts metrics.text.lines.grep(/^gorvant_(answers|streams)/) }
        tell.call
        ids.each_with_index { |pid, i| Process.kill(:KILL, pid); Process.wait(pid); tell.call if i.zero? }
      RUBY
      env = { "GORVANT_METRICS_DIR" => folder }
      said = IO.popen(env, ["bundle", "exec", "ruby", "-e", script], chdir: Gorvant::Server::ROOT, &:read)
      expect(said.lines.map { |line| line[/[\d.]+$/].to_f }).to eq([3, 6, 3, 3])
    end
  end
end
