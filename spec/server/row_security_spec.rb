# frozen_string_literal: true

require_relative "../support/server"

# The database itself keeps a crew's rows from others, whoever forgot to ask for the crew.
RSpec.describe "Row-level security", :server do
  let(:fenwater) { db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id] }

  after { ServerBench.alone }

  def web = ServerBench.web
  def crew = Gorvant::Server::Crew
  kept = Gorvant::Server::Roles::KEPT.map(&:to_sym)

  it "shows role web no row of any table where no crew is set, though nothing in the query asks for one" do
    filled = (kept + %i[users crews]).select { |table| db[table].any? }
    expect(filled).to include(:visits, :readings, :rigs, :rig_revisions, :visit_desks, :users, :crews)
    expect(filled.to_h { |table| [table, web[table].select(Sequel.lit("1")).count] }.values.uniq).to eq([0])
  end

  it "shows it the crew's own rows where one is set, all of them, and another crew none" do
    crew.as(ServerBench.viewer.crew_id) do
      kept.each { |table| expect(web[table].count).to eq(db[table].count), table.to_s }
    end
    crew.as(fenwater) { kept.each { |table| expect(web[table].count).to eq(0), table.to_s } }
  end

  it "lets no crew write, change or delete another's" do
    site = db[:sites].get(:id)
    crew.as(fenwater) do
      expect(web[:visits].update(complaint: "ours")).to eq(0)
      expect(web[:visits].delete).to eq(0)
      mine = { name: "Reed mill", crew_id: ServerBench.viewer.crew_id, created_by: ServerBench.viewer.user_id }
      expect { web[:sites].insert(mine) }.to raise_error(Sequel::DatabaseError, /row-level security/)
    end
    expect(db[:sites].where(id: site).count).to eq(1)
  end

  it "carries no crew on in a connection to whoever has it next" do
    crew.as(ServerBench.viewer.crew_id) { expect(web[:visits].count).to be > 0 }
    expect(web[:visits].count).to eq(0)
    begin
      crew.as(ServerBench.viewer.crew_id) { web.transaction { web[:visits].count && raise("torn off") } }
    rescue RuntimeError
      nil
    end
    expect(web[:visits].count).to eq(0)
  end

  it "asks once a statement, not once a row, whose rows may be seen" do
    conditions = db[:pg_policies].where(schemaname: "public").select_map(%i[qual with_check]).flatten.compact
    asking = conditions.grep(/current_crew/)
    expect(asking.size).to be > 40
    expect(asking).to all(include("SELECT current_crew()"))
  end

  it "keeps from role web what opens a door, and from role door what crews keep" do
    crew.as(ServerBench.viewer.crew_id) do
      %i[password_hash sign_in_name].each do |column|
        expect { web[:users].get(column) }.to raise_error(Sequel::DatabaseError, /permission denied/)
      end
      %i[sessions one_time_keys recovery_codes passkeys passkey_challenges invitations].each do |table|
        expect { web[table].count }.to raise_error(Sequel::DatabaseError, /permission denied/)
      end
      kept.each { |table| expect { ServerBench.door[table].count }.to raise_error(Sequel::DatabaseError, /denied/) }
    end
  end

  it "shows role worker the tasks of all crews, and beside them nothing until it takes one's crew" do
    worker = Gorvant::Server::Database.connect(as: :worker)
    Gorvant::Server::Tasks.new(db, ServerBench.viewer).ask("alike", "a key", {})
    expect([worker[:tasks].count, worker[:visits].count]).to eq([1, 0])
    crew.as(ServerBench.viewer.crew_id) { expect(worker[:visits].count).to eq(db[:visits].count) }
    expect { worker[:readings].delete }.to raise_error(Sequel::DatabaseError, /permission denied/)
  ensure
    worker&.disconnect
    Sequel.synchronize { Sequel::DATABASES.delete(worker) }
  end

  it "takes no crew that is no id" do
    expect { crew.as("1'; DROP TABLE visits; --") { web[:visits].count } }.to raise_error(ArgumentError)
  end

  it "binds every table that belongs to a crew" do
    owned = db.tables.select { |table| db.schema(table).any? { |column, _| column == :crew_id } }
    bound = db[:pg_class].where(relname: owned.map(&:to_s), relrowsecurity: true).select_map(:relname)
    expect(bound.map(&:to_sym)).to match_array(owned)
  end
end
