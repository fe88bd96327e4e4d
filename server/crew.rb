# frozen_string_literal: true

module Gorvant
  module Server
    # Whose rows the database shows. Set round a request or a task; each statement then runs in a transaction that says
    # so, never in a setting that a pooled connection would carry on to somebody else. Unset, there are no rows.
    module Crew
      KEY = :gorvant_crew
      UUID = /\A\h{8}(-\h{4}){3}-\h{12}\z/

      class << self
        def current = Thread.current[KEY]

        def as(id)
          raise ArgumentError.new("a crew's id is a UUID") unless id.nil? || UUID.match?(id.to_s)

          before = current
          Thread.current[KEY] = id
          yield
        ensure
          Thread.current[KEY] = before
        end
      end

      # For a Sequel::Database.
      module Scoped
        # A lone statement gets a short transaction of its own.
        def execute(sql, opts = Sequel::OPTS, &block)
          return super if Crew.current.nil? || in_transaction?

          transaction { super }
        end

        private

        def begin_transaction_sql = Crew.current ? "#{super}; SET LOCAL app.crew = '#{Crew.current}'" : super
      end
    end
  end
end
