# frozen_string_literal: true

require "zip"
require "vips"
require_relative "../support/server"
require_relative "../support/contract"

# A visit or a unit as one file, taken out of one place and in at another.
RSpec.describe "Archives", :server do
  include_context "with the API's contract"

  after { ServerBench.alone }

  let(:archives) { Gorvant::Server::Archives.new(db, ServerBench.viewer) }
  let(:picture) { Vips::Image.black(40, 30, bands: 3).jpegsave_buffer(Q: 60) }
  let(:words) { ["Ελληνικά", "Кириллица", "quotes \" and \\ slashes", "line\nbreak", "", "風扇"] }

  def zip_of(path)
    @sent = ""
    get(path, {}, "HTTP_HOST" => "127.0.0.1")
    expect(last_response.status).to eq(200)
    last_response.body
  end

  def send_up(bytes, parts: 1)
    id = uuid
    size = (bytes.bytesize / parts.to_f).ceil
    parts.times do |i|
      @sent = bytes.byteslice(i * size, size)
      post(
        "/api/archives/#{id}/parts/#{i + 1}",
        @sent,
        "CONTENT_TYPE" => "application/octet-stream",
        "HTTP_HOST" => "127.0.0.1"
      )
      expect(last_response.status).to eq(201)
    end
    send_json(:post, "/api/archives/#{id}/import", parts: parts)
    last_response.status
  end

  def problems = answer["errors"].map { |one| "#{one["field"]} #{one["problem"]}" }
  def files_of(zip) = Gorvant::Server::ArchiveZip.read(zip)
  def digest(zip) = Gorvant::Formats::Archive.digest(files_of(zip))
  def delete(id) = db[:visits].where(id: id).delete

  def closed(id)
    content = {
      "report" => {
        "title" => "T",
        "sections" => [{ "blocks" => [{ "says" => "a closed thing" }] }]
      },
      "record" => {
        "visit" => {
        }
      }
    }
    db[:closings].insert(
      **db[:visits].where(id: id).select(:crew_id, :created_by).first,
      id: uuid,
      visit_id: id,
      number: 1,
      mark: "so_far",
      content: Sequel.pg_jsonb(content),
      digest: Gorvant::Server::Closings.digest(content),
      request_digest: "x"
    )
    db[:visits].where(id: id).update(closed_number: 1, closed_as: "so_far")
  end

  def photographed(id)
    fields = { id: uuid, visit_id: id, of: "other", note: "splice é", width: 40, height: 30, request_digest: "x" }
    db[:photos].insert(
      **fields,
      content: Sequel.blob(picture),
      small: Sequel.blob(picture),
      **db[:visits].where(id: id).select(:crew_id, :created_by).first
    )
  end

  def wrapped(row) =
    row.transform_values do |value|
      value.respond_to?(:to_hash) || value.is_a?(Array) ? Sequel.pg_jsonb_wrap(JSON.parse(JSON.generate(value))) : value
    end

  # A visit like one of the demo data, with much of it otherwise.
  def made_up(random, base, number)
    id = uuid
    weather = [nil, random.rand(-10.0..90.0)].sample(random: random)
    own = {
      id: id,
      complaint: "#{words.sample(random: random)} #{number}",
      outdoor_degrees_f: weather,
      demo: false,
      closed_number: nil,
      closed_as: nil
    }
    db[:visits].insert(wrapped(db[:visits].where(id: base).first).merge(own))
    made_up_readings(random, base, id)
    db[:visit_desks].where(visit_id: base).each { |row| db[:visit_desks].insert(wrapped(row).merge(visit_id: id)) }
    closed(id) if number.even?
    photographed(id) if (number % 17).zero?
    id
  end

  def made_up_readings(random, base, id)
    before = nil
    db[:readings]
      .where(visit_id: base)
      .order(:received_at)
      .each do |row|
        own = {
          id: uuid,
          visit_id: id,
          note: words.sample(random: random),
          supersedes_id: random.rand < 0.3 ? before : nil
        }
        own[:retracted_at] = random.rand < 0.2 ? Time.at(1_780_000_000 + random.rand(9_999) + 0.123456) : nil
        choice = row[:choice].nil? ? nil : Sequel.pg_jsonb_wrap(row[:choice])
        db[:readings].insert(wrapped(row.except(:choice)).merge(own, choice: choice))
        before = own[:id]
      end
  end

  it "gives back every demo visit and fifty made-up ones just as they were, and changes nothing the second time" do
    fetch("/api/viewer")
    random = Random.new(26)
    demo = db[:visits].order(:id).select_map(:id)
    made = Array.new(50) { |i| made_up(random, demo.sample(random: random), i) }
    (demo + made).each_slice(10) do |ids|
      files = archives.files(ids)
      before = Gorvant::Formats::Archive.digest(files)
      delete(ids)
      read = Gorvant::Formats::Archive.read(files)
      expect(archives.take_in(read).map(&:came).uniq).to eq(["taken_in"])
      expect(Gorvant::Formats::Archive.digest(archives.files(ids))).to eq(before)
      expect(archives.take_in(read).map(&:came).uniq).to eq(["there"])
    end
    expect(db[:visits].count).to eq(demo.size + 50)
  end

  it "goes out and comes in over the API, in parts, with photo and closing, and is told in the trail" do
    closed(visit_id)
    photographed(visit_id)
    id = visit_id
    zip = zip_of("/api/visits/#{id}/archive")
    delete(id)
    expect(send_up(zip, parts: 3)).to eq(200)
    expect(answer["visits"]).to match([include("id" => id, "came" => "taken_in", "new_id" => false)])
    expect(digest(zip_of("/api/visits/#{id}/archive"))).to eq(digest(zip))
    fetch("/api/visits/#{id}/close-out")
    expect(answer["closings"].map { |one| one.values_at("number", "by") }).to eq([[1, "Local owner"]])
    fetch("/api/visits/#{id}/photos")
    fetch("/api/photos/#{answer["photos"].first["id"]}/small")
    expect(last_response.content_type).to eq("image/jpeg")
    expect(send_up(zip)).to eq(200)
    expect(answer["visits"].first["came"]).to eq("there")
    expect(db[:audit_trail].where(kind: "imported").count).to eq(1)
    expect(db[:archive_parts].count).to eq(0)
    send_json(:post, "/api/search", text: "reading room cold")
    expect(answer["visits"].map { |one| one["id"] }).to eq([id])
  end

  it "takes a unit's visits into another crew under ids of its own, the same each time, and keeps who wrote" do
    unit = db[:visits].where(id: visit_id).get(:unit_id)
    zip = zip_of("/api/units/#{unit}/archive")
    other = db[:crews].returning(:id).insert(name: "Other crew").first[:id]
    as(ServerBench.person("Someone else", "owner", crew: other))
    expect(send_up(zip)).to eq(200)
    taken = answer["visits"].first
    expect(taken.values_at("came", "new_id")).to eq(["taken_in", true])
    fetch("/api/visits/#{taken["id"]}/readings")
    expect(answer["readings"].map { |one| one["taken_by"] }.uniq).to eq(["Local owner"])
    expect(answer["readings"].size).to eq(8)
    expect(send_up(zip)).to eq(200)
    expect(answer["visits"].first.values_at("id", "came")).to eq([taken["id"], "there"])
    expect(db[:visits].where(crew_id: other).count).to eq(1)
  end

  it "keeps parts that nobody took in for a day and no longer, crew by crew" do
    post(
      "/api/archives/#{uuid}/parts/1",
      @sent = "a",
      "CONTENT_TYPE" => "application/octet-stream",
      "HTTP_HOST" => "127.0.0.1"
    )
    post(
      "/api/archives/#{uuid}/parts/1",
      @sent = "b",
      "CONTENT_TYPE" => "application/octet-stream",
      "HTTP_HOST" => "127.0.0.1"
    )
    db[:archive_parts].where(content: Sequel.blob("a")).update(created_at: Time.now - 90_000)
    worker = Gorvant::Server::Database.connect(as: :worker)
    Gorvant::Server::Worker.new(worker).tidy
    expect(db[:archive_parts].select_map(:content)).to eq(["b"])
  ensure
    Gorvant::Server::Database.forget(worker) if worker
  end

  describe "with a logger's record" do
    let(:unit_id) { db[:visits].where(id: visit_id).get(:unit_id) }
    let(:path) { "/api/units/#{unit_id}/archive" }

    # Three hours of a made-up coil, one of them with a gap, as the worker keeps them.
    def recorded
      id = uuid
      send_json(:post, "/api/visits/#{visit_id}/logs", id: id, name: "Hall logger")
      text =
        (0...180).filter_map do |i|
          next if i.between?(70, 80)

          "#{Time.at(1_768_003_200 + (i * 60)).utc.strftime("%F %T")},#{20 + (i % 7)},#{30 + (i % 3) unless i.odd?}"
        end
      @sent = Zlib.gzip("Time,Coil °F,Outdoor °F\n#{text.join("\n")}\n")
      post(
        "/api/logs/#{id}/files/1/parts/1",
        @sent,
        "CONTENT_TYPE" => "application/octet-stream",
        "HTTP_HOST" => "127.0.0.1"
      )
      send_json(:post, "/api/logs/#{id}/look", zone: "UTC")
      send_json(:post, "/api/logs/#{id}/reading", mapping: answer["mapping"], parts: [1])
      worker = Gorvant::Server::Worker.new(db)
      nil while worker.run_one
      id
    end

    # All that is kept of it, packed bytes too; whose it is aside.
    def kept(id)
      row = db[:logs].where(id: id).first.slice(:name, :state, :mapping, :told, :on_off, :created_at, :unit_id)
      [row, db[:log_hours].where(log_id: id).order(:hour).select_map(%i[hour content minutes tens])]
    end

    def record_files(files) = files.keys.grep(/records/).sort

    it "carries it: out, gone, in again the same, and a second time nothing" do
      id = recorded
      before = kept(id)
      zip = zip_of(path)
      expect(JSON.parse(files_of(zip)["manifest.json"])["format"]).to eq("gorvant-archive/2")
      expect(JSON.parse(files_of(zip_of("/api/visits/#{visit_id}/archive"))["manifest.json"])["format"]).to eq(
        "gorvant-archive/1"
      )
      db[:logs].where(id: id).delete
      db[:logger_types].delete
      expect(send_up(zip)).to eq(200)
      expect(answer["records"].map { |one| one.values_at("id", "came", "new_id") }).to eq([[id, "taken_in", false]])
      expect(kept(id)).to eq(before)
      expect(digest(zip_of(path))).to eq(digest(zip))
      expect(send_up(zip)).to eq(200)
      expect(answer["records"].first["came"]).to eq("there")
      row = db[:logs].where(id: id).first
      send_json(
        :post,
        "/api/logs/#{id}/picture",
        from: row[:told]["from"],
        to: row[:told]["to"],
        width: 60,
        columns: ["coil"]
      )
      expect(answer.dig("columns", "coil", "least").compact.min).to eq(20.0)
    end

    it "keeps another crew's of the same id as it is, and takes this one in under a new id" do
      id = recorded
      zip = zip_of(path)
      other = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
      as(ServerBench.person("Ilse Marrow", "owner", crew: other))
      2.times do |i|
        expect([send_up(zip), answer["records"].map { |one| one["came"] }]).to eq([200, [%w[taken_in there][i]]])
      end
      expect(answer["records"].first).to include("new_id" => true)
      expect(db[:logs].where(crew_id: other).select_map(%i[id by_name])).to eq(
        [[answer["records"].first["id"], "Local owner"]]
      )
      expect(answer["records"].first["id"]).not_to eq(id)
    end

    it "never overwrites one that was read otherwise since; nothing of the archive is kept then" do
      id = recorded
      zip = zip_of(path)
      db[:logs].where(id: id).update(name: "Attic logger")
      db[:visits].where(id: visit_id).delete
      expect(send_up(zip)).to eq(422)
      expect(problems).to eq(
        [
          "records/#{id}.json is here already and was read otherwise since; nothing was taken in. Delete the one here first"
        ]
      )
      expect(db[:visits].where(id: zip_visit(zip)).count).to eq(0)
    end

    def zip_visit(zip) = files_of(zip).keys.grep(/visits/).first[/\h{8}-[\h-]+/]

    # What is done to its two files: [document, hours] in, the same out.
    {
      "hours cut short" => [->(document, hours) { [document, hours[0...-3]] }, /holds \d+ bytes, and its hours are/],
      "hours that are not packed" => [
        ->(document, hours) { [document, "x" * hours.bytesize] },
        /hour \d+ cannot be unpacked/
      ],
      "an hour told twice" => [
        ->(document, hours) do
          index = document["hours"]
          [document.merge("hours" => [index[0], [index[0][0], *index[1][1..]], *index[2..]]), hours]
        end,
        /do not follow each other/
      ],
      "a column too many" => [
        ->(document, hours) do
          columns = document["mapping"]["columns"].merge("supply" => { "at" => 0, "unit" => "°F" })
          [document.merge("mapping" => document["mapping"].merge("columns" => columns, "time" => [1])), hours]
        end,
        /columns/
      ],
      "a zip bomb of an hour" => [
        ->(document, hours) do
          bomb = Zlib.deflate("\0" * 8_000_000)
          rest = document["hours"][0][2, 2]
          from = document["hours"][0][1]
          [document.merge("hours" => [[1, bomb.bytesize, *rest]]), bomb + hours.byteslice(from, rest.sum)]
        end,
        /hour 1 cannot be unpacked/
      ],
      "a zone that is none" => [
        ->(document, hours) { [document.merge("mapping" => document["mapping"].merge("zone" => "Larkmere")), hours] },
        /zone/
      ],
      "a share of on that is text" => [
        ->(document, hours) do
          [document.merge("on_off" => { "fan" => { "over" => "x", "low" => 0, "high" => 1, "always" => true } }), hours]
        end,
        %r{on_off/fan/over}
      ],
      "rows fewer than none" => [
        ->(document, hours) { [document.merge("told" => document["told"].merge("rows" => 0)), hours] },
        %r{told/rows}
      ]
    }.each do |what, (doing, said)|
      it "refuses #{what}, by name, and keeps nothing" do
        id = recorded
        files = files_of(zip_of(path))
        db[:logs].where(id: id).delete
        json, packed = record_files(files).partition { |name| name.end_with?(".json") }.map(&:first)
        document, hours = doing.call(JSON.parse(files[json]), files[packed])
        changed = files.except("manifest.json").merge(json => JSON.generate(document), packed => hours)
        sums = changed.transform_values { |bytes| Digest::SHA256.hexdigest(bytes) }
        manifest = JSON.generate(JSON.parse(files["manifest.json"]).merge("files" => sums))
        expect(send_up(Gorvant::Server::ArchiveZip.dump({ "manifest.json" => manifest, **changed }))).to eq(422)
        expect(problems.join("\n")).to match(said)
        expect(problems.first).to start_with("records/#{id}.")
        expect(db[:logs].where(id: id).count).to eq(0)
      end
    end
  end

  describe "all that a crew keeps" do
    def work = Gorvant::Server::Worker.new(db).then { |worker| nil while worker.run_one }

    def make(id = uuid)
      send_json(:post, "/api/exports", id: id)
      expect(last_response.status).to eq(202)
      work
      send_json(:post, "/api/exports", id: id)
      expect([last_response.status, answer["state"]]).to eq([200, "done"])
      answer
    end

    it "goes out as one file of archives, each of which comes in elsewhere" do
      fetch("/api/viewer")
      photographed(visit_id)
      closed(visit_id)
      made = make
      fetch("/api/audit")
      expect(answer["entries"].first["says"]).to eq("took out all that the crew keeps")
      shown = db[:visits].where(binned_at: nil).count
      expect(made["files"].sum { |one| one["visits"] }).to eq(shown)
      whole = zip_of("/api/exports/#{made["id"]}/whole")
      inner = Zip::File.open_buffer(StringIO.new(whole)).entries.to_h { |one| [one.name, one.get_input_stream.read] }
      expect(inner.transform_values(&:bytesize)).to eq(made["files"].to_h { |one| one.values_at("name", "bytes") })
      one = made["files"].first
      expect(zip_of("/api/exports/#{made["id"]}/files/#{one["number"]}")).to eq(inner[one["name"]])
      ids = db[:visits].where(binned_at: nil).select_map(:id)
      before = Gorvant::Formats::Archive.digest(archives.files(ids))
      db[:visits].delete
      inner.each_value { |zip| expect(send_up(zip)).to eq(200) }
      expect(Gorvant::Formats::Archive.digest(archives.files(ids))).to eq(before)
    end

    # Everything that has no visit: a rig of two revisions, a unit, a maker's numbers, a table.
    def shelved
      rig =
        db[:rig_revisions]
          .where(rig_id: db[:rigs].where(name: "Boathouse library, north").select(:id))
          .get(:content)
          .to_hash
      send_json(:post, "/api/rigs", id: @rig = uuid, rig: rig.merge("name" => "Bench rig"))
      expect(last_response.status).to eq(201)
      send_json(:post, "/api/rigs/#{@rig}/revisions", version: 1, rig: rig.merge("name" => "Bench rig, later"))
      expect(last_response.status).to eq(201)
      id = Gorvant::Server::Sites.new(db, ServerBench.viewer).unit_id("Kiln shed", "Loft unit")
      db[:units].where(id: id).update(notes: "Ladder behind the door.", installed_year: 2014)
      labels = { "changeover_setup" => "12" }
      send_json(:post, "/api/setting_profiles", id: @profile = uuid, name: "Mill", labels: labels)
      text = "degrees_f,ohms\n30,34000\n60,15000\n90,7300\n"
      send_json(:post, "/api/sensor_tables", id: @table = uuid, name: "Loft table", text: text, keep: true)
      expect(last_response.status).to eq(201)
    end

    # The one file of what has no visit: [its zip, its document].
    def beside(made)
      number = made["files"].find { |one| one["visits"].zero? && one["records"].zero? }["number"]
      zip = zip_of("/api/exports/#{made["id"]}/files/#{number}")
      [zip, JSON.parse(files_of(zip).fetch("shelf.json"))]
    end

    def shelf_rows
      own = { crew_id: ServerBench.viewer.crew_id }
      [
        db[:rig_revisions].where(own).order(:id).select_map(%i[id rig_id number digest]),
        db[:units].where(own).order(:id).select_map(%i[name notes installed_year]).sort_by(&:inspect),
        db[:setting_profiles].where(own).order(:id).select_map(%i[id name labels]),
        db[:sensor_tables].where(own).order(:id).select_map(%i[id name tolerance_degrees_f points])
      ]
    end

    it "holds what has no visit: rigs with every revision, units with their notes, own numbers and tables" do
      shelved
      fetch("/api/viewer")
      zip, shelf = beside(make)
      expect(JSON.parse(files_of(zip)["manifest.json"])["format"]).to eq("gorvant-archive/3")
      expect(shelf["units"].map { |one| one.values_at("site", "unit") }).to include(["Kiln shed", "Loft unit"])
      before = shelf_rows
      expect([send_up(zip), answer["shelf"].map { |one| one["came"] }.uniq]).to eq([200, ["there"]])
      expect(shelf_rows).to eq(before)
      %i[visits units sites rigs setting_profiles sensor_tables].each { |table| db[table].delete }
      expect([send_up(zip), answer["shelf"].map { |one| one["came"] }.uniq]).to eq([200, ["taken_in"]])
      expect(shelf_rows).to eq(before)
      fetch("/api/rigs/#{@rig}/revisions")
      expect(answer["revisions"].map { |one| one["number"] }).to eq([2, 1])
    end

    it "parts the rigs where there are many; what else is kept is in the first part alone" do
      stub_const("Gorvant::Server::MakeExport::MOST_RIGS", 3)
      shelved
      fetch("/api/viewer")
      made = make
      parts = made["files"].select { |one| one["visits"].zero? && one["records"].zero? }
      zips = parts.map { |one| zip_of("/api/exports/#{made["id"]}/files/#{one["number"]}") }
      shelves = zips.map { |zip| JSON.parse(files_of(zip).fetch("shelf.json")) }
      expect(shelves.flat_map { |one| one["rigs"] }).to match_array(db[:rigs].select_map(:id))
      expect(shelves.map { |one| one["setting_profiles"].size }).to eq([1, *Array.new(parts.size - 1, 0)])
      expect([parts.size > 1, parts.map { |one| one["name"] }.uniq.size]).to eq([true, parts.size])
      db[:visits].delete
      db[:rigs].delete
      zips.each { |zip| expect(send_up(zip)).to eq(200) }
      expect(shelves.flat_map { |one| one["rigs"] }).to match_array(db[:rigs].select_map(:id))
    end

    it "is taken in by another crew under ids of its own, once, and names that are taken there get a number" do
      shelved
      fetch("/api/viewer")
      zip, = beside(make)
      other = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
      as(ServerBench.person("Ilse Marrow", "owner", crew: other))
      send_json(:post, "/api/setting_profiles", id: uuid, name: "Mill", labels: { "changeover_setup" => "7" })
      came = 2.times.map { send_up(zip) && answer["shelf"].map { |one| one.values_at("id", "title", "came") } }
      expect(came.map { |all| all.map(&:last).uniq }).to eq([["taken_in"], ["there"]])
      expect(came.map { |all| all.map { |one| one.take(2) } }.uniq.size).to eq(1)
      expect(db[:setting_profiles].where(crew_id: other).select_order_map(:name)).to eq(["Mill", "Mill (2)"])
      expect(db[:rigs].where(id: @rig).get(:crew_id)).to eq(ServerBench.viewer.crew_id)
      expect(db[:rigs].where(crew_id: other, name: "Bench rig, later").count).to eq(1)
    end

    {
      "a rig that is not in it" => [
        ->(shelf) { shelf["rigs"] << "00000000-0000-4000-8000-000000000000" },
        /names rigs that/
      ],
      "a setting that is none" => [
        ->(shelf) { shelf["setting_profiles"][0]["labels"] = { "x" => "1" } },
        %r{profiles/0/labels}
      ],
      "a table that climbs" => [
        ->(shelf) { shelf["sensor_tables"][0]["points"][2][1] = 90_000 },
        %r{sensor_tables/0/points/2 ohms have to fall}
      ],
      "a name of nothing" => [->(shelf) { shelf["sensor_tables"][0]["name"] = " " }, %r{sensor_tables/0/name}],
      "a crew's own column" => [->(shelf) { shelf["units"][0]["crew_id"] = "mine" }, %r{units/0}]
    }.each do |what, (change, said)|
      it "refuses a shelf with #{what}, and keeps nothing of it" do
        shelved
        fetch("/api/viewer")
        zip, shelf = beside(make)
        db[:setting_profiles].delete
        change.call(shelf)
        files = files_of(zip).except("manifest.json").merge("shelf.json" => JSON.generate(shelf))
        sums = files.transform_values { |bytes| Digest::SHA256.hexdigest(bytes) }
        manifest = JSON.parse(files_of(zip)["manifest.json"]).merge("files" => sums)
        changed = Gorvant::Server::ArchiveZip.dump({ "manifest.json" => JSON.generate(manifest), **files })
        expect([send_up(changed), problems.join]).to match([422, said])
        expect(db[:setting_profiles].count).to eq(0)
      end
    end

    it "parts a unit with more than an archive holds, and names each file apart" do
      stub_const("Gorvant::Server::MakeExport::MOST_ENTRIES", 2)
      fetch("/api/viewer")
      files = make["files"]
      expect(files.map { |one| one["visits"] }.max).to eq(2)
      expect(files.map { |one| one["name"] }.uniq.size).to eq(files.size)
      expect(files.sum { |one| one["visits"] }).to eq(db[:visits].count)
    end

    it "is one at a time, is not whole before its task is done, and goes after a day" do
      fetch("/api/viewer")
      first = make["id"]
      send_json(:post, "/api/exports", id: between = uuid)
      send_json(:post, "/api/exports", id: second = uuid)
      expect(db[:tasks].where(state: "cancelled").select_map(:key)).to eq(["export #{between}"])
      fetch("/api/exports")
      expect(answer["export"].values_at("id", "state")).to eq([second, "waiting"])
      get("/api/exports/#{second}/whole", {}, "HTTP_HOST" => "127.0.0.1")
      expect(last_response.status).to eq(422)
      get("/api/exports/#{first}/whole", {}, "HTTP_HOST" => "127.0.0.1")
      expect(last_response.status).to eq(404)
      work
      db[:exports].update(created_at: Time.now - 90_000)
      worker = Gorvant::Server::Database.connect(as: :worker)
      Gorvant::Server::Worker.new(worker).tidy
      expect([db[:exports].count, db[:export_parts].count]).to eq([0, 0])
    ensure
      Gorvant::Server::Database.forget(worker) if worker
    end

    it "is worked by the worker's own role, of its own crew's rows" do
      fetch("/api/viewer")
      other = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
      send_json(:post, "/api/exports", id: id = uuid)
      worker = Gorvant::Server::Database.connect(as: :worker)
      Gorvant::Server::Worker.new(worker).run_one
      send_json(:post, "/api/exports", id: id)
      expect(answer.values_at("state", "error")).to eq(["done", nil])
      as(ServerBench.person("Ilse Marrow", "owner", crew: other))
      fetch("/api/exports")
      expect(answer["export"]).to be_nil
      get("/api/exports/#{id}/whole", {}, "HTTP_HOST" => "127.0.0.1")
      expect(last_response.status).to eq(404)
    ensure
      Gorvant::Server::Database.forget(worker) if worker
    end
  end

  it "brings back in sight what lay in the bin" do
    zip = zip_of("/api/visits/#{visit_id}/archive")
    unit = db[:visits].where(id: visit_id).get(:unit_id)
    id = visit_id
    send_json(:post, "/api/visits/#{id}/bin", {})
    send_json(:post, "/api/units/#{unit}/bin", {})
    expect(send_up(zip)).to eq(200)
    fetch("/api/visits/#{id}")
    expect(last_response.status).to eq(200)
  end

  it "never overwrites what has gone on since" do
    zip = zip_of("/api/visits/#{visit_id}/archive")
    db[:visits].where(id: visit_id).update(complaint: "changed since")
    expect(send_up(zip)).to eq(422)
    expect(problems.first).to match(%r{visits/\h+.*is here already and has gone on})
    expect(db[:visits].where(id: visit_id).get(:complaint)).to eq("changed since")
  end

  # [what is done to the files, what is said]
  visit_file = ->(files) { files.keys.find { |name| name.start_with?("visits/") } }
  mended = ->(files) do
    sums = files.except("manifest.json").transform_values { |bytes| Digest::SHA256.hexdigest(bytes) }
    files.merge("manifest.json" => JSON.generate(JSON.parse(files["manifest.json"]).merge("files" => sums)))
  end
  changed = ->(files, &change) do
    name = visit_file.call(files)
    mended.call(files.merge(name => JSON.generate(JSON.parse(files[name]).tap(&change))))
  end
  {
    "a letter changed" => [
      ->(files) { files.merge(visit_file.call(files) => files[visit_file.call(files)].sub("Iced", "Aced")) },
      %r{visits/\S+ is damaged or was changed}
    ],
    "a file left out" => [->(files) { files.except(visit_file.call(files)) }, %r{visits/\S+ is missing}],
    "a file put in" => [
      ->(files) { files.merge("photos/#{"0" * 8}-0000-0000-0000-#{"0" * 12}.jpg" => "x") },
      /its manifest does not know it/
    ],
    "no manifest" => [->(files) { files.except("manifest.json") }, /manifest.json is missing/],
    "a newer version" => [
      ->(files) { files.merge("manifest.json" => JSON.generate({ "format" => "gorvant-archive/4" })) },
      %r{reads gorvant-archive/1, gorvant-archive/2, gorvant-archive/3}
    ],
    "a reading of nothing" => [
      ->(files) { changed.call(files) { |one| one["readings"][2]["function"] = "smell" } },
      %r{readings/2/function unknown}
    ],
    "a time that is none" => [
      ->(files) { changed.call(files) { |one| one["readings"][1]["taken_at"] = "noon" } },
      %r{readings/1/taken_at}
    ],
    "a rig that is not there" => [
      ->(files) { changed.call(files) { |one| one["visit"]["rig_revision_id"] = one["visit"]["id"] } },
      %r{visit/rig_revision_id names a rig}
    ],
    "a symptom unheard of" => [
      ->(files) { changed.call(files) { |one| one["visit"]["symptoms"] = ["hiccups"] } },
      /unknown: hiccups/
    ],
    "a desk that keeps nonsense" => [
      ->(files) { changed.call(files) { |one| one["desks"][0]["content"] = { "nonsense" => 1 } } },
      %r{desks/0/content/nonsense unknown}
    ],
    "a closing that is not there" => [
      ->(files) { changed.call(files) { |one| one["visit"]["closed_number"] = 3 } },
      /names a closing that is not there/
    ],
    "a day that there is not" => [
      ->(files) { changed.call(files) { |one| one["visit"]["visit_on"] = "2026-02-30" } },
      %r{visit/visit_on is no day}
    ],
    "an hour that there is not" => [
      ->(files) { changed.call(files) { |one| one["readings"][0]["taken_at"] = "2026-11-23T25:00:00Z" } },
      %r{readings/0/taken_at is no day}
    ],
    "a null character" => [
      ->(files) { changed.call(files) { |one| one["visit"]["complaint"] = "a\u0000b" } },
      /holds the null character/
    ],
    "a verdict unheard of" => [
      ->(files) { changed.call(files) { |one| one["readings"][0]["verdict"] = "splendid" } },
      %r{readings/0/verdict}
    ],
    "a choice that is none" => [
      ->(files) do
        changed.call(files) { |one| one["readings"].find { |row| row["place"] == "ice" }["choice"] = { "a" => 1 } }
      end,
      %r{readings/\d+/choice}
    ],
    "a point that its rig has not" => [
      ->(files) do
        changed.call(files) { |one| one["readings"].find { |row| row["to_node"] }["to_node"] = "outdoor.Q" }
      end,
      %r{readings/\d+/to_node}
    ],
    "a number past all numbers" => [
      ->(files) { changed.call(files) { |one| one["visit"]["version"] = 99_999_999_999 } },
      %r{visit/version}
    ],
    "a field too many" => [->(files) { changed.call(files) { |one| one["visit"]["crew_id"] = "mine" } }, %r{/visit}]
  }.each do |what, (change, says)|
    it "refuses #{what}, says where, and takes in nothing" do
      id = visit_id
      files = files_of(zip_of("/api/visits/#{id}/archive"))
      delete(id)
      before = db[:visits].count
      expect(send_up(Gorvant::Server::ArchiveZip.dump(change.call(files)))).to eq(422)
      expect(problems.first).to match(says)
      expect(db[:visits].count).to eq(before)
    end
  end

  # A bar at the beginning of a name becomes what no zip should have there.
  def zip_with(names)
    zip =
      Zip::OutputStream.write_buffer { |out| names.each { |name, bytes| out.put_next_entry(name) && out.write(bytes) } }
    zip.string.b.gsub("|manifest".b, "/manifest".b)
  end

  {
    "a path outside" => [{ "../../etc/passwd" => "x" }, /no name that an archive has/],
    "an absolute path" => [{ "|manifest.json" => "x" }, /no name that an archive has/],
    "a script" => [{ "visits/run.sh" => "x" }, /no name that an archive has/],
    "ten thousand files" => [Array.new(10_000) { |i| ["visits/#{i}.json", "{}"] }, /holds 10000 files/],
    "a bomb" => [{ "manifest.json" => "0" * (40 * 1024 * 1024) }, /over \d+ bytes/]
  }.each do |what, (names, says)|
    it "refuses #{what} before it is unpacked" do
      allow(Zlib::Inflate).to receive(:new).and_raise("unpacked")
      expect(send_up(zip_with(names))).to eq(422)
      expect(problems.first).to match(says)
    end
  end

  it "refuses what is no zip, a zip that lies about its sizes, and parts that never came" do
    expect(send_up("no zip at all")).to eq(422)
    lying = zip_with({ "manifest.json" => "0" * 5_000 }).b
    at = lying.index("PK\x01\x02".b)
    lying[at + 24, 4] = [10].pack("V")
    expect(send_up(lying)).to eq(422)
    expect(problems.first).to match(/unpacks to more|cannot be read|damaged/)
    send_json(:post, "/api/archives/#{uuid}/import", parts: 2)
    expect([last_response.status, problems.first]).to match([422, /part 1 of 2 has not arrived/])
  end
end
