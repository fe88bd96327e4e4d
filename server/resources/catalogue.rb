# frozen_string_literal: true

module Gorvant
  module Server
    # What the screens need to know of the trade: calls, instruments, symptoms, conductor colours. And who is looking.
    class CatalogueResource < Resource
      get "/api/catalogue" do
        json(calls: Catalogue.calls.map { |id, call| { id: id }.merge(call.slice("title", "key", "says").transform_keys(&:to_sym)) },
             instruments: Meter.instruments.map { |id, about| { id: id, title: about.fetch("title") } },
             symptoms: Catalogue.symptoms.map { |id, about| { id: id, title: about.fetch("title") } },
             components: Catalogue.components.map { |id, about| component(id, about) })
      end

      get "/api/viewer" do
        json(name: viewer.name, crew: viewer.crew_name, role: viewer.role)
      end

      get "/api/sites" do
        json(sites: sites.all)
      end

      get "/api/openapi.json" do
        json OPENAPI
      end

      OPENAPI = JSON.generate(YAML.safe_load_file(File.join(ROOT, "server", "openapi.yml"))).freeze

      private

      def component(id, about)
        { id: id, title: about.fetch("title"), does: about.fetch("does"), cautions: about.fetch("cautions", []).map { |key| Catalogue.cautions.fetch(key) } }
      end
    end
  end
end
