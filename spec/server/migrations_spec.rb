# frozen_string_literal: true

require_relative "../support/server"

# What a user has is kept through every migration: those that can go back and come again do so over the demo data, and
# nothing of it is lost.
RSpec.describe "Migrations", :server do
  before { Sequel.extension(:migration) }

  after { Gorvant::Server::Database.migrate(db) }

  def versions =
    Dir[File.join(Gorvant::Server::Database::MIGRATIONS, "*.rb")].map { |path| File.basename(path).to_i }.sort
  def to(version) = Sequel::Migrator.run(db, Gorvant::Server::Database::MIGRATIONS, target: version)
  def owned = db[:users].where(role: "owner").select(:crew_id, Sequel[:id].as(:created_by)).first

  # How many rows each table has that a person filled.
  def rows = %i[sites units rigs rig_revisions visits readings].to_h { |table| [table, db[table].count] }

  it "go back and come again one by one, over a day's work, with every row still there" do
    db[:readings].exclude(function: "volts_ac").delete
    before = rows
    readings = db[:readings].select_order_map(%i[id value])
    late = versions.each_cons(2).select { |_earlier, version| version >= 20_261_128_190_000 }
    expect(late.size).to be > 1
    late.reverse_each do |earlier, _version|
      to(earlier)
      Gorvant::Server::Database.migrate(db)
    end
    expect(rows).to eq(before)
    expect(db[:readings].select_order_map(%i[id value])).to eq(readings)
    expect(before[:visits]).to be > 5
  end

  it "do not go back over a reading that the older table has no place for" do
    before_kinds = versions.take_while { |version| version < 20_261_129_000_000 }.last
    expect { to(before_kinds) }.to raise_error(Sequel::Error, /other kinds than volts/)
    expect(db[:readings].where(function: "seen").count).to be > 0
  end

  it "give every desk a row of what the visit's columns held, and fill the columns again on the way back" do
    db[:readings].exclude(function: "volts_ac").delete
    db[:visit_desks].where(desk: "close_out").delete # the columns knew no closing
    kept = -> { db[:visit_desks].order(:visit_id, :desk).select_map(%i[visit_id desk content mark]) }
    before = kept.call
    expect(before.map { |row| row[1] }.uniq).to match_array(%w[wiring thermostat defrost])
    to(20_261_129_000_000)
    found = db[:visits].exclude(Sequel.lit("as_found = '{}'")).select_map(%i[as_found found_marks])
    expect(found.map { |as_found, marks| [as_found.keys.any?, marks.keys.any?] }.uniq).to eq([[true, true]])
    Gorvant::Server::Database.migrate(db)
    expect(kept.call).to eq(before)
  end

  it "make one site and one unit of twins that two requests once made, and keep the visits of both" do
    db[:readings].exclude(function: "volts_ac").delete
    to(20_261_128_190_000)
    mill = { name: "Reed mill", **owned }
    sites = Array.new(2) { |i| db[:sites].returning(:id).insert(**mill, created_at: Time.now - (60 * i)).first[:id] }
    units = sites.map { |site| db[:units].returning(:id).insert(name: "Loft unit", site_id: site, **owned).first[:id] }
    other = db[:units].returning(:id).insert(name: "Yard unit", site_id: sites.first, **owned).first[:id]
    like = db[:visits].where(id: visit_id).first
    %i[symptoms safety as_found bench setting_labels found_marks defrost].each do |name|
      like[name] = Sequel.pg_jsonb(like[name])
    end
    [*units, other].each { |unit| db[:visits].insert(like.merge(id: uuid, unit_id: unit, demo: false)) }
    count = db[:visits].count

    Gorvant::Server::Database.migrate(db)
    expect(db[:sites].where(name: "Reed mill").select_map(:id)).to eq([sites.last]) # the older one
    kept = db[:units].where(site_id: sites.last).select_order_map(:name)
    expect(kept).to eq(["Loft unit", "Yard unit"])
    expect(db[:visits].count).to eq(count)
    expect(
      db[:visits]
        .join(:units, id: :unit_id)
        .where(site_id: sites.last)
        .group_and_count(Sequel[:units][:name])
        .to_hash(:name, :count)
    ).to eq("Loft unit" => 2, "Yard unit" => 1)
    expect { db[:sites].insert(**mill) }.to raise_error(Sequel::UniqueConstraintViolation)
  end
end
