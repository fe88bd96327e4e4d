# frozen_string_literal: true

require_relative "../support/server"

# Coming in, staying in and being let in: passwords, links, codes, delays.
RSpec.describe "People", :server do
  people = Gorvant::Server::People
  password = "reeds on the north shore"

  after { ServerBench.alone }

  def door = ServerBench.door
  def owner = ServerBench.viewer.user_id
  def post_as(user, path, body = {})
    as(user)
    send_json(:post, path, body)
  end

  def cookies = Array(last_response.headers["set-cookie"]).join("\n")
  def signed_in = fetch("/api/session") && answer["signed_in"]
  def sign_in(name, word, **more) = send_json(:post, "/api/session", { name: name, password: word, **more })

  # Gives the owner a name and password, as they do it in Settings.
  def name_owner(name: "Wren", word: "reeds on the north shore")
    post_as(owner, "/api/account/password", sign_in_name: name, password: word)
    expect(last_response.status).to eq(200)
  end

  # Somebody let in by a link: their id. The browser is theirs then.
  def join(role, name: "Olm Brandt", sign_in_name: "olm", word: "reeds on the north shore")
    post_as(owner, "/api/people/invitations", role: role)
    token = answer.fetch("path").delete_prefix("/welcome/")
    as(nil)
    send_json(
      :post,
      "/api/invitations/acceptance",
      token: token,
      name: name,
      sign_in_name: sign_in_name,
      password: word
    )
    answer.dig("viewer", "id")
  end

  describe "at the door" do
    it "come in by name and password, the name in any capitals, and go out for good" do
      name_owner
      as(nil)
      sign_in("WREN", password)
      expect([last_response.status, answer["viewer"]["name"]]).to eq([200, "Local owner"])
      expect(cookies).to match(/gorvant=.*httponly.*samesite=lax/i)
      kept = last_request.env["HTTP_COOKIE"].to_s + cookies[/gorvant=[^;]+/]
      expect(signed_in).to be(true)
      send_json(:post, "/api/session/end", {})
      clear_cookies
      set_cookie(kept[/gorvant=[^;]+/]) # the very cookie of before
      expect(signed_in).to be(false)
      fetch("/api/visits")
      expect(last_response.status).to eq(401)
    end

    it "hear one sentence, whatever was wrong, in one time" do
      name_owner
      as(nil)
      allow(Gorvant::Server::Attempts).to receive(:wait).and_return(0)
      tell = ->(name, word) { sign_in(name, word) && [last_response.status, last_response.body] }
      expect(tell.call("nobody here", password)).to eq(tell.call("Wren", "not the password"))
      spent = ->(name) do
        began = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)
        tell.call(name, "not the password")
        Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID) - began
      end
      # In turn, as a machine is not as fast at all times.
      nobody, wren = Array.new(9) { %w[nobody Wren].map(&spent) }.transpose.map(&:min)
      expect(nobody).to be_within(wren * 0.3).of(wren)
    end

    it "wait ever longer after failures, by name and address, and are never locked out" do
      name_owner
      sign_in("Wren", password) # a browser that its owner came in by
      own = rack_mock_session.cookie_jar.to_hash["gorvant_known"]
      as(nil)
      3.times { sign_in("Wren", "guessed at the door") }
      expect(last_response.status).to eq(401)
      sign_in("Wren", password)
      expect([last_response.status, last_response.headers["retry-after"]]).to eq([429, "1"])
      expect(answer["detail"]).to include("the next one in 1 s")

      sign_in("Olm", "another name") # from the same address, not waited for
      expect(last_response.status).to eq(401)
      set_cookie("gorvant_known=#{own}") # the owner's own browser is not made to wait by the stranger
      sign_in("Wren", password)
      expect(last_response.status).to eq(200)
    end

    it "wait 60 s at most, however many fail, and try again" do
      expect((0..12).map { |failures| Gorvant::Server::Attempts.wait(failures, 3, 60) }).to eq(
        [0, 0, 0, 1, 2, 4, 8, 16, 32, 60, 60, 60, 60]
      )
      name_owner
      as(nil)
      sign_in("Wren", "no")
      db[:sign_in_attempts].update(failures: 500, last_at: Time.now - 59)
      sign_in("Wren", password)
      expect(last_response.status).to eq(429)
      db[:sign_in_attempts].update(failures: 500, last_at: Time.now - 61)
      sign_in("Wren", password)
      expect(last_response.status).to eq(200)
    end

    it "get no more tries by asking all at once" do
      name_owner
      as(nil)
      tries =
        Array.new(8) do
          Thread.new do
            Gorvant::Server::Attempts.new(door, address: "10.0.0.9").take("Wren")
            :tried
          rescue Gorvant::Server::TooManyTries
            :waits
          end
        end
      expect(tries.map(&:value).tally).to eq(tried: 3, waits: 5)
    end

    it "bring no session of their own choosing" do
      name_owner
      before = ServerBench.cookie(owner)
      as(nil)
      set_cookie("gorvant=made-up-by-somebody")
      fetch("/api/session")
      sign_in("Wren", password)
      expect(cookies[/gorvant=[^;]+/]).not_to eq(before)
      expect(cookies[/gorvant=[^;]+/]).not_to include("made-up")
      expect(signed_in).to be(true)
    end

    it "stay as long as the session is young and used" do
      as(owner)
      expect(signed_in).to be(true)
      { created_at: 31, last_use: 15 }.each do |column, days|
        before = db[:sessions].get(column)
        db[:sessions].update(column => Time.now - (days * 86_400))
        as(owner)
        expect(signed_in).to be(false)
        db[:sessions].update(column => before)
      end
    end
  end

  describe "with a one-time code" do
    def code(secret, at = Time.now) = ROTP::TOTP.new(secret).at(at)

    # The secret and the recovery codes of the owner.
    def set_up
      name_owner
      post_as(owner, "/api/account/code/secret")
      secret = answer["secret"]
      expect(answer["svg"]).to include("<svg")
      send_json(:post, "/api/account/code", secret: secret, code: code(secret), password: "reeds on the north shore")
      expect(last_response.status).to eq(200)
      recovery = answer["recovery_codes"]
      db[:one_time_keys].update(last_use: Time.now - 120)
      as(nil)
      [secret, recovery]
    end

    it "are asked for it, come in by it, and by none a second time" do
      secret, = set_up
      sign_in("Wren", password)
      expect([last_response.status, answer["type"]]).to eq([401, "urn:gorvant:problem:code_wanted"])
      expect(signed_in).to be(false)
      now = code(secret)
      sign_in("Wren", password, code: now)
      expect(last_response.status).to eq(200)
      as(nil)
      sign_in("Wren", password, code: now)
      expect([last_response.status, answer["type"]]).to eq([401, "urn:gorvant:problem:not_let_in"])
    end

    it "come in by a recovery code once, and without the password not at all" do
      _secret, recovery = set_up
      expect(recovery.uniq.size).to eq(10)
      sign_in("Wren", "not the password", code: recovery.first)
      expect(last_response.status).to eq(401)
      sign_in("Wren", password, code: recovery.first)
      expect(last_response.status).to eq(200)
      as(nil)
      sign_in("Wren", password, code: recovery.first)
      expect(last_response.status).to eq(401)
    end

    it "set it up only with the code of the secret and the password, and take it off with the password" do
      name_owner
      secret = ROTP::Base32.random(20).downcase
      [[code(secret), "not the password", 401], ["000000", password, 422]].each do |given, word, status|
        post_as(owner, "/api/account/code", secret: secret, code: given, password: word)
        expect(last_response.status).to eq(status)
      end
      expect(db[:one_time_keys].count).to eq(0)
    end
  end

  describe "of the crew" do
    it "are invited by a link that works once, into the role that it names" do
      name_owner
      technician = join("technician")
      expect(answer["viewer"]).to include("name" => "Olm Brandt", "role" => "technician", "may_change" => true)
      token = last_request.env["gorvant.body"]["token"]
      as(nil)
      send_json(
        :post,
        "/api/invitations/acceptance",
        token: token,
        name: "Second",
        sign_in_name: "second",
        password: password
      )
      expect(last_response.status).to eq(404)
      expect(people.new(door).of(ServerBench.viewer.crew_id).map { |row| row[:id] }).to eq([owner, technician])
    end

    it "let in one of two who come by one link at once" do
      name_owner
      post_as(owner, "/api/people/invitations", role: "technician")
      token = answer["path"].delete_prefix("/welcome/")
      codes =
        Array.new(2) do |i|
          headers = nobody
          Thread.new do
            body = { token: token, name: "Twin #{i}", sign_in_name: "twin#{i}", password: "reeds on the shore" }
            session = Rack::Test::Session.new(ServerBench.app)
            session.post(
              "/api/invitations/acceptance",
              JSON.generate(body),
              "CONTENT_TYPE" => "application/json",
              "HTTP_HOST" => "127.0.0.1",
              **headers
            )
            session.last_response.status
          end
        end
      expect(codes.map(&:value)).to contain_exactly(200, 404)
    end

    it "cannot invite before they can sign in themselves: with a second account the start's link ends" do
      post_as(owner, "/api/people/invitations", role: "technician")
      expect([last_response.status, answer["detail"]]).to match([422, /set your own password first/])
      as(nil)
      send_json(:post, "/api/session/local", key: ServerBench::KEY)
      expect(last_response.status).to eq(200)
      name_owner
      join("technician")
      as(nil)
      send_json(:post, "/api/session/local", key: ServerBench::KEY)
      expect(last_response.status).to eq(403)
    end

    it "are refused a name that is taken, a password that is short, or one character again and again" do
      name_owner
      post_as(owner, "/api/people/invitations", role: "technician")
      token = answer["path"].delete_prefix("/welcome/")
      {
        { sign_in_name: "wren" } => "/sign_in_name",
        { password: "short" } => "/password",
        { password: "aaaaaaaaaaaa" } => "/password",
        { sign_in_name: "<b>" } => "/sign_in_name",
        { name: " " } => "/name"
      }.each do |wrong, field|
        as(nil)
        body = { token: token, name: "Olm", sign_in_name: "olm", password: password, **wrong }
        send_json(:post, "/api/invitations/acceptance", body)
        expect([last_response.status, answer["errors"].map { |one| one["field"] }]).to eq([422, [field]])
      end
      expect(db[:users].count).to eq(1)
    end

    it "as apprentices read, and change nothing" do
      name_owner
      join("apprentice", name: "Tilda Roe", sign_in_name: "tilda")
      fetch("/api/visits/#{visit_id}")
      expect(last_response.status).to eq(200)
      send_json(:post, "/api/visits/#{visit_id}/trace", condition: { call: "heat" })
      expect(last_response.status).to eq(200)
      fetch("/api/visits/#{visit_id}")
      before = answer
      send_json(:patch, "/api/visits/#{visit_id}", version: before["version"], complaint: "mine")
      expect([last_response.status, answer["detail"]]).to match([403, /an apprentice reads and practices/])
      fetch("/api/visits/#{visit_id}")
      expect(answer).to eq(before)
    end

    it "get another role or are closed, but for the last owner; what was read stays under its name" do
      name_owner
      olm = join("technician")
      reading = { id: uuid, from_node: "outdoor.C", to_node: "outdoor.Y", function: "volts_ac", value: 24.1 }
      reading.update(instrument: "high_impedance", condition: { call: "heat" }, taken_at: "2026-11-26T10:00:00Z")
      send_json(:post, "/api/visits/#{visit_id}/readings", reading)
      expect(last_response.status).to eq(201)
      post_as(owner, "/api/people/#{owner}/role", role: "technician")
      expect([last_response.status, answer["detail"]]).to match([422, /at least one owner/])
      post_as(owner, "/api/people/#{owner}/closing")
      expect(last_response.status).to eq(422)

      his = ServerBench.cookie(olm)
      post_as(owner, "/api/people/#{olm}/closing")
      expect(last_response.status).to eq(200)
      clear_cookies
      set_cookie(his)
      expect(signed_in).to be(false)
      sign_in("olm", password)
      expect(last_response.status).to eq(401)
      as(owner)
      fetch("/api/visits/#{visit_id}/readings")
      expect(answer["readings"].find { |row| row["id"] == reading[:id] }["taken_by"]).to eq("Olm Brandt")
    end

    it "come back by a link of the owner's: sessions end, the lost code is asked no more" do
      name_owner
      olm = join("technician")
      his = ServerBench.cookie(olm)
      db[:one_time_keys].insert(id: olm, key: ROTP::Base32.random(20).downcase)
      2.times { post_as(owner, "/api/people/#{olm}/way-back") }
      token = answer["path"].delete_prefix("/welcome/")
      as(nil)
      send_json(:post, "/api/invitations/look", token: token)
      expect(answer).to include("for" => "Olm Brandt", "sign_in_name" => "olm")
      send_json(:post, "/api/invitations/acceptance", token: token, password: "a second one, longer")
      expect(answer.dig("viewer", "id")).to eq(olm)
      clear_cookies
      set_cookie(his)
      expect(signed_in).to be(false)
      as(nil)
      sign_in("olm", "a second one, longer")
      expect(last_response.status).to eq(200)
      expect(db[:invitations].where(user_id: olm).exclude(revoked_at: nil).count).to eq(1) # the older link
    end

    it "leave a trail that the owner reads and nobody changes" do
      name_owner
      join("technician")
      as(owner)
      fetch("/api/audit")
      expect(answer["entries"].map { |row| [row["by"], row["says"]] }).to eq(
        [
          ["Olm Brandt", "came in by an invitation"],
          ["Local owner", "invited somebody"],
          ["Local owner", "set a new password"]
        ]
      )
      Gorvant::Server::Crew.as(ServerBench.viewer.crew_id) do
        expect(ServerBench.web[:audit_trail].count).to eq(3)
        expect { ServerBench.web[:audit_trail].delete }.to raise_error(Sequel::DatabaseError, /permission denied/)
        expect { ServerBench.web[:audit_trail].update(by: "nobody") }.to raise_error(Sequel::DatabaseError, /denied/)
      end
    end

    it "make another crew, which sees nothing of this one and has what it makes to itself" do
      name_owner
      post_as(owner, "/api/crews", name: "Fenwater crew")
      token = answer["path"].delete_prefix("/welcome/")
      as(nil)
      body = { token: token, name: "Ilse Marrow", sign_in_name: "ilse", password: password }
      send_json(:post, "/api/invitations/acceptance", body)
      expect(answer["viewer"]).to include("crew" => "Fenwater crew", "owner" => true, "server_owner" => false)
      fetch("/api/visits")
      expect(answer["visits"]).to eq([])
      fetch("/api/sites")
      expect(answer["sites"]).to eq([])
      fetch("/api/people")
      expect(answer["people"].map { |row| row["name"] }).to eq(["Ilse Marrow"])
      fetch("/api/audit")
      expect(answer["entries"].map { |row| row["by"] }).to eq(["Ilse Marrow"])
    end
  end

  describe "with a server that others may reach" do
    opening = ->(**how) { Gorvant::Server::Opening.new(bind: "127.0.0.1", public_url: "", key: "k", **how) }

    it "come in by the start's link only where it is for this machine alone" do
      {
        {} => true,
        { bind: "::1" } => true,
        { bind: "0.0.0.0" } => false,
        { bind: "192.0.2.4" } => false,
        { public_url: "https://crew.example" } => false,
        { key: "" } => false
      }.each { |how, open| expect(opening.call(**how).local?(people.new(door))).to be(open), how.inspect }
      as(nil)
      send_json(:post, "/api/session/local", key: "guessed")
      expect(last_response.status).to eq(403)
    end

    it "find nothing open behind a proxy that looks local" do
      as(nil)
      %w[127.0.0.1:9400 localhost].each do |host|
        get("/api/visits", {}, "HTTP_HOST" => host, "REMOTE_ADDR" => "127.0.0.1", "HTTP_X_FORWARDED_FOR" => "127.0.0.1")
        expect(last_response.status).to eq(401)
      end
    end

    it "do not find it open at all before its owner has a password" do
      public_one = opening.call(public_url: "https://crew.example")
      expect { public_one.check!(people.new(door)) }.to raise_error(
        Gorvant::Server::Refused,
        %r{no password yet; set one with bin/owner-reset}
      )
      expect { opening.call.check!(people.new(door)) }.not_to raise_error
      name_owner
      expect { public_one.check!(people.new(door)) }.not_to raise_error
      expect([public_one.https?, public_one.host]).to eq([true, "crew.example"])
    end
  end
end
