# frozen_string_literal: true

require "stringio"
require "vips"
require_relative "../support/server"
require_relative "../support/contract"
require_relative "../support/object_storage"
require_relative "../../bin/lib/depot"

# Photos and records in a storage beside the database: moved out when they surely are there, read the same from wherever
# they lie, and never lost between the two.
RSpec.describe "Storage beside the database", :server do
  include_context "with the API's contract"

  before do
    ServerBench.demo.load
    Gorvant::Server::Depot.current = storage.depot
  end

  after do
    Gorvant::Server::Depot.current = nil
    db[:stored_objects].delete
    storage.away
    @connection&.disconnect
  end

  let(:storage) { ObjectStorage.new }
  # As the process that does it, with no more than its role may.
  let(:connection) { @connection = Gorvant::Server::Database.connect(as: :worker) }
  let(:worker) { Gorvant::Server::Worker.new(connection) }

  def photographed(shade = 40)
    id = uuid
    bytes = Vips::Image.black(64, 48).linear(1, shade).cast(:uchar).jpegsave_buffer
    @sent = bytes
    header("CONTENT_TYPE", "image/jpeg")
    post("/api/visits/#{visit_id}/photos?photo_id=#{id}&of=splice", bytes, "HTTP_HOST" => "127.0.0.1")
    header("CONTENT_TYPE", nil)
    expect(last_response.status).to eq(201)
    id
  end

  def seen(id, size = "")
    get("/api/photos/#{id}#{size}", {}, "HTTP_HOST" => "127.0.0.1")
    [last_response.status, last_response.body.b]
  end

  def row(id) = db[:photos].where(id: id).select(:content, :object_key).first
  def keys = db[:stored_objects].where(due_at: nil).select_map(:key)
  def command(way) = DepotCommand.new(db, Gorvant::Server::Depot.current, out: out).run(way)
  def out = @out ||= StringIO.new

  it "is moved to by and by, and a picture reads the same by its address, in small, and in an archive" do
    id = photographed
    whole, small = seen(id), seen(id, "/small")
    archive = -> { Gorvant::Server::Archives.new(db, ServerBench.viewer).files([visit_id]).fetch("photos/#{id}.jpg") }
    before = archive.call
    worker.tidy
    expect(row(id)).to match(content: nil, object_key: start_with(ServerBench.viewer.crew_id))
    expect(storage.objects.keys).to eq(keys)
    storage.asked.clear
    expect([seen(id), archive.call]).to eq([whole, before])
    expect(storage.asked.map(&:first)).to eq(%w[GET GET])
    expect(seen(id, "/small")).to eq(small)
    worker.tidy # there is nothing left to move
    expect(storage.asked.map(&:first).uniq).to eq(%w[GET])
  end

  it "keeps the bytes where they are while the storage is away, and takes new photos meanwhile" do
    first = photographed
    worker.tidy
    storage.away
    second = photographed(90)
    expect { worker.tidy }.not_to raise_error
    expect(row(second)[:content]).not_to be_nil
    expect(seen(second).first).to eq(200)
    status, body = seen(first)
    expect([status, JSON.parse(body)["detail"]]).to match([503, /does not answer just now/])
    storage.back
    expect(seen(first).first).to eq(200)
  end

  it "gives up no bytes that cannot be read back as they were" do
    id = photographed
    storage.breaks = :put
    worker.tidy
    expect(row(id)).to match(content: be_a(String), object_key: nil)
    expect(keys).to eq([])
    storage.breaks = nil
    worker.tidy
    expect(row(id)[:object_key]).not_to be_nil
  end

  it "takes away what no row names: deleted photos, thrown away visits, writes that were given up; and nothing else" do
    kept, deleted = photographed, photographed(90)
    worker.tidy
    gone = row(deleted)[:object_key]
    send_json(:post, "/api/photos/#{deleted}/deletion", "")
    worker.tidy
    expect(storage.objects.keys).to eq([row(kept)[:object_key]]).and(satisfy { |all| !all.include?(gone) })

    # Put, and never named: not before its day is over.
    crew = ServerBench.viewer.crew_id
    storage.objects["#{crew}/given-up"] = "x"
    db[:stored_objects].insert(key: "#{crew}/given-up", crew_id: crew, due_at: Time.now + 60)
    worker.tidy
    expect(storage.objects).to have_key("#{crew}/given-up")
    db[:stored_objects].where(key: "#{crew}/given-up").update(due_at: Time.now - 1)
    worker.tidy
    expect(storage.objects.size).to eq(1)

    db[:visits].where(id: visit_id).delete
    worker.tidy
    expect([storage.objects, db[:stored_objects].count]).to eq([{}, 0])
  end

  it "has each photo once, whoever moves it at the same time" do
    ids = [40, 60, 80, 100].map { |shade| photographed(shade) }
    others = Array.new(3) { Gorvant::Server::Database.connect(as: :worker) }
    crew = ServerBench.viewer.crew_id
    others.map { |one| Thread.new { Gorvant::Server::Crew.as(crew) { storage.depot.move(one) } } }.each(&:join)
    expect(ids.map { |id| row(id)[:object_key] }).to match_array(keys)
    expect(db[:stored_objects].exclude(due_at: nil).where { due_at < Time.now }.count).to eq(0)
  ensure
    others&.each(&:disconnect)
  end

  it "is checked, left again and named wrongly in words" do
    id = photographed
    whole = seen(id)
    expect(command("out")).to eq(0)
    expect(command("check")).to eq(0)
    expect(out.string).to include("1 moved out", "photos: 1 in the storage", "nothing is missing")
    storage.away
    expect(command("check")).to eq(1)
    expect(out.string).to include("does not answer just now")
    storage.back
    lost = storage.objects.delete(row(id)[:object_key])
    expect(command("check")).to eq(1)
    expect(out.string).to include("missing: photos #{id}")
    expect(JSON.parse(seen(id).last)["detail"]).to include("not in the storage any more")
    storage.objects[row(id)[:object_key]] = lost
    expect(command("back")).to eq(0)
    expect(row(id)).to match(content: be_a(String), object_key: nil)
    worker # its connection is made before the storage is forgotten
    Gorvant::Server::Depot.current.prune(db)
    expect(storage.objects).to eq({})
    Gorvant::Server::Depot.current = Gorvant::Server::Depot::Rows.new
    expect([seen(id), command("back")]).to eq([whole, 1])
    expect(command("sideways")).to eq(1)
    half = { "GORVANT_S3_BUCKET" => "b", "GORVANT_S3_KEY" => "k" }
    expect { Gorvant::Server::Depot.of_environment(half) }.to raise_error(ArgumentError, /GORVANT_S3_SECRET/)
  end

  it "is named by no row that another crew could read, nor by one that nobody noted" do
    db[:stored_objects].insert(key: "elsewhere/1", crew_id: uuid, due_at: Time.now + 60)
    id = photographed
    %w[elsewhere/1 nowhere].each do |key|
      expect { db[:photos].where(id: id).update(content: nil, object_key: key) }.to raise_error(
        Sequel::ForeignKeyConstraintViolation
      )
    end
    expect { db[:photos].where(id: id).update(content: nil) }.to raise_error(Sequel::CheckConstraintViolation)
  end
end
