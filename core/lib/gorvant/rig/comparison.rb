# frozen_string_literal: true

module Gorvant
  # What differs between two rigs, in words: answers, landings, jumpers.
  module Comparison
    # field: JSON pointer. title: what it is. before, after: words, nil for nothing.
    Difference = Value.define(:field, :title, :before, :after)

    class << self
      # [Difference]
      def of(before, after)
        name(before, after) + facts(before, after) + landings(before, after) + jumpers(before, after)
      end

      # A fact's value in words.
      def words(key, value)
        about = Catalogue.facts.fetch(key)
        case about["kind"]
        when "choice"
          about["of"].fetch(value, value)
        when "flag"
          value ? "yes" : "no"
        when "list"
          value.empty? ? "none" : value.join(", ")
        when "table"
          value.map { |first, second| "#{format("%g", first)}: #{format("%g", second)}" }.join(", ")
        else
          "#{format("%g", value)} #{about["delta"] ? Measures::DELTA : about["unit"]}"
        end
      end

      private

      def name(before, after) =
        if before.name == after.name
          []
        else
          [Difference.new(field: "/name", title: "Name", before: before.name, after: after.name)]
        end

      def facts(before, after)
        Catalogue.facts.filter_map do |key, about|
          values = [before, after].map { |rig| rig.asks?(key) ? words(key, rig[key]) : nil }
          sources = [before, after].map { |rig| rig.facts[key]&.provenance&.source || "assumed" }
          next if values.uniq.size == 1 && (sources.uniq.size == 1 || values.first.nil?)

          shown = values.zip(sources).map { |value, source| value && "#{value} (#{source})" }
          Difference.new(field: "/facts/#{key}", title: about["title"], before: shown[0], after: shown[1])
        end
      end

      def landings(before, after)
        both =
          [before, after].map do |rig|
            rig
              .cables
              .flat_map do |cable|
                cable.conductors.map do |conductor|
                  [
                    "#{cable.id}.#{conductor.id}",
                    "#{conductor.from || "capped"} – #{conductor.to || "capped"}" +
                      (conductor.splices.any? ? ", spliced" : "")
                  ]
                end
              end
              .to_h
          end
        different("/cables/", both) { |id| id.tr("._", "  ") }
      end

      def jumpers(before, after)
        different(
          "/jumpers/",
          [before, after].map do |rig|
            rig.jumpers.to_h do |jumper|
              [jumper.id, "#{jumper.from}–#{jumper.to} at the #{rig.place_title(jumper.place)}"]
            end
          end
        ) { |id| "Jumper #{id.tr("_", " ")}" }
      end

      def different(pointer, both)
        (both[0].keys | both[1].keys).filter_map do |id|
          values = both.map { |one| one[id] }
          unless values.uniq.size == 1
            Difference.new(field: "#{pointer}#{id}", title: yield(id), before: values[0], after: values[1])
          end
        end
      end
    end
  end
end
