# frozen_string_literal: true

module Gorvant
  module Server
    # All that a crew keeps as archives, a unit a step. A unit with more than an archive may hold gets several; each of
    # its records is one by itself.
    class MakeExport
      KIND = "export"
      # So that no archive is larger than what is taken in.
      MOST_ENTRIES = 800
      MOST_PHOTO_BYTES = 128 * 1024 * 1024
      USUAL_PHOTO_BYTES = 2 * 1024 * 1024 # of one that lies in a storage, whose size no row has
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
      def total = @units.size

      # How many archives a unit came to; none where it lies in the bin by now.
      def step(index)
        unit = Units.new(@db, @viewer).find(@units[index])
        packed = [*groups(unit[:id]).map { |ids| [ids, []] }, *@archives.records_of(unit[:id]).map { |id| [[], [id]] }]
        packed.each_with_index do |(visits, records), i|
          Exports.new(@db, @viewer).keep(
            @id,
            (index * FILES_OF_A_UNIT) + i + 1,
            ArchiveZip.dump(@archives.files(visits, records)),
            name: name(unit, i, packed.size),
            visits: visits.size,
            records: records.size
          )
        end
        packed.size
      rescue NotFound
        0
      end

      def answer(_pieces) = { "export_id" => @id }

      private

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
      def name(unit, index, count)
        plain = "#{unit[:site_name]}, #{unit[:name]}".gsub(%r{[\\/:*?"<>|\p{Cntrl}]+}, " ").strip[0, 120]
        "#{plain}#{" (#{index + 1} of #{count})" if count > 1} #{unit[:id][0, 8]}.gorvant.zip"
      end
    end
  end
end
