# frozen_string_literal: true

require_relative "../support/server"

RSpec.describe "What stands before the API", :server do
  def post_raw(body, type: "application/json", **headers)
    post "/api/rigs", body, { "CONTENT_TYPE" => type, "HTTP_HOST" => "127.0.0.1" }.merge(headers)
    last_response.status
  end

  {
    "text that is no JSON" => ["{nope", 400],
    "an unfinished body" => ['{"id":', 400],
    "bytes that are no UTF-8" => ["{\"id\":\"\xff\"}", 400],
    "the null character" => ['{"id":"\u0000"}', 400],
    "a list where an object belongs" => ["[]", 422],
    "a bare number" => ["7", 422],
    "200 levels of nesting" => [("[" * 200) + ("]" * 200), 400],
    "three megabytes" => ["\"#{"x" * (3 * 1024 * 1024)}\"", 413]
  }.each { |name, (body, status)| it("answers #{status} to #{name}") { expect(post_raw(body)).to eq(status) } }

  it "takes only JSON" do
    expect(post_raw("id=1", type: "application/x-www-form-urlencoded")).to eq(415)
  end

  it "turns away a foreign origin and an unknown host" do
    expect(post_raw("{}", "HTTP_ORIGIN" => "http://elsewhere.invalid")).to eq(403)
    get "/api/visits", {}, "HTTP_HOST" => "rebind.invalid"
    expect(last_response.status).to eq(403)
  end

  it "keeps every crew to its own" do
    other = db[:crews].returning(:id).insert(name: "Other crew").first[:id]
    user = db[:users].returning(:id).insert(crew_id: other, name: "Stranger", role: "technician").first[:id]
    stranger =
      Gorvant::Server::Viewer.new(
        crew_id: other,
        user_id: user,
        name: "Stranger",
        crew_name: "Other crew",
        role: "technician"
      )
    expect(Gorvant::Server::Visits.new(db, stranger).all).to eq([])
    expect { Gorvant::Server::Visits.new(db, stranger).find(visit_id) }.to raise_error(Gorvant::Server::NotFound)
    rig = rig()
    taken = db[:rigs].get(:id)
    expect { Gorvant::Server::Rigs.new(db, stranger).create(taken, {}, rig) }.to raise_error(Gorvant::Server::IdTaken)
  ensure
    db[:users].where(id: user).delete
    db[:crews].where(id: other).delete
  end

  it "has a database role that is no superuser, and migrations that run twice without harm" do
    expect(db["SELECT rolsuper FROM pg_roles WHERE rolname = current_user"].get(:rolsuper)).to be(false)
    Gorvant::Server::Database.migrate(db)
    expect(db[:users].count).to eq(1)
  end
end
