# frozen_string_literal: true

require "securerandom"

module Gorvant
  module Server
    # Where the bytes of photos and logged hours lie. They are always written into their rows; where a bucket is set up
    # the worker moves them out to that storage (anything that speaks S3) and leaves the object's key in their place. So
    # nobody at a unit waits for the storage, and a row gives up its bytes only once they were read back from there.
    module Depot
      # What was asked for cannot be read just now.
      class Away < Error
        says "this lies in a storage that does not answer just now; try again in a moment"
      end

      # The storage answers, and has no such object.
      class Missing < Away
        says "this is not in the storage any more; whoever runs the server can look with bin/depot check"
      end

      # { table => columns that name a row }
      HELD = { photos: %i[id], log_hours: %i[log_id hour] }.freeze
      NAMES = %i[bucket key secret endpoint region].freeze # of the environment, after GORVANT_S3_
      UNCLAIMED_SECONDS = 86_400 # an object that no row came to name
      MOST_AT_ONCE = 50

      class << self
        attr_writer :current

        def current = @current ||= of_environment

        # GORVANT_S3_BUCKET with _KEY and _SECRET, and _ENDPOINT and _REGION where they are needed; rows alone where no
        # bucket is named.
        def of_environment(env = ENV)
          given = NAMES.to_h { |name| [name, env["GORVANT_S3_#{name.upcase}"].to_s] }
          return Rows.new if given[:bucket].empty?

          missing = %i[key secret].select { |name| given[name].empty? }
          unless missing.empty?
            raise(ArgumentError.new("GORVANT_S3_BUCKET asks for GORVANT_S3_#{missing.first.upcase} too"))
          end

          Objects.new(**given)
        end

        # Rows of a table that lie in the database, and those that lie outside.
        # Hours of a record that is still coming stay: they are written anew with every row.
        def inside(db, table)
          rows = db[table].exclude(content: nil)
          table == :log_hours ? rows.exclude(log_id: db[:logs].where(state: "live").select(:id)) : rows
        end
        def outside(db, table) = db[table].exclude(object_key: nil)
      end

      # Everything in the database.
      class Rows
        # Bytes of a row with content and object_key.
        def bytes(row) = row[:object_key] ? raise(Away) : row[:content].to_s
        def move(_db) = 0
        def prune(_db) = 0
      end

      # In a bucket.
      class Objects
        OPEN_SECONDS = 1
        READ_SECONDS = 4

        def initialize(bucket:, key:, secret:, endpoint: "", region: "")
          require "aws-sdk-s3"
          Aws::Xml::Parser.engine = :rexml # whatever else happens to be loaded
          @bucket = bucket
          @client =
            Aws::S3::Client.new(
              access_key_id: key,
              secret_access_key: secret,
              region: region.empty? ? "us-east-1" : region,
              **(endpoint.empty? ? {} : { endpoint: endpoint, force_path_style: true }),
              # What others that speak S3 may not know is left out where it need not be.
              request_checksum_calculation: "when_required",
              response_checksum_validation: "when_required",
              http_open_timeout: OPEN_SECONDS,
              http_read_timeout: READ_SECONDS,
              retry_limit: 1
            )
        end

        # Bytes of a row with content and object_key.
        def bytes(row) = row[:object_key] ? read(row[:object_key]) : row[:content].to_s

        # Whether the storage has it.
        def there?(key)
          asked { @client.head_object(bucket: @bucket, key: key) }
          true
        rescue Missing
          false
        end

        # Moves some rows of the crew that is set out of the database; how many.
        def move(db)
          HELD.sum do |table, names|
            rows = Depot.inside(db, table).limit(MOST_AT_ONCE).select(:crew_id, *names).all
            rows.count { |row| move_row(db, table, row.slice(*names), row[:crew_id]) }
          end
        end

        # Takes away what no row names any more, of all crews; how many.
        def prune(db)
          due = db[:stored_objects].where { due_at < Sequel::CURRENT_TIMESTAMP }
          due.limit(MOST_AT_ONCE).select_map(:key).count { |key| take_away(db, due.where(key: key), key) }
        end

        private

        # The object is noted before it is put, and the row names it only once it can be read back.
        def move_row(db, table, which, crew_id)
          bytes = Depot.inside(db, table).where(which).get(:content)&.to_s or return false
          key = "#{crew_id}/#{SecureRandom.uuid}"
          db[:stored_objects].insert(key: key, crew_id: crew_id, due_at: Time.now + UNCLAIMED_SECONDS)
          asked { @client.put_object(bucket: @bucket, key: key, body: bytes) }
          return false unless read(key) == bytes

          Depot.inside(db, table).where(which).update(content: nil, object_key: key) == 1
        end

        # What was claimed meanwhile is not due any more, and stays.
        def take_away(db, noted, key)
          db.transaction do
            gone = noted.delete == 1
            asked { @client.delete_object(bucket: @bucket, key: key) } if gone
            gone
          end
        end

        def read(key) = asked { @client.get_object(bucket: @bucket, key: key).body.read.b }

        def asked
          yield
        rescue Aws::S3::Errors::NoSuchKey, Aws::S3::Errors::NotFound
          raise Missing
        rescue Aws::Errors::ServiceError, Seahorse::Client::NetworkingError => e
          Journal.logger.warn({ depot: e.class.name })
          raise Away
        end
      end
    end
  end
end
