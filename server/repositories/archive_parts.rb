# frozen_string_literal: true

module Gorvant
  module Server
    # Parts of an archive on its way up; a part sent again is kept once, and what nobody took in goes after a day.
    class ArchiveParts < Repository
      MOST = 64
      KEPT_SECONDS = 86_400

      def keep(id, number, bytes)
        raise NotFound.new(thing: "archive", id: id.to_s[0, 60]) unless UUID.match?(id.to_s)
        raise Refused.new(field: "/number", problem: "has to be from 1 to #{MOST}") unless number.between?(1, MOST)

        db[:archive_parts].insert_conflict(
          target: %i[crew_id archive_id number],
          update: {
            content: Sequel.blob(bytes)
          }
        ).insert(owned(archive_id: id, number: number, content: Sequel.blob(bytes)))
      end

      # Of the crew that is set: what nobody took in for a day. How many parts went.
      def self.prune(db) = db[:archive_parts].where(Sequel[:created_at] < Time.now - KEPT_SECONDS).delete

      # All bytes of an archive of that many parts. Raises Refused where one is missing.
      def whole(id, parts)
        raise NotFound.new(thing: "archive", id: id.to_s[0, 60]) unless UUID.match?(id.to_s)

        kept = scoped.where(archive_id: id).order(:number).select_hash(:number, :content)
        missing = (1..parts).find { |number| !kept.key?(number) }
        if missing
          raise Refused.new(field: "/parts", problem: "part #{missing} of #{parts} has not arrived; send it again")
        end

        (1..parts).map { |number| kept[number].to_s }.join.b
      end

      def drop(id) = scoped.where(archive_id: id).delete

      private

      def table = :archive_parts
      def thing = "archive"
    end
  end
end
