# frozen_string_literal: true

require "digest"
require "json"
require "yaml"

module Gorvant
  # What varies without new physics: components, facts, calls, profile numbers, wording. Read once from core/data,
  # frozen. The core's only file reading. Every number carries its unit in its name and a key of docs/sources.md.
  module Catalogue
    DATA = File.expand_path("../../../data", __dir__)

    class << self
      # { option's code => { "component", "fact", "asks", "string", "across", ... } }: what a unit may have or not
      def options = table("options")
      # { component code => { "title", "kind", ... } }, those of the options among them
      def components =
        with_options(:components) { |all| all.merge(options.transform_values { |one| one["component"] }) }
      # { fact key => { "title", "kind", "default", ... } }, those of the options among them
      def facts = with_options(:facts) { |all| facts_with(all, options) }
      # { "functions", "instruments", thresholds }: what a person reads, and how it is held
      def evidence = table("evidence")
      # { name => number, share or list }: what could be so, and what its tests cost
      def diagnosis = table("diagnosis")
      # { kind => { meaning => [how people say it] } }
      def sayings = table("sayings")
      # { desk id => { "title", "built" } }: the pages of a visit in the order of work
      def desks = table("desks")
      # { board family => { fact key => value } }
      def boards = table("boards")
      # { call id => { "title", "key", "closes", ... } }
      def calls = table("calls")
      # { group => { name => number or nested } }: thresholds and physical defaults
      def profile = table("profile")
      # { caution id => { "says", "source" } }
      def cautions = table("cautions")
      # { finding code => { "title", "severity", "says", ... } }
      def findings = table("findings")
      # { kind of fault => { "title", "is", "shows", "proof", "prior" } }
      def faults = table("faults")
      # { archetype id => { "title", "places", ... } }
      def archetypes = table("archetypes")
      # { key => template }
      def wording = table("wording")
      # { rule of a run => { "says", "as_designed" } }
      def sequence = table("sequence")
      # { script to begin with => { "title", "hours", "start", "moves", "needs" } }
      def scripts = table("scripts")
      # { mark of a drawing => { "title", "says", "line" or "symbol" } }
      def legend = table("legend")
      # { weight => { advance width in thousandths => characters } } of the shipped type
      def type = table("type")
      # { color => { "code", "title" } } of conductors
      def colors = table("colors")
      # { item => { "says", "needs" } } of what to see to before a hand goes in
      def safety = table("safety")
      # { code of a verdict => { "verdict", "title", "says", "not_proved", "next_step" } }
      def verdicts = table("verdicts")
      # { "columns", "limits", thresholds }: a field logger's record and how it is read
      def recorded = table("recorded")
      # { climate => { "title", "wind_mph", "months" } }, made up
      def climates = table("climates")
      # { group => { name => number } } of the frost model
      def frost = table("frost")
      # { id => { "title", "points" } } of the made-up thermistor tables
      def sensor_tables = table("sensor_tables")
      # { kind of board => [steps of its forced test] }
      def forced_test = table("forced_test")
      # { usual kit => { "title", "says", "picture", "facts" } }
      def kits = table("kits")
      # { setting => { "usual" } }: what is changed for a test and forgotten
      def put_back = table("put_back")
      # { "minutes", "unsafe", "subjects", "levels", "score", "traps" }: the practice bench
      def practice = table("practice")
      # { symptom id => { "title", ... } }
      def symptoms = table("symptoms")
      # { quantity => { "stays", "other", "per_other", "zero" } }; JSON, since the pages read the same file
      def measures = table("measures", "json")

      # The style sheet of exported drawings.
      def print_style = @print_style ||= text(File.join(DATA, "print_style.css")).freeze

      # The JSON Schema document of one version of an open format, e.g. "gorvant-rig-1".
      def schema(name) =
        (@schemas ||= {})[name] ||= freeze_deep(JSON.parse(text(File.join(DATA, "schemas", "#{name}.json"))))

      # A template of wording.yml filled with fields.
      def words(key, **fields) = format(wording.fetch(key), fields)

      # SHA-256 over every file of the catalogue: part of the key under which computed results are kept.
      def digest
        @digest ||=
          Digest::SHA256.hexdigest(Dir[File.join(DATA, "**", "*.{yml,json,css}")].map { |path| text(path) }.join("\0"))
      end

      private

      # A table with what the options add, made once for these options.
      def with_options(name)
        @with_options ||= Hash.new { |hash, key| hash[key] = {}.compare_by_identity }
        @with_options[name][options] ||= yield(table(name.to_s)).freeze
      end

      # Each option's question where its entry puts it, and the switches of a string among that fact's answers.
      def facts_with(all, options)
        strings = options.values.filter_map { |one| one["string"] }.uniq
        all = strings.inject(all) { |facts, string| facts.merge(string => with_choices(facts.fetch(string), string)) }
        asked = options.values.select { |one| one["asks"] }
        until asked.empty?
          now, asked = asked.partition { |one| all.key?(one["after"]) }
          raise ArgumentError.new("no fact #{asked.first["after"]} to come after") if now.empty?

          now.each { |one| all = put_after(all, one["after"], one["fact"], one["asks"]) }
        end
        all
      end

      def with_choices(fact, string)
        choices = options.select { |_code, one| one["string"] == string }.transform_values { |one| one["choice"] }
        fact.merge("of" => choices.freeze).freeze
      end

      def put_after(all, before, key, about)
        list = all.to_a
        list.insert(list.index { |one, _| one == before } + 1, [key, about]).to_h
      end

      # UTF-8 whatever the locale is.
      def text(path) = File.read(path, encoding: "UTF-8")

      def table(name, kind = "yml")
        (@tables ||= {})[name] ||= freeze_deep(YAML.safe_load(text(File.join(DATA, "#{name}.#{kind}")), aliases: true))
      end

      def freeze_deep(value)
        case value
        when Hash
          value.each_value { |inner| freeze_deep(inner) }
        when Array
          value.each { |inner| freeze_deep(inner) }
        end
        value.freeze
      end
    end
  end
end
