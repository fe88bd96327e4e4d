# frozen_string_literal: true

module Gorvant
  module Server
    # What a crew keeps beside its visits, as a document of an archive and back: units with their notes, its own numbers
    # of settings, its own thermistor tables; the rigs by their ids. Names that are taken by something else get a number
    # behind them; nothing that is here is overwritten.
    class Shelf < Repository
      MOST_TRIES = 100

      # whole: false for the rigs alone.
      def document(rig_ids, whole:)
        {
          "rigs" => rig_ids,
          "units" => whole ? units : [],
          "setting_profiles" => whole ? kept(SettingProfiles, "labels") : [],
          "sensor_tables" => whole ? kept(SensorTables, "tolerance_degrees_f", "points") : []
        }
      end

      # [Archives::Outcome]
      def take_in(shelf)
        [
          *shelf["units"].map { |one| take_unit(one) },
          *shelf["setting_profiles"].map { |one| take(:setting_profiles, one, %w[labels]) },
          *shelf["sensor_tables"].map { |one| take(:sensor_tables, one, %w[tolerance_degrees_f points]) }
        ]
      end

      private

      def units
        db[:units]
          .where(Sequel[:units][:crew_id] => viewer.crew_id, Sequel[:units][:binned_at] => nil)
          .join(:sites, id: :site_id, binned_at: nil)
          .order(Sequel[:sites][:name], Sequel[:units][:name])
          .select(
            Sequel[:sites][:name].as(:site),
            Sequel[:sites][:notes].as(:site_notes),
            Sequel[:units][:name].as(:unit),
            Sequel[:units][:notes],
            Sequel[:units][:installed_year]
          )
          .map { |row| row.transform_keys(&:to_s) }
      end

      def kept(repository, *columns)
        repository.new(db, viewer).all.map { |row| plain(row.transform_keys(&:to_s).slice("id", "name", *columns)) }
      end

      def plain(values) = JSON.parse(JSON.generate(values))

      def take_unit(one)
        sites = Sites.new(db, viewer)
        came = sites.unit?(one["site"], one["unit"]) ? "there" : "taken_in"
        id = sites.noted_unit(one)
        Archives::Outcome.new(id: id, title: one.values_at("site", "unit").join(", "), came: came, new_id: false)
      end

      def take(table, one, columns)
        ids = [one["id"], Archives::New.new(viewer.crew_id)[one["id"]]]
        ids.each do |id|
          came, its_id, name = there(table, one, id, columns) || insert(table, one, id, columns)
          return Archives::Outcome.new(id: its_id, title: name, came: came, new_id: its_id != one["id"]) if came
        end
        problem = "of #{one["name"].inspect} could not be kept, since others keep something just now; send it again"
        raise BadArchive.new([{ "field" => "shelf.json/#{table}", "problem" => problem }])
      end

      # What has this id here already, or this name and says the same.
      def there(table, one, id, columns)
        mine = db[table].where(crew_id: viewer.crew_id)
        row = mine.where(id: id).first
        row ||= mine.where(name: one["name"]).first&.then { |same| same if alike?(same, one, columns) }
        row && ["there", row[:id], row[:name]]
      end

      def alike?(row, one, columns) = plain(row.transform_keys(&:to_s).slice(*columns)) == one.slice(*columns)

      # nil where the id is somebody else's.
      def insert(table, one, id, columns)
        return nil if db[table].where(id: id).any?

        values =
          columns.to_h { |column| [column.to_sym, column == "tolerance_degrees_f" ? one[column] : json(one[column])] }
        name = free_name(table, one)
        made =
          db[table]
            .returning(:id)
            .insert_conflict
            .insert(
              id: id,
              crew_id: viewer.crew_id,
              created_by: viewer.user_id,
              name: name,
              request_digest: "archive",
              **values
            )
        made.any? ? ["taken_in", id, name] : nil
      end

      def json(value) = Sequel.pg_jsonb_wrap(value)

      # The name, or with a number behind it where it is another's; past many of those, with some of its id.
      def free_name(table, one)
        taken = db[table].where(crew_id: viewer.crew_id).select_map(:name)
        taken += ThermistorTable.all.map(&:title) if table == :sensor_tables
        name = one["name"]
        numbered = (2..MOST_TRIES).map { |number| "#{name[0, 74]} (#{number})" }
        [name, *numbered].find { |other| !taken.include?(other) } || "#{name[0, 70]} #{one["id"][0, 8]}"
      end

      def table = :sites
      def thing = "shelf"
    end
  end
end
