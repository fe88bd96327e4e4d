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
        # A lone statement goes along with the word whose rows it may see, in one message: the database takes that as
        # one transaction, and forgets the word at its end.
        def execute(sql, opts = Sequel::OPTS, &block)
          return super if Crew.current.nil? || in_transaction?
          return transaction { super } if opts[:arguments]

          super("#{Scoped.word}; #{sql}", opts, &block)
        end

        def self.word = "SET LOCAL app.crew = '#{Crew.current}'"

        private

        def begin_transaction_sql = Crew.current ? "#{super}; #{Scoped.word}" : super
      end
    end
  end
end
