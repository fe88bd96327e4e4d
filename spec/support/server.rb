# frozen_string_literal: true

require_relative "core"
require "rack/test"
require "securerandom"
require "openapi_first"
require_relative "../../server/boot"

# Of two processes of a run the second has a database of its own.
if ENV["TEST_ENV_NUMBER"] == "2"
  ENV["GORVANT_BESIDE"].to_s.lines(chomp: true).each { |one| ENV.store(*one.split("=", 2)) }
end

# Acts at a bench wait for nothing here; that they do is told by what is waited.
Gorvant::Server::EvenTime.pause = ->(_seconds) {}

# One database for the run, emptied of what a spec made.
module ServerBench
  # As the owner of the tables, who sees every crew's; the application has what its roles have.
  def self.db = @db ||= Gorvant::Server::Database.connect.tap { |db| Gorvant::Server::Database.migrate(db) }
  def self.web = @web ||= db && Gorvant::Server::Database.connect(as: :web)
  def self.door = @door ||= db && Gorvant::Server::Database.connect(as: :door)
  def self.viewer = Gorvant::Server::Viewer.local_owner(db)
  def self.app = @app ||= build
  def self.build(**options) = Gorvant::Server::App.build(web, door, opening: OPENING, secret: SECRET, **options)
  KEY = "the start's own secret"
  SECRET = SecureRandom.hex(64)
  OPENING = Gorvant::Server::Opening.new(bind: "127.0.0.1", public_url: "", key: KEY)

  # The cookie of somebody's session, made once for the run as long as nobody signs it out.
  def self.cookie(user_id = viewer.user_id)
    cookie, key = cookies[user_id]
    return cookie if cookie && db[:sessions].where(user_id: user_id, session_key: key).any?

    session = RodaSessionMiddleware.new(door_for(user_id), Gorvant::Server::Door.cookie(SECRET, false))
    cookie = Array(session.call(Rack::MockRequest.env_for("/"))[1]["set-cookie"]).first[/\A[^;]+/]
    cookies[user_id] = [cookie, db[:sessions].where(user_id: user_id).reverse(:created_at).get(:session_key)]
    cookie
  end

  # What the session of somebody's cookie says at each write: the same for all of a run.
  TOKEN = SecureRandom.urlsafe_base64(32, padding: false)

  def self.cookies = @cookies ||= {}

  # A door that lets this one in, whoever knocks.
  def self.door_for(user_id)
    let_in = ->(env) do
      rodauth = env.fetch(Gorvant::Server::Door::RODAUTH)
      Gorvant::Server::SignIn.new(rodauth, nil).let_in(user_id, "local")
      env.fetch("rack.session")[:csrf] = TOKEN
      [200, {}, []]
    end
    Gorvant::Server::Door.onto(door, SECRET).new(let_in)
  end

  # Somebody of a crew; whose, where a spec says nothing, is the owner's.
  def self.person(name, role, crew: viewer.crew_id, **fields) =
    db[:users].returning(:id).insert(crew_id: crew, name: name, role: role, **fields).first[:id]

  # Back to the one owner and what they had.
  def self.alone
    empty
    %i[sign_in_attempts rate_counts invitations audit_trail devices].each { |table| db[table].delete }
    owner = viewer.user_id
    db[:users].exclude(id: owner).delete
    db[:crews].exclude(id: viewer.crew_id).delete
    %i[sessions one_time_keys recovery_codes passkeys passkey_challenges].each { |table| db[table].delete }
    db[:users].where(id: owner).update(sign_in_name: nil, password_hash: nil, role: "owner", server_owner: true)
  end

  def self.demo = Gorvant::Server::Demo.new(db, viewer, records: false)

  # Nothing but the demo data. Loaded once a run, then put back as the first load left it: an example waits 1.6 s less.
  def self.fresh
    empty
    return @first_load.put_back if @first_load

    before = db.tables.select { |table| db[table].any? } # what an earlier run left: accounts, their trail
    demo.load
    @first_load = Rows.new(db, db.tables - before)
  end

  # What a run's tables hold at a moment.
  class Rows
    # Those before which others are there: what a row points to is put back first.
    ORDER = %i[settings sites units rigs rig_revisions visits].freeze
    MADE_BY_TRIGGERS = %i[search_documents search_words].freeze

    def initialize(db, tables)
      @db = db
      ordered = (ORDER & tables) + (tables - ORDER - MADE_BY_TRIGGERS)
      @rows = ordered.filter_map { |table| [table, columns(table), db.copy_table(own(table))] if any?(table) }
    end

    def put_back =
      @db.transaction { @rows.each { |table, columns, rows| @db.copy_into(table, columns: columns, data: rows) } }

    private

    def any?(table) = @db[table].any?
    def own(table) = @db[table].select(*columns(table))

    # Without those that the database works out from others.
    def columns(table) = @db.schema(table).reject { |_, about| about[:generated] }.map(&:first)
  end

  def self.empty
    %i[
      drill_tries
      courses
      drills
      logs
      logger_types
      tasks
      setting_profiles
      sensor_tables
      readings
      find_marks
      visits
      rig_revisions
      rigs
      units
      sites
      computed_results
      events
      settings
      archive_parts
      export_parts
      export_files
      exports
      rate_counts
      dear_answers
      stored_objects
    ].each { |table| db[table].delete }
  end

  include Rack::Test::Methods

  def app = ServerBench.app
  def db = ServerBench.db
  def uuid = SecureRandom.uuid
  def answer = JSON.parse(last_response.body)

  def send_json(method, path, body)
    @sent = body.is_a?(String) ? body : JSON.generate(body)
    public_send(method, path, @sent, "CONTENT_TYPE" => "application/json", "HTTP_HOST" => "127.0.0.1")
    hear
  end

  # Keeps what a desk of a visit holds, on the version that it has now or on another.
  def keep_desk(visit, desk, content, version: nil)
    version ||= fetch(visit) && answer.dig("desks", desk, "version")
    send_json(:put, "#{visit}/desks/#{desk}", version: version, content: content)
  end

  def fetch(path)
    @sent = ""
    get(path, {}, "HTTP_HOST" => "127.0.0.1")
    hear
  end

  # The token for the next write, where an answer tells one: as a page does.
  def hear
    token = last_response["x-csrf-token"]
    header("X-CSRF-Token", token) if token
    last_response
  end

  # Headers of somebody who has not come in.
  def nobody
    answer = Rack::MockRequest.new(app).get("/api/session", "HTTP_HOST" => "127.0.0.1")
    cookie = Array(answer["set-cookie"]).join("; ")[/gorvant=[^;]+/]
    { "HTTP_COOKIE" => cookie, "HTTP_X_CSRF_TOKEN" => answer["x-csrf-token"] }
  end

  # Who asks from here on: the owner where a spec says nothing else, nobody for nil.
  def as(user_id)
    clear_cookies
    return fetch("/api/session") unless user_id

    set_cookie(ServerBench.cookie(user_id))
    header("X-CSRF-Token", TOKEN)
  end

  # The number of the rig's revision that the visit goes by.
  def revision =
    db[:visits].join(:rig_revisions, id: :rig_revision_id).where(Sequel[:visits][:id] => visit_id).get(:number)

  # The demo's iced unit: the first visit to it, whatever came since.
  def visit_id =
    db[:visits]
      .join(:units, id: :unit_id)
      .where(Sequel[:units][:name] => "North unit")
      .order(Sequel[:visits][:created_at])
      .get(Sequel[:visits][:id])
end

RSpec.configure do |config|
  config.include(ServerBench, :server)
  config.before(:each, :server) do
    ServerBench.fresh
    as(ServerBench.viewer.user_id)
  end
end
