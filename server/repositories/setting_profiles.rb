# frozen_string_literal: true

module Gorvant
  module Server
    # A maker's own setting numbers, by the name that the crew gave them.
    class SettingProfiles < Repository
      def all = scoped.order(:name).all

      # [row, created?]. A name that is taken is refused.
      def create(id, body, name, labels)
        taken = scoped.where(name: name).exclude(id: id).any?
        taken!(name) if taken

        insert_once(id, body, name: name, labels: Sequel.pg_jsonb(labels))
      rescue Sequel::UniqueConstraintViolation
        taken!(name)
      end

      def delete(id)
        find(id)
        db[:setting_profiles].where(crew_id: viewer.crew_id, id: id).delete
      end

      private

      def table = :setting_profiles
      def thing = "setting profile"
    end
  end
end
