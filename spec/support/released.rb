# frozen_string_literal: true

require "sequel"

# What a migration would say to a database, without one: whether it takes away what the program of before asks for.
class ReleasedMigration
  # From here on old and new programs serve beside each other while the tables change (docs/decisions).
  SINCE = 20_261_129_200_000
  TAKES_AWAY = {
    "drops a column" => /\bDROP COLUMN\b/i,
    "drops a table" => /\bDROP (TABLE|VIEW)\b/i,
    "renames" => /\bRENAME (COLUMN\b|TO\b|CONSTRAINT\b)/i,
    "makes a column mandatory" => /\bSET NOT NULL\b/i,
    "makes a column of another type" => /\bALTER COLUMN \S+ (SET DATA )?TYPE\b/i,
    "adds a mandatory column without a value of its own" => /\bADD COLUMN (?!.*\bDEFAULT\b).*\bNOT NULL\b/i
  }.freeze
  PARTNER = /^# Contracts (\d{14}_\w+)\.$/

  attr_reader :version

  def initialize(path)
    @path = path
    @version = File.basename(path).to_i
  end

  # Why it may not go out, nil where it may. known: paths of all migrations.
  def refused(known)
    taken = takes_away
    return nil if taken.empty?

    partner = File.read(@path)[PARTNER, 1]
    return "#{taken.join(", ")}; name the migration of an earlier release that made it dispensable" unless partner
    return "#{partner} is not there" unless known.any? { |path| File.basename(path, ".rb") == partner }

    "#{partner} does not come before it" unless partner.to_i < @version
  end

  private

  def takes_away
    said = statements
    TAKES_AWAY.filter_map { |what, pattern| what if said.any? { |sql| sql.match?(pattern) } }
  end

  def statements
    db = Sequel.mock(host: "postgres")
    Sequel.extension(:migration)
    migration = eval(File.read(@path), TOPLEVEL_BINDING.dup, @path) # rubocop:disable Security/Eval -- our own files
    migration.apply(db, :up)
    db.sqls
  end
end
