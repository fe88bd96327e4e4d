# frozen_string_literal: true

require "json"

module Gorvant
  module Formats
    # gorvant-rig/2: a rig as JSON; /1 knew neither the maker's codes, nor factory colors, nor tables as facts. Reading
    # checks the schema first and then the sense; writing gives back what was read, in the oldest version that holds it,
    # so that a rig keeps its digest.
    module RigJson
      SCHEMA = "gorvant-rig/2"
      OLDER = "gorvant-rig/1"
      # What /1 took for so where a file said nothing; /2 takes what is more usual today.
      OLD_DEFAULTS = { "safeties" => %w[LPS DTS HPS].freeze, "changeover_terminal" => "separate" }.freeze
      MOST_PROBLEMS = 20
      SCHEMAS = Schemas.new

      class << self
        # From text. Raises BadRigFile with JSON pointers.
        def parse(text)
          read(JSON.parse(text, max_nesting: 30))
        rescue JSON::ParserError => e
          raise BadRigFile.new([{ "field" => "/", "problem" => "is not JSON: #{e.message[0, 200]}" }])
        end

        # From parsed JSON.
        def read(content)
          problems =
            SCHEMAS
              .of((content.is_a?(Hash) && content["schema"] == OLDER ? OLDER : SCHEMA).tr("/", "-"))
              .validate(content)
              .first(MOST_PROBLEMS)
              .map { |error| problem(error) }
          raise BadRigFile.new(problems) if problems.any?

          known(content)
        end

        # From parsed JSON that `read` has taken before.
        def known(content) = Rig.build(**fields(upgraded(content)))

        # What an older version says, in the words of the newest: a pure step.
        def upgraded(content)
          return content unless content["schema"] == OLDER

          unsaid =
            OLD_DEFAULTS.to_h { |key, value| [key, { "value" => value, "provenance" => { "source" => "assumed" } }] }
          content.merge("schema" => SCHEMA, "facts" => unsaid.merge(content.fetch("facts", {})))
        end

        # To a Hash that `read` gives back as an equal rig.
        def dump(rig)
          newer = newer?(rig)
          {
            "schema" => newer ? SCHEMA : OLDER,
            "name" => rig.name,
            "archetype" => rig.archetype,
            "note" => rig.note,
            "facts" =>
              rig
                .facts
                .reject { |key, fact| !newer && unsaid?(key, fact) }
                .transform_values { |fact| { "value" => fact.value, "provenance" => provenance_out(fact.provenance) } },
            "cables" => rig.cables.map { |cable| cable_out(cable) },
            "jumpers" => rig.jumpers.map { |jumper| strings(jumper) },
            **%i[terminal_names maker_codes factory_colors]
              .to_h { |name| [name.to_s, rig.public_send(name)] }
              .reject { |_name, map| map.empty? }
          }.compact
        end

        # SHA-256 of the content, key order aside: the name of a revision.
        def digest(rig) = Digest::SHA256.hexdigest(JSON.generate(sorted(dump(rig))))

        private

        # What /1 takes for so without a word.
        def unsaid?(key, fact) = OLD_DEFAULTS[key] == fact.value && fact.provenance == Provenance.new(source: "assumed")

        def newer?(rig)
          OLD_DEFAULTS.keys.any? { |key| !rig.facts.key?(key) } || rig.maker_codes.any? || rig.factory_colors.any? ||
            rig.facts.any? { |key, _fact| Catalogue.facts.dig(key, "kind") == "table" }
        end

        def fields(content)
          {
            name: content["name"],
            archetype: content["archetype"],
            note: content["note"],
            facts:
              content
                .fetch("facts", {})
                .transform_values do |fact|
                  Fact.new(value: fact["value"].freeze, provenance: provenance(fact["provenance"]))
                end
                .freeze,
            cables: content["cables"].map { |cable| cable_in(cable) }.freeze,
            **%i[terminal_names maker_codes factory_colors].to_h { |name| [name, content.fetch(name.to_s, {}).freeze] },
            jumpers:
              content
                .fetch("jumpers", [])
                .map { |jumper| Jumper.new(**symbols(jumper), provenance: provenance(jumper["provenance"])) }
                .freeze
          }
        end

        def cable_in(cable)
          conductors =
            cable["conductors"].map do |conductor|
              splices = conductor.fetch("splices", []).map { |splice| Splice.new(**symbols(splice)) }.freeze
              Conductor.new(
                **symbols(conductor).except(:splices),
                splices: splices,
                provenance: provenance(conductor["provenance"])
              )
            end
          Cable.new(**symbols(cable), conductors: conductors.freeze, provenance: provenance(cable["provenance"]))
        end

        def cable_out(cable) =
          strings(cable).merge("conductors" => cable.conductors.map { |conductor| conductor_out(conductor) })

        def conductor_out(conductor)
          if conductor.splices.empty?
            strings(conductor).except("splices")
          else
            strings(conductor).merge("splices" => conductor.splices.map { |splice| strings(splice) })
          end
        end

        def provenance(hash) = hash && Provenance.new(**symbols(hash))
        def provenance_out(provenance) = strings(provenance)
        def symbols(hash) = hash.except("provenance", "conductors").transform_keys(&:to_sym)

        def strings(value)
          value.to_h.compact.to_h { |key, inner| [key.to_s, inner.is_a?(Provenance) ? provenance_out(inner) : inner] }
        end

        def sorted(value)
          case value
          when Hash
            value.sort.to_h { |key, inner| [key, sorted(inner)] }
          when Array
            value.map { |inner| sorted(inner) }
          else
            value
          end
        end

        # A sentence for one schema error: what is there, what would be right.
        def problem(error)
          field = error.fetch("data_pointer")
          { "field" => field.empty? ? "/" : field, "problem" => sentence(error) }
        end

        def sentence(error)
          schema = error.fetch("schema")
          case error.fetch("type")
          when "required"
            "lacks #{error.dig("details", "missing_keys").map { |key| "'#{key}'" }.join(", ")}"
          when "schema"
            "is not known here; remove it or correct its name"
          when "enum"
            "has to be one of #{schema["enum"].join(", ")}, not #{shown(error)}"
          when "const"
            "has to be #{schema["const"].inspect}, not #{shown(error)}"
          when "pattern"
            "has to be a short plain name such as 'cable_a' or 'W2_out', not #{shown(error)}"
          when "format"
            "has to be a #{schema["format"]}, not #{shown(error)}"
          when "string", "number", "integer", "boolean", "array", "object"
            "has to be of type #{error.fetch("type")}, not #{shown(error)}"
          else
            "#{error.fetch("error").sub(/\Avalue at `[^`]*` /, "")} (given #{shown(error)})"
          end
        end

        def shown(error) = JSON.generate(error.fetch("data"))[0, 60]
      end
    end
  end
end
