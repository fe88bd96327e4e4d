# frozen_string_literal: true

module Gorvant
  module Server
    # Sites and their units.
    class Sites < Repository
      # [{ id, name, units: [{ id, name }] }] by name.
      def all
        units =
          db[:units]
            .where(crew_id: viewer.crew_id, binned_at: nil)
            .order(:name)
            .select(:id, :name, :site_id)
            .all
            .group_by { |unit| unit[:site_id] }
        scoped
          .where(binned_at: nil)
          .order(:name)
          .select(:id, :name)
          .all
          .map { |site| site.merge(units: units.fetch(site[:id], []).map { |unit| unit.slice(:id, :name) }) }
      end

      # Id of the unit of that name at the site of that name, made if need be.
      def unit_id(site_name, unit_name, demo: false)
        site = one(:sites, %i[crew_id name], name: site_name, demo: demo)
        one(:units, %i[site_id name], site_id: site, name: unit_name, demo: demo)
      end

      # Whether there is one of these names, in sight.
      def unit?(site_name, unit_name) =
        in_sight.where(Sequel[:whole][:name] => site_name, Sequel[:units][:name] => unit_name).any?

      # Its id, made if need be, as unit_id; its notes, its site's and its year only where there are none here.
      # about: { "site", "site_notes", "unit", "notes", "installed_year" }, notes and year may be missing.
      def noted_unit(about)
        id = unit_id(about["site"], about["unit"])
        mine = db[:units].where(crew_id: viewer.crew_id, id: id)
        note(mine, about["notes"])
        mine.where(installed_year: nil).update(installed_year: about["installed_year"]) if about["installed_year"]
        note(db[:sites].where(crew_id: viewer.crew_id, id: mine.select(:site_id)), about["site_notes"])
        id
      end

      # The id itself when such a unit exists; NotFound otherwise.
      def fetch_unit_id(id)
        known = Repository::UUID.match?(id.to_s) && in_sight.where(Sequel[:units][:id] => id).get(Sequel[:units][:id])
        known || raise(NotFound.new(thing: "unit", id: id.to_s[0, 60], field: "/unit_id"))
      end

      # "Boathouse library, North unit"
      def title_of_unit(id)
        row =
          db[:units]
            .where(Sequel[:units][:crew_id] => viewer.crew_id, Sequel[:units][:id] => fetch_unit_id(id))
            .join(:sites, id: :site_id)
            .get([Sequel[:sites][:name].as(:site), Sequel[:units][:name].as(:unit)])
        row.join(", ")
      end

      # Keeps notes, on the version that was seen.
      def change(id, version, notes) = update_version(find(id)[:id], version, notes: notes)

      def find(id) = super.tap { |row| raise NotFound.new(thing: thing, id: id) if row[:binned_at] }

      # Its units by name: [{ id:, name:, visits:, last_on:, open:, revision_id: }], the revision of the last visit.
      def units(id)
        visits = db[:visits].where(Sequel[:visits][:unit_id] => Sequel[:units][:id], Sequel[:visits][:binned_at] => nil)
        db[:units]
          .where(crew_id: viewer.crew_id, site_id: id, binned_at: nil)
          .order(:name)
          .select(:id, :name)
          .select_append(
            visits.select { count.function.* }.as(:visits),
            visits.select { max(:visit_on) }.as(:last_on),
            visits.where(closed_number: nil).select { count.function.* }.as(:open),
            visits.reverse(:visit_on, :created_at).limit(1).select(:rig_revision_id).as(:revision_id)
          )
          .all
      end

      private

      def note(row, notes) = notes.to_s.empty? ? nil : row.where(notes: "").update(notes: notes)

      # Units that are not in the bin, nor their site.
      def in_sight =
        db[:units].where(Sequel[:units][:crew_id] => viewer.crew_id, Sequel[:units][:binned_at] => nil).join(
          Sequel[:sites].as(:whole),
          id: :site_id,
          binned_at: nil
        )

      # The row that has these names, made if need be, or taken out of the bin; of two who make it at once, one does.
      def one(table, unique, **fields)
        db[table].insert_conflict(target: unique).insert(owned(**fields))
        named = db[table].where(owned(**fields).slice(*unique))
        named.exclude(binned_at: nil).update(binned_at: nil, binned_by: nil)
        named.get(:id)
      end

      def table = :sites
      def thing = "site"
    end
  end
end
