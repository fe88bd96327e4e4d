# frozen_string_literal: true

require "rack"
require "rack/protection"
require "roda/session_middleware"

module Gorvant
  module Server
    # The whole application as one Rack app.
    module App
      RESOURCES = [
        SessionResource,
        AccountResource,
        PeopleResource,
        DevicesResource,
        NotationsResource,
        RigsResource,
        VisitsResource,
        UnitsResource,
        SearchResource,
        ArchivesResource,
        ExportsResource,
        BinResource,
        ReadingsResource,
        WiringResource,
        ThermostatResource,
        PhotosResource,
        DefrostResource,
        RecordedResource,
        FindResource,
        CloseOutResource,
        PracticeResource,
        CoursesResource,
        CatalogueResource,
        DemoResource,
        TasksResource
      ].freeze
      POLICY = {
        default_src: "'none'",
        script_src: "'self' 'wasm-unsafe-eval'", # the engine that is taken along; no eval of script
        style_src: "'self'",
        img_src: "'self' data: blob:",
        font_src: "'self'",
        connect_src: "'self'",
        form_action: "'self'",
        base_uri: "'none'",
        frame_ancestors: "'none'",
        manifest_src: "'self'",
        worker_src: "'self'"
      }.freeze
      HOSTS = %w[127.0.0.1 localhost ::1 [::1]].freeze

      WEB = File.join(ROOT, "web", "dist")

      # db: a connected, migrated database, as role web; door: the same as role door. web: folder of the built front
      # end, nil for none. opening: how this server stands to the world. secret: that cookies are made with.
      def self.build(db, door, web: WEB, opening: Opening.new, secret: self.secret)
        api = api(db, door, opening, secret)
        hosts = HOSTS + ENV.fetch("GORVANT_HOSTS", "").split(",") + [opening.host].compact
        Rack::Builder.app do
          use Insistent
          use Health, { web: db, door: door }
          use Rack::Deflater, if: ->(_env, _status, headers, _body) { headers["content-type"] != "application/zip" }
          use Rack::ConditionalGet
          use Rack::ETag
          use Rack::Protection::HostAuthorization, permitted_hosts: hosts, logging: false
          use Rack::Protection::ContentSecurityPolicy, **POLICY
          use Rack::Protection::XSSHeader
          use Rack::Protection::HttpOrigin, logging: false, permitted_origins: [opening.public_url].reject(&:empty?)
          use Headers
          use Guard
          pages = Pages.new(web)
          run ->(env) { env["PATH_INFO"].start_with?("/api/") ? api.call(env) : pages.call(env) }
        end
      end

      # Several processes on one database are given the same.
      def self.secret
        given = ENV["GORVANT_SECRET"].to_s
        given.bytesize >= Door::SECRET_BYTES ? given : SecureRandom.hex(Door::SECRET_BYTES)
      end

      # Each resource answers its own addresses and hands on the others.
      def self.api(db, door, opening, secret)
        Rack::Builder.app do
          use Journal
          use Addresses
          use ToldAlready
          use RodaSessionMiddleware, **Door.cookie(secret, opening.https?)
          use Door.onto(door, secret)
          use Access, door, db
          use CsrfToken
          use Limits.onto(door)
          use Stream, db, door
          use Budget
          RESOURCES.each do |resource|
            use Class.new(resource) {
                  set :db, db
                  set :door, door
                  set :opening, opening
                  set :secret, secret
                }
          end
          run ->(env) { Addresses.missing(env) }
        end
      end
    end
  end
end
