# frozen_string_literal: true

require "rack"
require "rack/protection"

module Gorvant
  module Server
    # The whole application as one Rack app.
    module App
      RESOURCES = [
        NotationsResource,
        RigsResource,
        VisitsResource,
        ReadingsResource,
        WiringResource,
        ThermostatResource,
        PhotosResource,
        DefrostResource,
        FindResource,
        CatalogueResource,
        DemoResource,
        TasksResource
      ].freeze
      POLICY = {
        default_src: "'none'",
        script_src: "'self'",
        style_src: "'self' 'unsafe-inline'",
        img_src: "'self' data: blob:",
        font_src: "'self'",
        connect_src: "'self'",
        form_action: "'self'",
        base_uri: "'none'",
        frame_ancestors: "'none'",
        manifest_src: "'self'"
      }.freeze
      HOSTS = %w[127.0.0.1 localhost ::1 [::1]].freeze

      # db: a connected, migrated database. web: folder of the built front end, nil for none.
      def self.build(db, web: File.join(ROOT, "web", "dist"), hosts: HOSTS + ENV.fetch("GORVANT_HOSTS", "").split(","))
        api = api(db)
        Rack::Builder.app do
          use Rack::Deflater
          use Rack::ConditionalGet
          use Rack::ETag
          use Rack::Protection::HostAuthorization, permitted_hosts: hosts, logging: false
          use Rack::Protection::ContentSecurityPolicy, **POLICY
          use Rack::Protection::XSSHeader
          use Rack::Protection::HttpOrigin, logging: false
          use Headers
          use Guard
          pages = Pages.new(web)
          run ->(env) { env["PATH_INFO"].start_with?("/api/") ? api.call(env) : pages.call(env) }
        end
      end

      # Each resource answers its own addresses and hands on the others.
      def self.api(db)
        Rack::Builder.app do
          use Journal
          use Addresses
          use Budget
          RESOURCES.each { |resource| use Class.new(resource) { set :db, db } }
          run ->(env) { Addresses.missing(env) }
        end
      end
    end
  end
end
