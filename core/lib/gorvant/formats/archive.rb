# frozen_string_literal: true

require "date"
require "digest"
require "json"
require "time"

module Gorvant
  # An archive that cannot be taken in; problems: [{ "field" => file and place in it, "problem" => words }].
  class BadArchive < BadAsFound
    says "%<count>d thing(s) wrong with this archive; first: %<first>s"
  end

  module Formats
    # gorvant-archive/3: visits with all that belongs to them, recorded defrosts, and what a crew keeps beside them, as
    # files: manifest.json with the SHA-256 of each other, visits/ID.json, rigs/ID.json, photos/ID.jpg, records/ID.json
    # with records/ID.hours, shelf.json. /1 knew no records, /2 no shelf; an archive is written as the oldest that holds
    # what is in it. The checksums find damage and what was changed by hand without care; they promise no more.
    class Archive
      FORMATS = %w[gorvant-archive/1 gorvant-archive/2 gorvant-archive/3].freeze
      SCHEMA_OF = { "record" => "gorvant-archive-2", "shelf" => "gorvant-archive-3" }.freeze
      MANIFEST = "manifest.json"
      SHELF = "shelf.json"
      UUID = /\h{8}(?:-\h{4}){3}-\h{12}/
      NAMES =
        %r{\A(?:manifest\.json|shelf\.json|visits/#{UUID}\.json|rigs/#{UUID}\.json|photos/#{UUID}\.jpg|
        records/#{UUID}\.(?:json|hours))\z}x
      MOST_PROBLEMS = 20
      SCHEMAS = Schemas.new
      TIMES = %w[created_at updated_at taken_at received_at retracted_at reopened_at].freeze
      # Of a reading, what Observation.parse takes.
      FLAGS = %w[about open isolated].freeze
      SEEN = (%w[function from_node to_node place value value_high choice instrument] + FLAGS).freeze

      # visits, rigs, records: { id => document }; photos, hours: { id => bytes }; shelf: a document, or nil.
      attr_reader :visits, :rigs, :photos, :records, :hours, :shelf

      class << self
        # { name => bytes } of documents. records: [[document, packed hours one after the other]]; shelf: a document or
        # nil; made_at: ISO 8601, made_by: the crew's name.
        def files(visits:, rigs:, photos:, made_at:, made_by:, records: [], shelf: nil)
          files = {
            **visits.to_h { |visit| ["visits/#{visit.dig("visit", "id")}.json", JSON.generate(visit)] },
            **rigs.to_h { |rig| ["rigs/#{rig["id"]}.json", JSON.generate(rig)] },
            **photos.transform_keys { |id| "photos/#{id}.jpg" },
            **records.to_h { |record, _hours| ["records/#{record["id"]}.json", JSON.generate(record)] },
            **records.to_h { |record, hours| ["records/#{record["id"]}.hours", hours] },
            **(shelf ? { SHELF => JSON.generate(shelf) } : {})
          }
          sums = files.transform_values { |bytes| Digest::SHA256.hexdigest(bytes) }
          format = FORMATS[shelf ? 2 : [records.size, 1].min]
          manifest = { "format" => format, "made_at" => made_at, "made_by" => made_by, "files" => sums.sort.to_h }
          { MANIFEST => JSON.generate(manifest), **files }
        end

        # By what two archives are the same, whenever they were made.
        def digest(files) = Digest::SHA256.hexdigest(JSON.generate(JSON.parse(files.fetch(MANIFEST))["files"].sort))

        # From { name => bytes }. Raises BadArchive.
        def read(files) = new(files)
      end

      def initialize(files)
        @problems = []
        check_files(files)
        @visits = documents(files, "visits", "visit") { |document| document.dig("visit", "id") }
        @rigs = documents(files, "rigs", "rig") { |document| document["id"] }
        @records = documents(files, "records", "record") { |document| document["id"] }
        @photos, @hours = %w[photos/ records/].map { |folder| bytes(files, folder) }
        @shelf = files.key?(SHELF) ? shelf_document(files[SHELF]) : nil
        stop
        check_sense
        stop
      end

      # { revision id => Rig }
      def revisions =
        @revisions ||=
          rigs.values.flat_map { |rig| rig["revisions"] }.to_h { |one| [one["id"], RigJson.read(one["content"])] }

      private

      def wrong(field, problem) = @problems << { "field" => field, "problem" => problem }
      def stop = @problems.any? ? raise(BadArchive.new(@problems.first(MOST_PROBLEMS))) : nil

      # --- files

      def check_files(files)
        manifest = json(files[MANIFEST], MANIFEST)
        stop
        version(manifest)
        against("manifest", manifest, MANIFEST, manifest["format"].tr("/", "-"))
        stop
        sums = manifest["files"]
        (sums.keys | (files.keys - [MANIFEST])).each do |name|
          next wrong(name, "is in the archive, and its manifest does not know it") unless sums.key?(name)
          next wrong(name, "is missing from the archive") unless files.key?(name)

          sum = Digest::SHA256.hexdigest(files[name])
          wrong(name, "is damaged or was changed: its checksum is another one") if sum != sums[name]
        end
        stop
      end

      def version(manifest)
        given = manifest["format"].to_s
        return if FORMATS.include?(given)

        newer = given.start_with?("gorvant-archive/")
        wrong(
          MANIFEST,
          newer ? "is #{given[0, 40]}, and this program reads #{FORMATS.join(", ")}" : "is no archive of this program"
        )
        stop
      end

      # { id => bytes } of what is no document.
      def bytes(files, folder) =
        files
          .select { |name, _bytes| name.start_with?(folder) && !name.end_with?(".json") }
          .transform_keys { |name| name[UUID] }

      def documents(files, folder, schema)
        files
          .select { |name, _bytes| name.start_with?("#{folder}/") && name.end_with?(".json") }
          .filter_map do |name, bytes|
            document = json(bytes, name) or next
            against(schema, document, name)
            next if @problems.any?

            wrong(name, "holds another id than its name says") if yield(document) != name[UUID]
            [name[UUID], document]
          end
          .to_h
      end

      def shelf_document(bytes) = json(bytes, SHELF)&.tap { |document| against("shelf", document, SHELF) }

      def json(bytes, name)
        return wrong(name, "is missing from the archive") && nil unless bytes

        text = bytes.dup.force_encoding(Encoding::UTF_8)
        return wrong(name, "is not valid UTF-8") && nil unless text.valid_encoding?
        return wrong(name, "holds the null character") && nil if text.match?(/\\u0000|\u0000/)

        JSON.parse(text, max_nesting: 60).tap { |value| wrong(name, "has to be an object") unless value.is_a?(Hash) }
      rescue JSON::ParserError => e
        wrong(name, "is not JSON: #{e.message[0, 120]}") && nil
      end

      def against(schema, document, name, version = SCHEMA_OF.fetch(schema, "gorvant-archive-1"))
        SCHEMAS
          .part(version, schema)
          .validate(document)
          .first(MOST_PROBLEMS)
          .each do |error|
            wrong("#{name}#{error.fetch("data_pointer")}", error.fetch("error").sub(/\A\S+ at `[^`]*` /, ""))
          end
      end

      # --- sense

      def check_sense
        rigs.each do |id, rig|
          rig["revisions"].each_with_index { |one, i| revision(one, "rigs/#{id}.json/revisions/#{i}") }
        end
        return if @problems.any?

        visits.each { |id, document| visit(document, "visits/#{id}.json") }
        (records.keys | hours.keys).each { |id| record(id) }
        shelved if shelf
      end

      # Each rig of the shelf is in the archive, each set of numbers and each table is one that a crew could keep.
      def shelved
        lacking = shelf["rigs"] - rigs.keys
        wrong("#{SHELF}/rigs", "names rigs that are not in the archive: #{lacking.first}") if lacking.any?
        shelf["setting_profiles"].each_with_index do |one, i|
          next if Desks::Thermostat.labels?(one["labels"])

          wrong("#{SHELF}/setting_profiles/#{i}/labels", Desks::Thermostat::LABELS)
        end
        shelf["sensor_tables"].each_with_index { |one, i| sensor_table(one, "#{SHELF}/sensor_tables/#{i}/points") }
      end

      # As a maker's table that comes in: its lines less the heading are the points.
      def sensor_table(one, at)
        text = ["degrees_f,ohms", *one["points"].map { |point| point.join(",") }].join("\n")
        read = SensorTableCsv.read(text, id: one["id"], title: one["name"])
        read.refused.each { |row| wrong("#{at}/#{[row[:line] - 2, 0].max}", row[:problem]) }
      end

      def revision(one, at)
        rig = RigJson.read(one["content"])
        wrong("#{at}/digest", "is not the digest of its content") if RigJson.digest(rig) != one["digest"]
      rescue BadRig => e
        wrong("#{at}/content#{e.field}", e.fields[:problem])
      rescue BadRigFile => e
        e.problems.each { |problem| wrong("#{at}/content#{problem["field"]}", problem["problem"]) }
      end

      # What a record's columns are, and that its hours can be read.
      def record(id)
        at = "records/#{id}.json"
        return wrong(at, "is missing from the archive") unless records.key?(id)
        return wrong("records/#{id}.hours", "is missing from the archive") unless hours.key?(id)

        document = records[id]
        moments(document, at)
        ids = FieldLogMapping.parse(document["mapping"], document["mapping"]["names"].size).ids
        RecordHours.problem(document["hours"], ids, hours[id])&.then { |says| wrong("records/#{id}.hours", says) }
      rescue BadFieldLog => e
        e.problems.each { |problem| wrong("#{at}#{problem["field"]}", problem["problem"]) }
      end

      def visit(document, at)
        rig = revisions[document.dig("visit", "rig_revision_id")]
        return wrong("#{at}/visit/rig_revision_id", "names a rig that is not in the archive") unless rig

        moments(document.except("desks", "closings"), at)
        document["closings"].each_with_index { |one, i| moments(one.except("content"), "#{at}/closings/#{i}") }
        unknown = document.dig("visit", "symptoms") - Catalogue.symptoms.keys
        wrong("#{at}/visit/symptoms", "unknown: #{unknown.first[0, 40]}") if unknown.any?
        closing(document, at)
        document["desks"].each_with_index { |desk, i| desk(desk, rig, "#{at}/desks/#{i}") }
        document["readings"].each_with_index { |reading, i| reading(reading, document, "#{at}/readings/#{i}") }
        pictures(document, at)
      end

      def pictures(document, at)
        document["photos"].each_with_index do |photo, i|
          wrong("#{at}/photos/#{i}", "has no picture in the archive") unless photos.key?(photo["id"])
        end
      end

      # Days and times that no calendar has.
      def moments(value, at)
        case value
        when Hash
          value.each do |key, inner|
            moments(inner, "#{at}/#{key}")
            next unless inner.is_a?(String) && (TIMES.include?(key) || key == "visit_on")

            wrong("#{at}/#{key}", "is no day or time that there is") unless moment?(key, inner)
          end
        when Array
          value.each_with_index { |inner, i| moments(inner, "#{at}/#{i}") }
        end
      end

      def moment?(key, text)
        key == "visit_on" ? Date.iso8601(text) : Time.iso8601(text)
        true
      rescue ArgumentError
        false
      end

      def closing(document, at)
        number = document.dig("visit", "closed_number") or return
        held = document["closings"].find { |one| one["number"] == number && one["reopened_at"].nil? }
        wrong("#{at}/visit/closed_number", "names a closing that is not there, or was opened again") unless held
      end

      def desk(desk, rig, at)
        return wrong("#{at}/desk", "unknown desk #{desk["desk"][0, 40]}") unless Desks.keeping.include?(desk["desk"])

        Desks.keep(desk["desk"], desk["content"], rig)
      rescue BadAsFound, BadHistory => e
        e.problems.each { |problem| wrong("#{at}/content#{problem["field"]}", problem["problem"]) }
      end

      def reading(reading, document, at)
        unless Observation.functions.key?(reading["function"])
          wrong("#{at}/function", "unknown; known are #{Observation.functions.keys.join(", ")}")
        end
        unless revisions.key?(reading["rig_revision_id"])
          wrong("#{at}/rig_revision_id", "names a rig that is not in the archive")
        end
        before = reading["supersedes_id"]
        if before && document["readings"].none? { |other| other["id"] == before }
          wrong("#{at}/supersedes_id", "names a reading that is not in the archive")
        end
        seen(reading, at) if revisions.key?(reading["rig_revision_id"])
      end

      # Whether it is anything that can be read of its own rig.
      def seen(reading, at)
        condition = Condition.parse(reading["condition"])
        trace =
          (@traces ||= {})[[reading["rig_revision_id"], condition.call]] ||= Trace.new(
            revisions[reading["rig_revision_id"]],
            Condition.new(call: condition.call)
          )
        Observation.parse(
          reading.slice(*SEEN).reject { |key, value| value.nil? || (FLAGS.include?(key) && !value) },
          trace
        )
      rescue BadCondition => e
        wrong("#{at}/condition", e.message[0, 200])
      rescue BadObservation => e
        wrong("#{at}#{e.field}", e.fields[:problem])
      end
    end
  end
end
