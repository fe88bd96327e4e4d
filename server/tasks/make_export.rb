# frozen_string_literal: true

module Gorvant
  module Server
    # All that a crew keeps as archives, a unit a step. A unit with more than an archive may hold gets several; each of
    # its records is one by itself. The last step packs what the crew keeps beside its visits.
    class MakeExport
      KIND = "export"
      # So that no archive is larger than what is taken in.
      MOST_ENTRIES = 800
      MOST_PHOTO_BYTES = 128 * 1024 * 1024
      USUAL_PHOTO_BYTES = 2 * 1024 * 1024 # of one that lies in a storage, whose size no row has
      MOST_RIGS = 40 # each with all of its revisions, which are looked at again in one request
      FILES_OF_A_UNIT = 10_000 # numbers of its files begin anew at each of these

      def self.key(id) = "export #{id}"

      # input: { "export_id", "crew_id", "crew_name", "user_id", "units" => ids }
      def initialize(input, db)
        @id, @units = input.values_at("export_id", "units")
        @db = db
        person = { user_id: input["user_id"], name: "", crew_name: input.fetch("crew_name"), role: "worker" }
        @viewer = Viewer.new(crew_id: input.fetch("crew_id"), **person)
        @archives = Archives.new(db, @viewer)
      end

      def resumes? = true
      def total = @units.size + 1

      # How many archives a unit came to; none where it lies in the bin by now.
      def step(index)
        return shelf(index) if index == @units.size

        unit = Units.new(@db, @viewer).find(@units[index])
        packed = [*groups(unit[:id]).map { |ids| [ids, []] }, *@archives.records_of(unit[:id]).map { |id| [[], [id]] }]
        whose = "#{unit[:site_name]}, #{unit[:name]}"
        packed.each_with_index do |(visits, records), i|
          about = { name: name(whose, unit[:id], i, packed.size), visits: visits.size, records: records.size }
          keep(index, i, @archives.files(visits, records), about)
        end
        packed.size
      rescue NotFound
        0
      end

      def answer(_pieces) = { "export_id" => @id }

      private

      def keep(index, i, files, about) =
        Exports.new(@db, @viewer).keep(@id, (index * FILES_OF_A_UNIT) + i + 1, ArchiveZip.dump(files), **about)

      def shelf(index)
        parts = @archives.rigs_kept.each_slice(MOST_RIGS).to_a
        parts = [[]] if parts.empty?
        parts.each_with_index do |rigs, i|
          about = { name: name("Beside the visits", @viewer.crew_id, i, parts.size), visits: 0, records: 0 }
          keep(index, i, @archives.shelf_files(rigs, whole: i.zero?), about)
        end
        parts.size
      end

      # Ids of its visits, so many together as one archive holds.
      def groups(unit_id)
        sizes = Photos.new(@db, @viewer).sizes(unit_id, unknown: USUAL_PHOTO_BYTES)
        visits = Visits.new(@db, @viewer).of_unit(unit_id).map { |row| row[:id] }
        visits.each_with_object([]) do |id, groups|
          many = [*groups.last, id].flat_map { |one| sizes.fetch(one, []) }
          whole = groups.any? && groups.last.size + many.size < MOST_ENTRIES && many.sum <= MOST_PHOTO_BYTES
          whole ? groups.last << id : groups << [id]
        end
      end

      # A name that every file system takes.
      def name(whose, id, index, count)
        plain = whose.gsub(%r{[\\/:*?"<>|\p{Cntrl}]+}, " ").strip[0, 120]
        "#{plain}#{" (#{index + 1} of #{count})" if count > 1} #{id[0, 8]}.gorvant.zip"
      end
    end
  end
end
