# frozen_string_literal: true

module Gorvant
  module Server
    # What the screens need to know of the trade: calls, instruments, symptoms, conductor colors. And who is looking.
    class CatalogueResource < Resource
      get "/api/catalogue" do
        json(
          calls:
            Catalogue.calls.map do |id, call|
              { id: id }.merge(call.slice("title", "key", "says").transform_keys(&:to_sym))
            end,
          instruments: Meter.instruments.map { |id, about| { id: id, title: about.fetch("title") } },
          functions: Observation.functions.map { |id, about| function(id, about) },
          symptoms:
            Catalogue.symptoms.map do |id, about|
              { id: id, title: about.fetch("title"), at: about.fetch("at"), opens: about.fetch("opens") }
            end,
          kits:
            Catalogue.kits.map do |id, about|
              { id: id, title: about.fetch("title"), says: about.fetch("says"), picture: about.fetch("picture") }
            end,
          degrees: Request::DEGREES.transform_values { |range| { low: range[:gteq?], high: range[:lteq?] } },
          safety:
            Catalogue.safety.map { |id, about| { id: id, says: about.fetch("says"), needs: about.fetch("needs", {}) } },
          facts: Catalogue.facts.map { |key, about| fact(key, about) },
          sources: %w[diagram measured told assumed],
          words: Notation::Vocabulary.all.map { |word| { id: word, title: Notation::Vocabulary.title(word) } },
          components: Catalogue.components.map { |id, about| component(id, about) },
          practice: Present.practice_catalogue
        )
      end

      get "/api/viewer" do
        json Present.viewer(viewer)
      end

      get "/api/sites" do
        json(sites: sites.all)
      end

      get "/api/openapi.json" do
        json OPENAPI
      end

      OPENAPI = JSON.generate(YAML.safe_load_file(File.join(ROOT, "server", "openapi.yml"))).freeze

      private

      # What a person reads, and of what; points, loads and facts are named by the rig in hand.
      def function(id, about)
        {
          id: id,
          title: about["title"],
          unit: about["unit"],
          at: about["at"],
          open: about.fetch("open", false),
          instruments: Observation.instruments(id).map { |one, title| { id: one, title: title } },
          cautions: about.fetch("cautions", []).map { |key| Catalogue.cautions.fetch(key) },
          places: about.fetch("places", {}).map { |place, named| place(about, place, named) }
        }
      end

      def place(about, id, named)
        return { id: id, title: named, note: false, choices: [] } unless named.is_a?(Hash)

        choices = named["choices"] ? named["choices"].keys + [Observation::UNTOLD] : []
        {
          id: id,
          title: named["title"],
          note: named.fetch("note", false),
          choices: choices.map { |choice| { id: choice, title: about.fetch("choices").fetch(choice) } }
        }
      end

      # A question of the composer. Choices are a list, since JSON objects have only text for keys.
      def fact(key, about)
        {
          key: key,
          title: about["title"],
          asks: about["asks"],
          group: about["group"],
          kind: about["kind"],
          low: about["kind"] == "table" ? nil : about["low"],
          high: about["kind"] == "table" ? nil : about["high"],
          unit: about["unit"],
          delta: about.fetch("delta", false),
          columns: about.fetch("columns", []),
          choices: about.fetch("of", {}).map { |value, says| { value: value, says: says } }
        }
      end

      def component(id, about)
        {
          id: id,
          title: about.fetch("title"),
          does: about.fetch("does"),
          cautions: about.fetch("cautions", []).map { |key| Catalogue.cautions.fetch(key) }
        }
      end
    end
  end
end
