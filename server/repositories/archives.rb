# frozen_string_literal: true

module Gorvant
  module Server
    # Visits as documents of an archive, and documents as visits. Authors become names; ids are kept where they are free
    # or the crew's own, else all of a visit get new ones, the same each time.
    class Archives < Repository
      TIMES = %w[created_at updated_at taken_at received_at retracted_at reopened_at].freeze
      JSON_COLUMNS = %w[symptoms safety carried condition expected moment choice content].freeze
      # { table => columns as an archive has them }
      COLUMNS = {
        visits: %w[
          id
          visit_on
          complaint
          symptoms
          safety
          outdoor_degrees_f
          set_point_degrees_f
          room_degrees_f
          carried
          rig_revision_id
          version
          created_at
          closed_number
          closed_as
        ],
        readings: %w[
          id
          rig_revision_id
          circuit
          function
          from_node
          to_node
          place
          instrument
          condition
          expected
          moment
          choice
          verdict
          says
          note
          value
          value_high
          about
          open
          isolated
          taken_at
          received_at
          created_at
          retracted_at
          supersedes_id
        ],
        visit_desks: %w[desk version content mark updated_at],
        photos: %w[id of fact_key note created_at],
        closings: %w[id number mark content digest created_at reopened_at reopened_why],
        rig_revisions: %w[id number digest content created_at]
      }.freeze
      # Of one rig: as many as an archive may hold.
      MOST_REVISIONS = 500
      # Somebody else's row has one of these ids.
      class Taken < StandardError
      end
      # What a visit of an archive came to: "taken_in", "there" (just the same), under which id, and whether a new one.
      Outcome = Value.define(:id, :title, :came, :new_id)

      # { name => bytes } of an archive of these visits and records.
      def files(visit_ids, record_ids = [])
        rows = scoped.where(id: visit_ids).order(:visit_on, :id).all
        documents = rows.map { |row| document(row) }
        revisions =
          documents.flat_map { |one| [one["visit"], *one["readings"]] }.map { |one| one["rig_revision_id"] }.uniq
        photos = documents.flat_map { |one| one["photos"].map { |photo| photo["id"] } }
        Formats::Archive.files(
          visits: documents,
          rigs: rigs(revisions),
          photos: photo_bytes(photos),
          records: record_ids.any? ? records.of(record_ids) : [],
          made_at: Time.now.utc.iso8601,
          made_by: viewer.crew_name
        )
      end

      # { id => bytes }
      def photo_bytes(ids) =
        db[:photos]
          .where(crew_id: viewer.crew_id, id: ids)
          .select(:id, :content, :object_key)
          .to_h { |row| [row[:id], Depot.current.bytes(row)] }

      # Takes in a checked Formats::Archive, all of it or nothing: [Outcome].
      def take_in(archive)
        archive.visits.map do |id, document|
          db.transaction(savepoint: true) { take(archive, document, id, Own.new) }
        rescue Taken
          db.transaction(savepoint: true) { take(archive, document, id, New.new(viewer.crew_id)) }
        end
      end

      # Ids of the crew's rigs, by age.
      def rigs_kept = db[:rigs].where(crew_id: viewer.crew_id).order(:created_at, :id).select_map(:id)

      # { name => bytes } of an archive of these rigs with their revisions; whole: and of what else the crew has beside
      # its visits.
      def shelf_files(rig_ids, whole:)
        of = ->(id) { db[:rig_revisions].where(crew_id: viewer.crew_id, rig_id: id).reverse(:number) }
        revisions = rig_ids.flat_map { |id| of.call(id).limit(MOST_REVISIONS).select_map(:id) }
        Formats::Archive.files(
          visits: [],
          rigs: rigs(revisions),
          photos: {
          },
          shelf: shelf.document(rig_ids, whole: whole),
          made_at: Time.now.utc.iso8601,
          made_by: viewer.crew_name
        )
      end

      # What a checked archive holds of a crew's shelf: [Outcome].
      def take_in_shelf(archive)
        return [] unless archive.shelf

        [*archive.shelf["rigs"].map { |id| shelve(archive.rigs.fetch(id)) }, *shelf.take_in(archive.shelf)]
      end

      # Ids of a unit's records that can go along.
      def records_of(unit_id) = records.of_unit(unit_id)

      # Its records: [Outcome].
      def take_in_records(archive)
        names = Sites.new(db, viewer)
        records.take_in(archive, ->(site, unit) { names.unit_id(site, unit) })
      end

      # Ids as they are, and new ones that follow from crew and old id.
      Own = Class.new { def [](id) = id }
      New = Struct.new(:crew_id) { def [](id) = id && Ids.of("gorvant #{crew_id} #{id}") }

      private

      def records = ArchivedRecords.new(db, viewer)
      def shelf = Shelf.new(db, viewer)
      def table = :visits
      def thing = "visit"

      # --- out

      def document(row)
        unit = db[:units].where(id: row[:unit_id]).first
        site = db[:sites].where(id: unit[:site_id]).first
        {
          "site" => {
            "name" => site[:name],
            "notes" => site[:notes]
          },
          "unit" => {
            "name" => unit[:name],
            "notes" => unit[:notes],
            **{ "installed_year" => unit[:installed_year] }.compact
          },
          "visit" => out(:visits, row, :created_by),
          "readings" => rows(:readings, row[:id], %i[received_at id], :created_by),
          "desks" => rows(:visit_desks, row[:id], %i[desk], :changed_by),
          "photos" => rows(:photos, row[:id], %i[created_at id], :created_by),
          "closings" =>
            rows(:closings, row[:id], %i[number], :created_by).each { |one| one["reopened_by"] = reopener(one["id"]) }
        }
      end

      def reopener(id)
        row = db[:closings].where(id: id).select(:reopened_by, :reopened_name).first
        row[:reopened_name] || (row[:reopened_by] && name_of(row[:reopened_by]))
      end

      def rows(table, visit_id, order, author) =
        db[table].where(crew_id: viewer.crew_id, visit_id: visit_id).order(*order).map { |row| out(table, row, author) }

      def rigs(revision_ids)
        revisions = db[:rig_revisions].where(crew_id: viewer.crew_id, id: revision_ids).order(:number).all
        names = db[:rigs].where(id: revisions.map { |row| row[:rig_id] }).select_hash(:id, :name)
        revisions
          .group_by { |row| row[:rig_id] }
          .map do |rig_id, list|
            {
              "id" => rig_id,
              "name" => names.fetch(rig_id),
              "revisions" => list.map { |row| out(:rig_revisions, row, :created_by) }
            }
          end
      end

      def out(table, row, author)
        values = COLUMNS.fetch(table).to_h { |column| [column, plain_out(row[column.to_sym])] }
        values["by"] = row[:by_name] || name_of(row[author])
        values
      end

      def plain_out(value)
        case value
        when Time
          value.utc.iso8601(6)
        when Date
          value.iso8601
        when nil, String, Numeric, true, false
          value
        else
          JSON.parse(JSON.generate(value))
        end
      end

      def name_of(user_id) = (@names ||= {})[user_id] ||= db[:users].where(id: user_id).get(:name)

      # --- in

      def take(archive, document, old_id, ids)
        id = ids[old_id]
        return there(archive, document, id, ids) if scoped.where(id: id).any?

        mapped = ids.is_a?(Own) ? document : renamed(document, ids)
        take_rigs(archive, document, ids)
        unit = unit_of(document)
        insert(:visits, mapped["visit"], unit_id: unit, safety: mapped["visit"]["safety"] || [], demo: false)
        insert_parts(archive, document, mapped, id)
        Outcome.new(id: id, title: title(document), came: "taken_in", new_id: id != old_id)
      end

      # Just the same, or refused: what is here already is never overwritten.
      def there(archive, document, id, ids)
        mine = self.class.new(db, viewer).send(:document, scoped.where(id: id).first)
        theirs = ids.is_a?(Own) ? document : renamed(document, ids)
        same = mine.except("site", "unit") == with_all_columns(theirs).except("site", "unit")
        if same
          out_of_the_bin(document, id)
          return Outcome.new(id: id, title: title(document), came: "there", new_id: id != document.dig("visit", "id"))
        end

        raise BadArchive.new(
                [
                  {
                    "field" => "visits/#{archive.visits.key(document)}.json",
                    "problem" =>
                      "is here already and has gone on since; nothing was taken in. Delete the one here first"
                  }
                ]
              )
      end

      # What was thrown away and comes again is in sight again.
      def out_of_the_bin(document, id)
        unit_of(document)
        db[:visits].where(crew_id: viewer.crew_id, id: id).update(binned_at: nil, binned_by: nil)
      end

      # What an archive leaves out, as a row has it.
      def with_all_columns(document)
        fill = ->(table, one) { COLUMNS.fetch(table).to_h { |column| [column, one[column]] }.merge(one) }
        document.merge("visit" => fill.call(:visits, document["visit"]))
      end

      def insert_parts(archive, document, mapped, id)
        ordered(mapped["readings"]).each { |one| insert(:readings, one, visit_id: id) }
        mapped["desks"].each { |one| insert(:visit_desks, one, visit_id: id) }
        mapped["photos"].zip(document["photos"]) do |one, old|
          bytes = archive.photos.fetch(old["id"])
          shrunk = Pictures.shrink(bytes)
          insert(
            :photos,
            one,
            visit_id: id,
            content: Sequel.blob(bytes),
            **shrunk.slice(:width, :height),
            small: Sequel.blob(shrunk[:small])
          )
        end
        mapped["closings"].each do |one|
          insert(:closings, one.except("reopened_by"), visit_id: id, reopened_name: one["reopened_by"])
        end
      end

      # A correction comes after what it corrects.
      def ordered(readings)
        done, left = readings.partition { |one| one["supersedes_id"].nil? }
        until left.empty?
          ready, left = left.partition { |one| done.any? { |other| other["id"] == one["supersedes_id"] } }
          if ready.empty?
            raise BadArchive.new([{ "field" => "readings", "problem" => "correct each other in a circle" }])
          end

          done.concat(ready)
        end
        done
      end

      def take_rigs(archive, document, ids)
        wanted = [document["visit"], *document["readings"]].map { |one| one["rig_revision_id"] }
        archive.rigs.each_value do |rig|
          revisions = rig["revisions"].select { |one| wanted.include?(one["id"]) }
          next if revisions.empty?

          rig_id = ids[rig["id"]]
          own(:rigs, rig_id, name: rig["name"], request_digest: "archive", demo: false)
          revisions.each { |one| take_revision(one, ids[one["id"]], rig_id) }
        end
      end

      # A rig with all of its revisions, under ids of its own or new ones.
      def shelve(rig)
        before = db[:rig_revisions].where(crew_id: viewer.crew_id).count
        id = [Own.new, New.new(viewer.crew_id)].each { |ids| made = rig_under(rig, ids) and break made }
        came = db[:rig_revisions].where(crew_id: viewer.crew_id).count == before ? "there" : "taken_in"
        Outcome.new(id: id, title: rig["name"], came: came, new_id: id != rig["id"])
      end

      # Its id; nil where one of these ids is somebody else's, or a revision of that number is another one here.
      def rig_under(rig, ids)
        db.transaction(savepoint: true) do
          own(:rigs, id = ids[rig["id"]], name: rig["name"], request_digest: "archive", demo: false)
          rig["revisions"].each { |one| take_revision(one, ids[one["id"]], id) }
          id
        end
      rescue Taken
        raise if ids.is_a?(New)
      end

      def take_revision(one, id, rig_id)
        there = db[:rig_revisions].where(crew_id: viewer.crew_id, id: id).get(:digest)
        raise Taken if there && there != one["digest"]
        return if there

        insert(:rig_revisions, one.merge("id" => id), rig_id: rig_id)
      end

      def own(table, id, **fields)
        return if db[table].where(crew_id: viewer.crew_id, id: id).any?

        made = db[table].returning(:id).insert_conflict.insert(owned(id: id, **fields))
        raise Taken if made.empty?
      end

      def insert(table, values, **fields)
        columns = COLUMNS.fetch(table)
        row =
          columns
            .select { |column| values.key?(column) }
            .to_h { |column| [column.to_sym, plain_in(column, values[column])] }
        author = table == :visit_desks ? :changed_by : :created_by
        row = row.merge(:crew_id => viewer.crew_id, author => viewer.user_id, :by_name => values["by"], **fields)
        row[:request_digest] = "archive" if %i[visits readings photos closings].include?(table)
        row[:safety] = Sequel.pg_jsonb_wrap(fields[:safety]) if fields.key?(:safety)
        made = db[table].returning(Sequel.lit("1 AS made")).insert_conflict.insert(row)
        raise Taken if made.empty?
      end

      def plain_in(column, value)
        return value && Time.iso8601(value) if TIMES.include?(column)
        return value if value.nil? && column != "choice"

        JSON_COLUMNS.include?(column) ? (value.nil? ? nil : Sequel.pg_jsonb_wrap(value)) : value
      end

      def unit_of(document)
        site, unit = document.values_at("site", "unit")
        about = { "site" => site["name"], "site_notes" => site["notes"], "unit" => unit["name"] }
        Sites.new(db, viewer).noted_unit(about.merge(unit.slice("notes", "installed_year")))
      end

      def title(document)
        "#{document.dig("site", "name")}, #{document.dig("unit", "name")}, #{document.dig("visit", "visit_on")}"
      end

      # The document with every id of its own exchanged, wherever it stands; what was closed stays as it was closed.
      def renamed(document, ids)
        mine =
          [
            document.dig("visit", "id"),
            *%w[readings photos closings].flat_map { |key| document[key].map { |one| one["id"] } },
            *[document["visit"], *document["readings"]].map { |one| one["rig_revision_id"] }
          ].to_h { |old| [old, ids[old]] }
        exchange(document, mine)
      end

      def exchange(value, map)
        case value
        when Hash
          value.to_h { |key, inner| [key, key == "content" && value.key?("digest") ? inner : exchange(inner, map)] }
        when Array
          value.map { |inner| exchange(inner, map) }
        else
          map.fetch(value, value)
        end
      end
    end
  end
end
