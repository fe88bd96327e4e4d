# frozen_string_literal: true

module Gorvant
  module Server
    # Units and sites as JSON.
    module Present
      class << self
        def notes(row) = row.slice(:id, :version, :notes)
        def unit_notes(row) = row.slice(:id, :version, :notes, :installed_year)

        # visits: rows, newest first; records: [Trends::Visit], oldest first.
        def unit(row, visits, records, findings, photos, tables)
          last = visits.first
          {
            **row.slice(:id, :name, :site_id, :notes, :installed_year, :version),
            site: row[:site_name],
            rig_id: last && last[:rig_id],
            rig: last && Warm.rig(last).name,
            rig_title: last && title(Warm.rig(last)),
            rig_revision: last && last[:revision_number],
            fitted: last ? UnitLabel.lines(Warm.rig(last)) : [],
            visits: visits.map { |visit| visit(visit) },
            trends: Trends.new(records, tables: tables).all.map(&:to_h),
            settings: settings_over(records, visits),
            findings: findings.map { |one| finding_of(one) },
            photos: photos.map { |one| photo(one) },
            label_sizes: Reports::Label::SIZES.map { |id, size| { id: id, title: size.fetch(:title) } }
          }
        end

        def site(row, units, rigs)
          {
            **row.slice(:id, :name, :notes, :version),
            units:
              units.map do |unit|
                unit.slice(:id, :name, :visits, :open).merge(
                  last_on: unit[:last_on]&.iso8601,
                  rig: rigs[unit[:revision_id]]
                )
              end
          }
        end

        private

        # What was read otherwise than on the visit before.
        def settings_over(records, visits)
          ids = visits.map { |visit| visit[:id] }.reverse
          was = {}
          records
            .each_with_index
            .flat_map do |visit, i|
              visit.record.as_found.read_settings.filter_map do |key, value|
                before = was[key]
                was[key] = value
                next if before == value

                {
                  on: visit.on,
                  visit_id: ids[i],
                  title: Catalogue.facts.fetch(key)["title"],
                  was: before.nil? ? nil : Comparison.words(key, before),
                  is: Comparison.words(key, value)
                }
              end
            end
            .reverse
        end

        def finding_of(row)
          found = row[:found].to_h
          row.slice(:visit_id, :number, :mark).merge(
            on: row[:on].iso8601,
            says: found["own"] || found["says"] || "",
            did: row[:did].to_s
          )
        end
      end
    end
  end
end
