# frozen_string_literal: true

require_relative "../support/server"
require "ipaddr"

# Who knocks that was not asked in: writes that another site sends along, floods, and what a request says of itself.
RSpec.describe "Strangers at the door", :server do
  def reading(value = 24.1) =
    {
      id: uuid,
      from_node: "outdoor.C",
      to_node: "outdoor.Y",
      function: "volts_ac",
      value: value,
      instrument: "high_impedance",
      condition: {
        call: "heat"
      },
      taken_at: "2026-11-26T10:00:00Z"
    }

  def write(token)
    header("X-CSRF-Token", token)
    post(
      "/api/visits/#{visit_id}/readings",
      JSON.generate(reading),
      "CONTENT_TYPE" => "application/json",
      "HTTP_HOST" => "127.0.0.1"
    )
    last_response.status
  end

  describe "a write by a session" do
    it "carries the token that its page was told; without it, or with another's, nothing is kept" do
      before = db[:readings].count
      fetch("/api/session")
      told = last_response["x-csrf-token"]
      stranger = Rack::Protection::AuthenticityToken.random_token
      refused = [nil, "", "not base64 at all!", stranger].map { |token| write(token) }
      expect(refused).to eq([403] * 4)
      expect([answer["type"], db[:readings].count]).to eq(["urn:gorvant:problem:old_token", before])
      expect(write(told)).to eq(201)
      expect(db[:readings].count).to eq(before + 1)
    end

    it "is told the token with the refusal, so that the page can send the same again" do
      write(nil)
      expect(write(last_response["x-csrf-token"])).to eq(201)
    end

    it "is nobody else's: where another has signed in since the page was opened, nothing is kept or told under their name" do
      before = db[:readings].count
      mate = ServerBench.person("Olm Brandt", "technician")
      as(mate)
      header("X-Person", ServerBench.viewer.user_id)
      expect(write(ServerBench::TOKEN)).to eq(403)
      expect([answer["type"], last_response["x-csrf-token"]]).to eq(["urn:gorvant:problem:somebody_else", nil])
      fetch("/api/visits/#{visit_id}")
      expect([last_response.status, db[:readings].count]).to eq([403, before])
      header("X-Person", mate)
      expect(write(ServerBench::TOKEN)).to eq(201)
      header("X-Person", ServerBench.viewer.user_id)
      fetch("/api/session") # who it is, anybody may ask
      expect([last_response.status, answer.dig("viewer", "id")]).to eq([200, mate])
    ensure
      header("X-Person", nil)
      ServerBench.alone
    end

    it "is another session's no longer once that has begun: a token goes with its cookie" do
      mate = ServerBench.person("Olm Brandt", "technician")
      as(nil)
      elsewhere = last_response["x-csrf-token"]
      as(mate)
      expect(write(elsewhere)).to eq(403)
      fetch("/api/session")
      expect(write(last_response["x-csrf-token"])).to eq(201)
    ensure
      ServerBench.alone
    end

    it "also signs nobody in from another site, and what only reads needs none" do
      as(nil)
      header("X-CSRF-Token", nil)
      post("/api/session", JSON.generate(name: "a", password: "b"), "CONTENT_TYPE" => "application/json")
      expect(last_response.status).to eq(403)
      as(ServerBench.viewer.user_id)
      header("X-CSRF-Token", nil)
      fetch("/api/visits")
      expect(last_response.status).to eq(200)
    end
  end

  describe "how often" do
    def limit(name) = Gorvant::Server::Limits::ALL.fetch(name).fetch("most")
    def rack = Rack::Attack

    # As if so many had come in this minute and the next ones.
    def asked_already(count) = db[:rate_counts].update(asked: count)

    def knock(from: "192.0.2.7")
      body = JSON.generate(token: "nothing")
      post(
        "/api/invitations/look",
        body,
        "CONTENT_TYPE" => "application/json",
        "HTTP_HOST" => "127.0.0.1",
        "REMOTE_ADDR" => from
      )
      last_response.status
    end

    it "lets so many through and not one more, each caller by their own count, and says when to come again" do
      as(nil)
      expect(knock).to eq(404)
      asked_already(limit("door") - 1)
      expect(knock).to eq(404)
      expect(knock).to eq(429)
      expect(answer["type"]).to eq("urn:gorvant:problem:too_often")
      expect(Integer(last_response["retry-after"])).to be_between(1, 60)
      expect(knock(from: "192.0.2.8")).to eq(404)
    end

    it "counts by account what somebody signed in asks for, in all processes together, and nothing of who it was" do
      paper = -> { send_json(:post, "/api/visits/#{visit_id}/svg", condition: { call: "heat" }, view: "ladder") }
      paper.call
      expect(last_response.status).to eq(200)
      expect(db[:rate_counts].select_map(%i[key asked])).to contain_exactly([/\A\h{64}\z/, 1])
      asked_already(limit("export"))
      paper.call
      expect(last_response.status).to eq(429)
      fetch("/api/visits")
      expect(last_response.status).to eq(200)
      as(ServerBench.person("Olm Brandt", "technician"))
      paper.call
      expect(last_response.status).to eq(200)
    ensure
      ServerBench.alone
    end

    it "forgets what is over" do
      db[:rate_counts].insert(key: "old", asked: 9, expires_at: Time.now - 1)
      db[:rate_counts].insert(key: "new", asked: 9, expires_at: Time.now + 60)
      db[:sign_in_attempts].insert(key: "tried the day before", failures: 9, last_at: Time.now - 86_401)
      db[:sign_in_attempts].insert(key: "tried today", failures: 9, last_at: Time.now - 86_300)
      Gorvant::Server::Worker.new(Gorvant::Server::Database.connect(as: :worker)).tidy
      expect(db[:sign_in_attempts].select_map(:key)).to eq(["tried today"])
      expect(db[:rate_counts].select_map(:key)).to eq(%w[new])
    ensure
      ServerBench.alone
    end

    it "has a number for every limit that an operation names, and each number a use" do
      named = Gorvant::Server::Operations::ALL.filter_map(&:limit).uniq
      expect(named).to match_array(Gorvant::Server::Limits::ALL.keys)
    end

    it "limits whatever takes passwords, files or is worked out dearly" do
      open_doors =
        Gorvant::Server::Operations::ALL.select do |one|
          one.limit.nil? && one.may == "anyone" && one.verb == "POST" && !one.pattern.match?("/api/session/end")
        end
      expect(open_doors).to eq([])
    end
  end

  describe "who asks on without waiting" do
    def told(statuses, **how)
      asked = []
      app = Gorvant::Server::ToldAlready.new(->(env) { (asked << env) && statuses.call(env) })
      answer = ->(path, **env) do
        app.call(
          Rack::MockRequest.env_for(path, { :method => "POST", "HTTP_COOKIE" => "a=b; gorvant=mine" }.merge(how, env))
        )
      end
      [asked, answer, app]
    end

    let(:later) { ->(_env) { [429, { "retry-after" => "30", "content-type" => "x" }, ["wait"]] } }

    it "hears the same at once, and nobody is asked who they are; another's cookie is another" do
      asked, answer = told(later)
      answers = Array.new(5) { answer.call("/api/visits/x/timeline") }
      expect([asked.size, answers.uniq.size]).to eq([1, 1])
      expect(answers.last).to eq([429, { "retry-after" => "30", "content-type" => "x" }, ["wait"]])
      answer.call("/api/visits/x/timeline", "HTTP_COOKIE" => "gorvant=another")
      answer.call("/api/visits/x/report-pdf") # another limit
      answer.call("/api/visits", method: "GET") # none
      expect(asked.size).to eq(4)
    end

    it "is asked again when the time is over, for a long answer in hand after a moment" do
      { "1" => [0.24, 0.26], "30" => [29, 30] }.each do |seconds, (early, late)|
        asked, answer, app = told(->(_env) { [429, { "retry-after" => seconds }, []] })
        time = 0.0
        allow(app).to receive(:now) { time }
        times = [0.0, early, late].map { |at| (time = at) && answer.call("/api/visits/x/timeline") && asked.size }
        expect(times).to eq([1, 1, 2])
      end
    end

    it "is asked again at the door, and whatever was answered otherwise" do
      {
        "/api/session" => later,
        "/api/visits/x/timeline" => ->(_env) { [503, { "retry-after" => "9" }, []] }
      }.each do |path, says|
        asked, answer = told(says)
        2.times { answer.call(path) }
        expect(asked.size).to eq(2)
      end
    end
  end

  describe "from where" do
    proxies = [IPAddr.new("127.0.0.1"), IPAddr.new("10.1.0.0/16")]
    {
      "nobody's word for it" => [{ "REMOTE_ADDR" => "198.51.100.4" }, "198.51.100.4"],
      "a stranger who says that they are another" => [
        { "REMOTE_ADDR" => "198.51.100.4", "HTTP_X_FORWARDED_FOR" => "192.0.2.1" },
        "198.51.100.4"
      ],
      "a proxy that passes somebody on" => [
        { "REMOTE_ADDR" => "127.0.0.1", "HTTP_X_FORWARDED_FOR" => "192.0.2.1" },
        "192.0.2.1"
      ],
      "two proxies in a row" => [
        { "REMOTE_ADDR" => "127.0.0.1", "HTTP_X_FORWARDED_FOR" => "192.0.2.1, 10.1.4.4" },
        "192.0.2.1"
      ],
      "somebody who put a name before what the proxy adds" => [
        { "REMOTE_ADDR" => "127.0.0.1", "HTTP_X_FORWARDED_FOR" => "203.0.113.9, 192.0.2.1" },
        "192.0.2.1"
      ],
      "words that are no address" => [{ "REMOTE_ADDR" => "127.0.0.1", "HTTP_X_FORWARDED_FOR" => "me" }, "me"],
      "a proxy that says nothing" => [{ "REMOTE_ADDR" => "127.0.0.1" }, "127.0.0.1"]
    }.each do |name, (env, address)|
      it("takes #{address} for #{name}") do
        expect(Gorvant::Server::Caller.address(env, proxies: proxies)).to eq(address)
      end
    end

    it "believes no request where no proxy is named" do
      env = { "REMOTE_ADDR" => "127.0.0.1", "HTTP_X_FORWARDED_FOR" => "192.0.2.1" }
      expect(Gorvant::Server::Caller.address(env)).to eq("127.0.0.1")
    end
  end

  it "hold up nobody: no statement runs for ever, no transaction stands about" do
    kept =
      %w[statement_timeout idle_in_transaction_session_timeout].map do |name|
        [ServerBench.web, ServerBench.door].map { |db| db.get(Sequel.function(:current_setting, name)) }.uniq
      end
    expect(kept).to eq([["10s"], ["1min"]])
  end

  it "leave nothing of what they typed in the database's own log" do
    quiet = { "log_min_error_statement" => "panic", "log_error_verbosity" => "terse" }
    expect(quiet.to_h { |name, _| [name, db.get(Sequel.function(:current_setting, name))] }).to eq(quiet)
  end

  describe "one dear answer for each account" do
    let(:answers) { Gorvant::Server::DearAnswers.new(ServerBench.web) }
    let(:one) { Gorvant::Server::OneEach }
    let(:who) { uuid }

    it "is held against all processes, let go when it is there, and another's is not touched by it" do
      holder = answers.take(who)
      expect([answers.take(who), answers.take(uuid).nil?]).to eq([nil, false])
      answers.let_go(uuid)
      expect(answers.take(who)).to be_nil
      answers.let_go(holder)
      expect(answers.take(who)).not_to be_nil
    end

    it "is free again where the process that had it is gone" do
      answers.take(who)
      db[:dear_answers].update(until: Time.now - 1)
      expect(answers.take(who)).not_to be_nil
    end

    it "makes the next of the same account wait, the one behind it come again, and lets others go on" do
      gate, began = Queue.new, Queue.new
      work = ->(id) { Thread.new { one.as(id, answers) { one.serve { (began << id) && gate.pop } } } }
      first = work.call(who)
      began.pop
      asks = Queue.new
      watched = double(let_go: nil)
      allow(watched).to receive(:take) { |id| answers.take(id).tap { asks << true } }
      second = Thread.new { one.as(who, watched) { one.serve { :second } } }
      2.times { asks.pop } # it has asked in vain, and asks again: it waits
      expect { one.as(who, answers) { one.serve { :third } } }.to raise_error(Gorvant::Server::OneByOne)
      expect(one.as(uuid, answers) { one.serve { :another } }).to eq(:another)
      gate << true
      first.join
      expect(second.value).to eq(:second)
    end

    it "is let go where it fails, serves what is asked for within it, and waits no longer than a moment" do
      expect { one.as(who, answers) { one.serve { raise "broken" } } }.to raise_error("broken")
      expect(one.as(who, answers) { one.serve { one.serve { :inner } } }).to eq(:inner)
      answers.take(who)
      stub_const("Gorvant::Server::OneEach::WAIT_SECONDS", 0.1)
      expect { one.as(who, answers) { one.serve { :never } } }.to raise_error(Gorvant::Server::OneByOne)
    end

    it "is waited for by nobody who has hung up, and whoever waits for an answer of their own slows it down for nobody" do
      answers.take(who)
      looks = [false, true].each
      waits = nil
      hung_up = -> { waits = [one.waiting, looks.next] and waits.last }
      asks = -> { one.as(who, answers) { one.serve { :never } } }
      expect { Gorvant::Patience.with(hung_up, &asks) }.to raise_error(Gorvant::GaveUp)
      expect([waits, one.waiting]).to eq([[1, true], 0])
      budget = Gorvant::Server::Budget
      gate = Queue.new
      Gorvant::Server::Warm::TURNS.serve do
        budget.count(2)
        waiting = Thread.new { Gorvant::Patience.with(-> { gate.pop }, &asks) }
        waiting.report_on_exception = false
        Thread.pass until one.waiting == 1
        expect(budget).not_to be_others
        gate << true
        expect { waiting.join }.to raise_error(Gorvant::GaveUp)
        expect(budget).to be_others
      ensure
        budget.count(-2)
      end
    end

    it "answers 429 and when to ask again, which the page does by itself" do
      db[:dear_answers].insert(user_id: ServerBench.viewer.user_id, holder: uuid, until: Time.now + 60)
      stub_const("Gorvant::Server::OneEach::WAIT_SECONDS", 0.1)
      send_json(:post, "/api/visits/#{visit_id}/wiring", {})
      expect([last_response.status, last_response["retry-after"]]).to eq([429, "1"])
      expect(answer["type"]).to eq("urn:gorvant:problem:one_by_one")
    end
  end
end
