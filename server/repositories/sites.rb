# frozen_string_literal: true

module Gorvant
  module Server
    # Sites and their units.
    class Sites < Repository
      # [{ id, name, units: [{ id, name }] }] by name.
      def all
        units = db[:units].where(crew_id: viewer.crew_id).order(:name).select(:id, :name, :site_id).all.group_by { |unit| unit[:site_id] }
        scoped.order(:name).select(:id, :name).all.map { |site| site.merge(units: units.fetch(site[:id], []).map { |unit| unit.slice(:id, :name) }) }
      end

      # Id of the unit of that name at the site of that name, made if need be.
      def unit_id(site_name, unit_name, demo: false)
        site = scoped.where(name: site_name).get(:id) || db[:sites].returning(:id).insert(owned(name: site_name, demo: demo)).first[:id]
        units = db[:units].where(crew_id: viewer.crew_id, site_id: site)
        units.where(name: unit_name).get(:id) || db[:units].returning(:id).insert(owned(site_id: site, name: unit_name, demo: demo)).first[:id]
      end

      # The id itself when such a unit exists; NotFound otherwise.
      def fetch_unit_id(id)
        known = Repository::UUID.match?(id.to_s) && db[:units].where(crew_id: viewer.crew_id, id: id).get(:id)
        known || raise(NotFound.new(thing: "unit", id: id.to_s[0, 60], field: "/unit_id"))
      end

      # "Boathouse library, North unit"
      def title_of_unit(id)
        row = db[:units].where(Sequel[:units][:crew_id] => viewer.crew_id, Sequel[:units][:id] => fetch_unit_id(id)).join(:sites, id: :site_id)
                        .get([Sequel[:sites][:name].as(:site), Sequel[:units][:name].as(:unit)])
        row.join(", ")
      end

      private

      def table = :sites
      def thing = "site"
    end
  end
end
