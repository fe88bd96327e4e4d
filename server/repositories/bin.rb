# frozen_string_literal: true

module Gorvant
  module Server
    # Sites, units and visits that were thrown away: for thirty days they can be had back, then they go for good, and
    # their readings and photos with them. What lies under a binned site or unit is out of sight with it, and back
    # with it.
    class Bin < Repository
      DAYS = 30
      KINDS = { "visits" => "visit", "units" => "unit", "sites" => "site" }.freeze

      # [{ kind, id, title, binned_at, by, goes_at }], newest first.
      def all = KINDS.keys.flat_map { |kind| rows(kind) }.sort_by { |row| -row[:binned_at].to_f }

      # Puts it in; twice is once. Its title.
      def put(kind, id)
        row = one(kind, id)
        db.transaction do
          mine(kind, id).where(binned_at: nil).update(binned_at: Sequel::CURRENT_TIMESTAMP, binned_by: viewer.user_id)
          AuditTrail.new(db).add(viewer, "binned", title(kind, row)) unless row[:binned_at]
        end
        title(kind, row)
      end

      # Takes it out again.
      def take_out(kind, id)
        row = binned(kind, id)
        db.transaction do
          mine(kind, id).update(binned_at: nil, binned_by: nil)
          AuditTrail.new(db).add(viewer, "restored", title(kind, row))
        end
        title(kind, row)
      end

      # For good, with all that belongs to it. Raises Refused for what is not in the bin.
      def delete(kind, id)
        row = binned(kind, id)
        db.transaction do
          mine(kind, id).delete
          AuditTrail.new(db).add(viewer, "deleted", title(kind, row))
        end
        title(kind, row)
      end

      # What has lain there for long, of the crew that is set. How many rows went.
      def self.prune(db)
        long_ago = Sequel[:binned_at] < Time.now - (DAYS * 86_400)
        KINDS.keys.sum { |kind| db[kind.to_sym].where(long_ago).delete }
      end

      private

      def table_of(kind) =
        KINDS.key?(kind) ? kind.to_sym : raise(NotFound.new(thing: "kind of record", id: kind.to_s[0, 60]))

      def mine(kind, id) = db[table_of(kind)].where(crew_id: viewer.crew_id, id: id)

      def one(kind, id)
        table = table_of(kind)
        known = named(kind).where(Sequel[table][:id] => id).first if UUID.match?(id.to_s)
        known || raise(NotFound.new(thing: KINDS.fetch(kind), id: id.to_s[0, 60]))
      end

      def binned(kind, id)
        row = one(kind, id)
        raise Refused.new(field: "/", problem: "is not in the bin; put it there first") unless row[:binned_at]

        row
      end

      def rows(kind)
        table = table_of(kind)
        named(kind)
          .exclude(Sequel[table][:binned_at] => nil)
          .left_join(:users, id: Sequel[table][:binned_by])
          .select_append(Sequel[:users][:name].as(:by))
          .all
          .map do |row|
            row.slice(:id, :by, :binned_at).merge(
              kind: kind,
              title: title(kind, row),
              goes_at: row[:binned_at] + (DAYS * 86_400)
            )
          end
      end

      # Rows of a kind with the names that say which it is.
      def named(kind)
        table = table_of(kind)
        rows = db[table].where(Sequel[table][:crew_id] => viewer.crew_id).select_all(table)
        return rows if kind == "sites"

        rows = rows.join(:units, id: :unit_id).select_append(Sequel[:units][:name].as(:unit_name)) if kind == "visits"
        rows.join(:sites, id: Sequel[:units][:site_id]).select_append(Sequel[:sites][:name].as(:site_name))
      end

      def title(kind, row)
        case kind
        when "sites"
          row[:name]
        when "units"
          "#{row[:site_name]}, #{row[:name]}"
        else
          "#{row[:site_name]}, #{row[:unit_name]}, #{row[:visit_on].iso8601}"
        end
      end
    end
  end
end
