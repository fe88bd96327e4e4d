# frozen_string_literal: true

require_relative "../support/server"

# Whatever a crew keeps, another crew neither sees, changes, deletes nor overwrites; each by its own repository.
RSpec.describe "Another crew", :server do
  repositories = Gorvant::Server
  let(:mine) { ServerBench.viewer }
  let(:theirs) do
    crew = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
    user =
      db[:users]
        .returning(:id)
        .insert(crew_id: crew, name: "Ilse Marrow", role: "owner", created_at: Time.now + 60)
        .first[
        :id
      ]
    mine.with(crew_id: crew, user_id: user, name: "Ilse Marrow", crew_name: "Fenwater crew")
  end
  let(:visit) { db[:visits].where(id: visit_id).first }

  after do
    %i[tasks setting_profiles sensor_tables photos readings visits rig_revisions rigs units sites].each do |table|
      db[table].where(crew_id: theirs.crew_id).delete
    end
    db[:users].where(crew_id: theirs.crew_id).delete
    db[:crews].where(id: theirs.crew_id).delete
  end

  def other(repository) = repository.new(db, theirs)
  def own(repository) = repository.new(db, mine)
  def not_found = raise_error(Gorvant::Server::NotFound)

  def sensor_table(name) =
    Gorvant::ThermistorTable.new(id: uuid, title: name, tolerance_degrees_f: 2.0, points: [[32, 9000], [77, 3000]])

  it "sees no visit, and changes none" do
    expect(other(repositories::Visits).all).to eq([])
    expect { other(repositories::Visits).find(visit_id) }.to not_found
    expect { other(repositories::Visits).change(visit_id, visit[:version], complaint: "ours") }.to not_found
    expect(other(repositories::Visits).of_unit(visit[:unit_id])).to eq([])
    expect(db[:visits].where(id: visit_id).get(:complaint)).to eq(visit[:complaint])
  end

  it "cannot take a visit's id, nor begin one at a unit that is not its own" do
    expect {
      other(repositories::Visits).create(
        visit_id,
        { "other" => 1 },
        unit_id: visit[:unit_id],
        rig_revision_id: visit[:rig_revision_id],
        visit_on: Date.today
      )
    }.to raise_error(Gorvant::Server::IdTaken)
    expect { other(repositories::Sites).fetch_unit_id(visit[:unit_id]) }.to not_found
    expect(own(repositories::Sites).fetch_unit_id(visit[:unit_id])).to eq(visit[:unit_id])
  end

  it "has sites and units of its own, under the same names" do
    expect(other(repositories::Sites).all).to eq([])
    made = other(repositories::Sites).unit_id("Boathouse library", "North unit")
    expect(made).not_to eq(visit[:unit_id])
    expect(own(repositories::Sites).unit_id("Boathouse library", "North unit")).to eq(visit[:unit_id])
  end

  it "sees no rig or revision, and revises none" do
    row = own(repositories::Rigs).all.first
    expect(other(repositories::Rigs).all).to eq([])
    expect { other(repositories::Rigs).revisions(row[:id]) }.to not_found
    expect { other(repositories::Rigs).revise(row[:id], row[:version], rig) }.to not_found
    expect { other(repositories::Rigs).append(row[:id], row[:revision_id], rig) }.to not_found
    expect { other(repositories::Rigs).create(row[:id], { "any" => 1 }, rig) }.to raise_error(Gorvant::Server::IdTaken)
    expect(db[:rig_revisions].where(rig_id: row[:id]).count).to eq(1)
  end

  it "sees no reading, corrects none and takes none back" do
    reading = db[:readings].where(visit_id: visit_id).first
    readings = other(repositories::Readings)
    expect([readings.of(visit_id), readings.standing_in(visit_id, "heat")]).to eq([[], []])
    expect { readings.retract(visit_id, reading[:id]) }.to not_found
    fields =
      reading.slice(:visit_id, :rig_revision_id, :from_node, :to_node, :value, :instrument, :verdict, :taken_at).merge(
        condition: {
        },
        expected: {
        },
        supersedes_id: reading[:id]
      )
    expect { readings.create(uuid, {}, fields) }.to raise_error(Gorvant::Server::Refused, /no such reading/)
    expect(db[:readings].where(id: reading[:id]).get(:retracted_at)).to be_nil
  end

  it "takes a reading back only through the visit that it was made in" do
    reading = db[:readings].where(visit_id: visit_id).first
    elsewhere = db[:visits].exclude(id: visit_id).get(:id)
    expect { own(repositories::Readings).retract(elsewhere, reading[:id]) }.to not_found
    expect(db[:readings].where(id: reading[:id]).get(:retracted_at)).to be_nil
    2.times { own(repositories::Readings).retract(visit_id, reading[:id]) }
    expect(db[:readings].where(id: reading[:id]).get(:retracted_by)).to eq(mine.user_id)
  end

  it "keeps tables and profiles apart, names included" do
    {
      repositories::SensorTables => [
        "Reed table",
        ->(repository, id, name) { repository.create(id, {}, sensor_table(name)) }
      ],
      repositories::SettingProfiles => [
        "Dial model",
        ->(repository, id, name) { repository.create(id, {}, name, { "changeover_setup" => "12" }) }
      ]
    }.each do |repository, (name, make)|
      id = uuid
      make.call(own(repository), id, name)
      expect(other(repository).all).to eq([])
      expect { other(repository).delete(id) }.to not_found
      expect(make.call(other(repository), uuid, name).last).to be(true)
      expect { make.call(own(repository), uuid, name) }.to raise_error(Gorvant::Server::Refused, /is kept already/)
      expect(own(repository).all.map { |row| row[:id] }).to eq([id])
    end
    expect(other(repositories::SensorTables).values.map(&:title)).to include("Reed table")
  end

  it "sees no photo of a visit, and deletes none" do
    picture = { visit_id: visit_id, of: "board", note: "", width: 1, height: 1, content: "x", small: "x" }
    id = uuid
    own(repositories::Photos).create(id, "d", picture)
    expect(other(repositories::Photos).of(visit_id)).to eq([])
    expect { other(repositories::Photos).delete(id) }.to not_found
    expect { other(repositories::Photos).change(id, note: "ours") }.to not_found
    (repositories::Photos::MOST - 1).times { own(repositories::Photos).create(uuid, "d", picture) }
    expect { own(repositories::Photos).create(uuid, "d", picture) }.to raise_error(
      Gorvant::Server::Refused,
      /at most 60/
    )
    own(repositories::Photos).delete(id)
    expect(own(repositories::Photos).create(uuid, "d", picture).last).to be(true)
  end

  it "has a task of its own for the same work asked at the same time" do
    one, two = [mine, theirs].map { |viewer| repositories::Tasks.new(db, viewer).ask("alike", "the same key", {}) }
    expect([one[:crew_id], two[:crew_id]]).to eq([mine.crew_id, theirs.crew_id])
    expect { other(repositories::Tasks).cancel(one[:id]) }.to not_found
    expect(own(repositories::Tasks).ask("alike", "the same key", {})[:id]).to eq(one[:id])
    own(repositories::Tasks).cancel(one[:id])
    again = own(repositories::Tasks).ask("alike", "the same key", {})
    expect([again[:state], again[:id] == one[:id]]).to eq(["waiting", false])
    expect(other(repositories::Tasks).find(two[:id])[:state]).to eq("waiting")
  end

  it "keeps the newest answers of each kind within its budget, and lets no kind take the place of another" do
    computed = repositories::Computed.new(db)
    stub_const("Gorvant::Server::Computed::BUDGETS", { "alike" => 30, "trace" => 25 })
    stub_const("Gorvant::Server::Computed::OTHER_BUDGET", 10)
    %w[alike trace drawing]
      .product((1..4).to_a)
      .each do |kind, i|
        computed.put(kind, "#{kind} #{i}", "0123456789")
        db[:computed_results].where(key: "#{kind} #{i}").update(created_at: Time.now - 100 + i)
      end
    expect(computed.prune).to eq(12 - 3 - 2 - 1)
    expect(db[:computed_results].select_order_map(:key)).to eq(
      ["alike 2", "alike 3", "alike 4", "drawing 4", "trace 3", "trace 4"]
    )
    expect(computed.prune).to eq(0)
    expect(computed.get("alike 4")).to eq("0123456789")
    expect(computed.recall("a part") { "made" }).to eq("made")
    expect(computed.recall("a part") { raise "made twice" }).to eq("made")
  end
end
