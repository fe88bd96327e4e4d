# frozen_string_literal: true

module Gorvant
  module Server
    # Records of field loggers as documents of an archive with their packed hours, and such documents as records.
    class ArchivedRecords < Repository
      KEPT = %w[mapping told on_off].freeze

      # [[document, packed hours]] of the records that are read, oldest first.
      def of(ids) = scoped.where(id: ids, state: "read").order(:created_at, :id).map { |row| document(row) }

      # Ids of the records of a unit that are read.
      def of_unit(unit_id) = scoped.where(unit_id: unit_id, state: "read").order(:created_at, :id).select_map(:id)

      # Takes in the records of a checked archive: [Archives::Outcome]. unit: the id of a unit by the names of its site
      # and its own.
      def take_in(archive, unit)
        archive.records.map do |id, document|
          [id, Archives::New.new(viewer.crew_id)[id]].each do |own|
            came = take(archive, document, own, unit) or next
            break outcome(document, own, came, own != id)
          end
        end
      end

      private

      def table = :logs
      def thing = "record"

      # --- out

      def document(row)
        unit = db[:units].where(id: row[:unit_id]).first
        index, bytes = Formats::RecordHours.join(hours(row[:id]))
        by = row[:by_name] || db[:users].where(id: row[:created_by]).get(:name)
        document = {
          "id" => row[:id],
          "site" => db[:sites].where(id: unit[:site_id]).get(:name),
          "unit" => unit[:name],
          "name" => row[:name],
          "created_at" => row[:created_at].utc.iso8601(6),
          "by" => by,
          **KEPT.to_h { |key| [key, JSON.parse(JSON.generate(row[key.to_sym]))] },
          "hours" => index
        }
        [document, bytes]
      end

      def hours(id) =
        db[:log_hours]
          .where(crew_id: viewer.crew_id, log_id: id)
          .order(:hour)
          .map do |row|
            {
              hour: row[:hour],
              content: Depot.current.bytes(row),
              minutes: row[:minutes].to_s.b,
              tens: row[:tens].to_s.b
            }
          end

      # --- in

      # "taken_in", or "there" for what is here just so; nil where somebody else's record has this id.
      def take(archive, document, id, unit)
        return there(archive, document, id) if scoped.where(id: id).any?

        made =
          db[:logs]
            .returning(:id)
            .insert_conflict
            .insert(
              owned(
                id: id,
                unit_id: unit.call(document["site"], document["unit"]),
                name: document["name"],
                state: "read",
                created_at: Time.iso8601(document["created_at"]),
                by_name: document["by"],
                request_digest: "archive",
                **KEPT.to_h { |key| [key.to_sym, Sequel.pg_jsonb_wrap(document[key])] }
              )
            )
        return nil if made.empty?

        keep_hours(document, archive.hours.fetch(document["id"]), id)
        "taken_in"
      end

      def keep_hours(document, bytes, id)
        Formats::RecordHours
          .split(document["hours"], bytes)
          .each do |one|
            packed = one.slice(:content, :minutes, :tens).transform_values { |part| Sequel.blob(part) }
            db[:log_hours].insert(crew_id: viewer.crew_id, log_id: id, hour: one[:hour], **packed)
          end
      end

      # Just the same, or refused: what is here already is never overwritten.
      def there(archive, document, id)
        row = scoped.where(id: id).first
        mine = row[:state] == "read" ? document(row) : [{}, ""]
        same =
          mine.first.except("id", "site", "unit") == document.except("id", "site", "unit") &&
            mine.last == archive.hours.fetch(document["id"])
        return "there" if same

        raise BadArchive.new(
                [
                  {
                    "field" => "records/#{document["id"]}.json",
                    "problem" =>
                      "is here already and was read otherwise since; nothing was taken in. Delete the one here first"
                  }
                ]
              )
      end

      def outcome(document, id, came, new_id)
        title = "#{document["site"]}, #{document["unit"]}, #{document["name"]}"
        Archives::Outcome.new(id: id, title: title, came: came, new_id: new_id)
      end
    end
  end
end
