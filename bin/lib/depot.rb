# frozen_string_literal: true

require_relative "../../server/boot"

# What bin/depot does, as the owner of the tables, for all crews.
class DepotCommand
  Depot = Gorvant::Server::Depot
  WAYS = %w[check out back].freeze

  def initialize(db, depot, out: $stdout)
    @db = db
    @depot = depot
    @out = out
  end

  # Exit code: 0, or 1 where something is missing or no storage is set up.
  def run(way)
    return told("say one of #{WAYS.join(", ")}", 1) unless WAYS.include?(way)
    return told("no storage is set up: GORVANT_S3_BUCKET is empty", 1) unless @depot.respond_to?(:there?)

    public_send(way)
  rescue Depot::Away => e
    told(e.message, 1)
  end

  def out
    moved = 0
    while (some = @depot.move(@db)).positive?
      moved += some
    end
    left = Depot::HELD.keys.sum { |table| Depot.inside(@db, table).count }
    told("#{moved} moved out, #{left} still in the database", left.zero? ? 0 : 1)
  end

  def back
    moved =
      Depot::HELD.sum do |table, names|
        outside(table, names).count do |row|
          content = Sequel.blob(@depot.bytes(row))
          @db[table].where(row.slice(*names)).update(content: content, object_key: nil) == 1
        end
      end
    told("#{moved} brought back; the worker takes their objects away")
  end

  def check
    missing =
      Depot::HELD.flat_map do |table, names|
        rows = outside(table, names)
        @out.puts("#{table}: #{rows.size} in the storage, #{Depot.inside(@db, table).count} in the database")
        gone = rows.reject { |row| @depot.there?(row[:object_key]) }
        gone.map { |row| "#{table} #{row.values_at(*names).join(" ")}" }
      end
    waiting = @db[:stored_objects].exclude(due_at: nil).count
    @out.puts("#{waiting} objects that no row names wait to be taken away")
    missing.each { |one| @out.puts("missing: #{one}") }
    told(missing.empty? ? "nothing is missing" : "#{missing.size} missing", missing.empty? ? 0 : 1)
  end

  private

  def outside(table, names) = Depot.outside(@db, table).select(*names, :content, :object_key).all

  def told(words, code = 0)
    @out.puts(words)
    code
  end
end

if $PROGRAM_NAME == __FILE__
  exit DepotCommand.new(Gorvant::Server::Database.connect, Gorvant::Server::Depot.current).run(ARGV[0])
end
