# frozen_string_literal: true

require "webauthn/fake_client"
require_relative "../support/server"

# Passkeys: made by who has the password, opened by a device that knows its person, worth nothing elsewhere.
RSpec.describe "A passkey", :server do
  home = "https://crew.example"
  password = "reeds on the north shore"
  opening = Gorvant::Server::Opening.new(bind: "127.0.0.1", public_url: home)
  reached = ServerBench.build(opening: opening)

  let(:app) { reached }
  let(:device) { WebAuthn::FakeClient.new(home) }
  let(:owner) { ServerBench.viewer.user_id }

  before do
    db[:users].where(id: owner).update(
      sign_in_name: "wren",
      password_hash: Gorvant::Server::Door.password_hash(password)
    )
  end

  after { ServerBench.alone }

  define_method(:say) do |path, body = {}|
    @sent = JSON.generate(body)
    post("#{home}#{path}", @sent, "CONTENT_TYPE" => "application/json")
    hear
    answer
  end

  define_method(:look) do |path|
    @sent = ""
    get("#{home}#{path}")
    hear
    answer
  end

  define_method(:browse) do |user_id|
    clear_cookies
    return look("/api/session") unless user_id

    set_cookie(ServerBench.cookie(user_id), URI("#{home}/"))
    header("X-CSRF-Token", ServerBench::TOKEN)
  end

  def question = say("/api/account/passkeys/question", password: "reeds on the north shore").fetch("challenge")

  # The owner's, made by a device: the answer.
  def make(by: device, asked: question, name: "Phone in the van", **how)
    made = by.create(challenge: asked, user_verified: true, **how)
    say("/api/account/passkeys", name: name, challenge: asked, credential: made)
  end

  def ask_at_door = say("/api/session/passkey/question").fetch("challenge")

  def come_in(by: device, asked: ask_at_door, **how)
    say("/api/session/passkey", challenge: asked, credential: by.get(challenge: asked, user_verified: true, **how))
    [last_response.status, answer["type"].to_s[/\w+\z/] || answer.dig("viewer", "name")]
  end

  not_known = [401, "passkey_not_known"]

  it "is made behind the password, opens without it, past the code, and is told with its uses" do
    browse(owner)
    expect(look("/api/session")["passkeys"]).to be(true)
    say("/api/account/passkeys/question", password: "not the password")
    expect(last_response.status).to eq(401)
    expect(make["passkeys"]).to match(
      [include("name" => "Phone in the van", "host" => "crew.example", "last_use" => nil)]
    )
    db[:one_time_keys].insert(id: owner, key: ROTP::Base32.random(20).downcase)
    browse(nil)
    expect(come_in).to eq([200, "Local owner"])
    expect(look("/api/account")["passkeys"].first["last_use"]).to be_a(String)
    expect(db[:audit_trail].where(kind: "passkey").get(:about)).to eq("Phone in the van")
  end

  it "lets in by no answer twice, by no old question, by no other device, place or unchecked person" do
    browse(owner)
    make
    browse(nil)
    asked = ask_at_door
    expect(come_in(asked: asked)).to eq([200, "Local owner"])
    browse(nil)
    expect(come_in(asked: asked)).to eq(not_known)
    old = ask_at_door
    db[:passkey_challenges].update(made_at: Time.now - Gorvant::Server::Passkeys::OPEN_SECONDS - 1)
    expect(come_in(asked: old)).to eq(not_known)
    stranger = WebAuthn::FakeClient.new(home).tap { |one| one.create(rp_id: "crew.example") }
    expect(come_in(by: stranger)).to eq(not_known)
    expect(come_in(user_verified: false)).to eq(not_known)
    expect(come_in(user_handle: "somebody else's")).to eq(not_known)
    expect(come_in(sign_count: 0)).to eq(not_known) # a copy counts less than was seen
    expect(look("/api/session")["signed_in"]).to be(false)
  end

  it "answers a page of another address nothing" do
    browse(owner)
    authenticator = WebAuthn::FakeAuthenticator.new
    make(by: WebAuthn::FakeClient.new(home, authenticator: authenticator))
    bait = WebAuthn::FakeClient.new("https://crew-example.test", authenticator: authenticator)
    browse(nil)
    expect(come_in(by: bait, rp_id: "crew.example")).to eq(not_known)
    expect(come_in(by: WebAuthn::FakeClient.new(home, authenticator: authenticator))).to eq([200, "Local owner"])
  end

  it "is kept for who was asked, once, in time, from this address, and a device's once" do
    browse(owner)
    refused = ->(field) { expect([last_response.status, answer.dig("errors", 0, "field")]).to eq([422, field]) }
    mine = question
    other = ServerBench.person("Olm Brandt", "technician", password_hash: Gorvant::Server::Door.password_hash(password))
    browse(other)
    make(asked: mine)
    refused.call("/challenge")
    browse(owner)
    make(by: WebAuthn::FakeClient.new("https://elsewhere.example"))
    refused.call("/credential")
    made = device.create(challenge: asked = question, user_verified: true)
    say("/api/account/passkeys", name: "One", challenge: asked, credential: made)
    expect(last_response.status).to eq(201)
    say("/api/account/passkeys", name: "Again", challenge: asked, credential: made)
    refused.call("/challenge")
    { "name" => " ", "challenge" => "?", "credential" => "x" }.each do |field, bad|
      say("/api/account/passkeys", { name: "A", challenge: question, credential: made }.merge(field.to_sym => bad))
      refused.call("/#{field}")
    end
    [{}, { "id" => 7 }, { "id" => "a", "type" => "public-key", "response" => [] }].each do |junk|
      say("/api/account/passkeys", name: "A", challenge: question, credential: junk)
      refused.call("/credential")
      say("/api/session/passkey", challenge: ask_at_door, credential: junk)
      expect(last_response.status).to be_between(401, 422)
    end
    expect(db[:passkeys].select_map(:name)).to eq(["One"])
  end

  it "goes by its person's hand, by a way back, and with the account, and opens nothing then" do
    browse(owner)
    id = make.dig("passkeys", 0, "id")
    browse(ServerBench.person("Tilda Roe", "owner"))
    say("/api/account/passkeys/#{id}/removal")
    expect(last_response.status).to eq(404)
    browse(owner)
    expect(say("/api/account/passkeys/#{id}/removal")["passkeys"]).to eq([])
    expect(come_in).to eq(not_known)
    people = Gorvant::Server::People.new(ServerBench.door)
    { without_others_than_password: [owner], close: [ServerBench.viewer.crew_id, owner] }.each do |how, whom|
      browse(owner)
      second = WebAuthn::FakeClient.new(home)
      make(by: second)
      expect(come_in(by: second)).to eq([200, "Local owner"])
      people.public_send(how, *whom)
      browse(nil)
      expect(come_in(by: second)).to eq(not_known)
    end
    db[:users].where(id: owner).update(closed_at: nil, role: "owner")
  end

  it "is not called unknown where the database is away" do
    browse(owner)
    make
    browse(nil)
    asked = ask_at_door
    allow(Gorvant::Server::Passkeys).to receive(:new).and_wrap_original do |make_one, door|
      make_one.call(door).tap { |keys| allow(keys).to receive(:by_credential).and_raise(Sequel::PoolTimeout) }
    end
    come_in(asked: asked)
    expect(last_response.status).to eq(503)
  end

  it "is for a name with TLS, and for nothing else" do
    {
      "https://crew.example:8443" => true,
      "https://crew.example" => true,
      "http://crew.example" => false,
      "https://192.0.2.4" => false,
      "https://[2001:db8::4]" => false,
      "" => false
    }.each { |url, possible| expect(Gorvant::Server::Opening.new(public_url: url).passkeys?).to be(possible), url }
    expect(Gorvant::Server::Opening.new(public_url: "https://Crew.example:8443/").origin).to eq(
      "https://crew.example:8443"
    )
    plain = Rack::MockRequest.new(ServerBench.app).get("/api/session", "HTTP_HOST" => "127.0.0.1")
    expect(JSON.parse(plain.body)["passkeys"]).to be(false)
    look("/api/session")
  end
end
