# frozen_string_literal: true

require_relative "core"
require "rack/test"
require "securerandom"
require "openapi_first"
require_relative "../../server/boot"

# One database for the run, emptied of what a spec made.
module ServerBench
  def self.db = @db ||= Gorvant::Server::Database.connect.tap { |db| Gorvant::Server::Database.migrate(db) }
  def self.viewer = Gorvant::Server::Viewer.local_owner(db)
  def self.app = @app ||= Gorvant::Server::App.build(db)
  def self.demo = Gorvant::Server::Demo.new(db, viewer)

  def self.empty
    %i[
      tasks
      setting_profiles
      sensor_tables
      readings
      visits
      rig_revisions
      rigs
      units
      sites
      computed_results
      settings
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
  end

  # Keeps what a desk of a visit holds, on the version that it has now or on another.
  def keep_desk(visit, desk, content, version: nil)
    version ||= fetch(visit) && answer.dig("desks", desk, "version")
    send_json(:put, "#{visit}/desks/#{desk}", version: version, content: content)
  end

  def fetch(path)
    @sent = ""
    get(path, {}, "HTTP_HOST" => "127.0.0.1")
  end

  # The number of the rig's revision that the visit goes by.
  def revision =
    db[:visits].join(:rig_revisions, id: :rig_revision_id).where(Sequel[:visits][:id] => visit_id).get(:number)

  def visit_id =
    db[:visits].join(:units, id: :unit_id).where(Sequel[:units][:name] => "North unit").get(Sequel[:visits][:id])
end

RSpec.configure do |config|
  config.include(ServerBench, :server)
  config.before(:each, :server) do
    ServerBench.empty
    ServerBench.demo.load
  end
end
