# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"
require_relative "../support/practice_trial"

RSpec.describe "Practice", :server do
  include_context "with the API's contract"

  after { ServerBench.alone }

  let(:worker) { Gorvant::Server::Worker.new(db) }
  let(:boathouse) { db[:rigs].where(name: "Boathouse library, north").get(:id) || db[:rigs].get(:id) }

  def work = (nil while worker.run_one)
  def drills = Gorvant::Server::Drills.new(db, ServerBench.viewer)

  # A drill with a truth that is named, kept as a made one is.
  def hide(*ids, symptoms: %w[no_heat], rig: rig())
    library = PracticeTrial.library(rig, 34.0)
    drill = PracticeTrial.hidden(library, ids, symptoms: symptoms)
    drills.keep(uuid, {}, drill, { id: boathouse }).first[:id]
  end

  def begin_try(drill_id, **more)
    send_json(:post, "/api/practice/tries", { id: uuid, drill_id: drill_id, **more })
    answer
  end

  def act(try, kind, **given)
    send_json(:post, "/api/practice/tries/#{try["id"]}/acts", version: try["version"], act: { act: kind, **given })
    answer
  end

  def decide(try, *decision)
    send_json(:post, "/api/practice/tries/#{try["id"]}/decision", version: try["version"], decision: decision)
    answer
  end

  it "draws a drill by a task, hands it out, and has it there for the next learner" do
    asked = { id: uuid, rig_id: boathouse, form: "find", subject: "safeties", level: 2 }
    send_json(:post, "/api/practice/drills", asked)
    expect(last_response.status).to eq(202)
    expect(answer["kind"]).to eq("drill")
    work
    fetch("/api/tasks/#{answer["id"]}")
    expect(answer["state"]).to eq("done"), answer["error"]
    send_json(:post, "/api/practice/drills", asked)
    expect([last_response.status, answer["form"], answer["subject"]]).to eq([200, "find", "safeties"])
    drill = answer
    begin_try(drill["id"])
    send_json(:post, "/api/practice/drills", { **asked, id: uuid })
    expect(last_response.status).to eq(202) # this one is met
    send_json(:post, "/api/practice/drills", asked)
    expect([last_response.status, answer["id"]]).to eq([200, drill["id"]]) # asked for again by its own id
    as(ServerBench.person("Tilda Roe", "apprentice"))
    send_json(:post, "/api/practice/drills", { **asked, id: uuid })
    expect([last_response.status, answer["id"]]).to eq([200, drill["id"]])
    send_json(:post, "/api/practice/drills", { **asked, id: uuid, fresh: true })
    expect(last_response.status).to eq(202) # one of her own to hand out
  end

  it "says where a rig has nothing of a kind" do
    asked = { id: uuid, rig_id: boathouse, form: "find", subject: "not_a_fault", level: 1 }
    2.times do
      send_json(:post, "/api/practice/drills", asked)
      work
    end
    expect(last_response.status).to eq(422)
    expect(answer["errors"].first).to include("field" => "/level", "problem" => /has nothing of this subject and level/)
  end

  it "is done act by act, decided, judged, and gone over again" do
    try = begin_try(hide("stuck_open:HPS"))
    expect([last_response.status, try["standing"]["call"], try["unit"]["points"].size > 20]).to eq([201, "heat", true])
    try = act(try, "volts", from: "outdoor.C", to: "outdoor.board.T1")
    try = act(try, "volts", from: "outdoor.HPS.1", to: "outdoor.HPS.2")
    try = act(try, "volts", from: "outdoor.LPS.1", to: "outdoor.LPS.2")
    expect(try["log"].last(2).map { |entry| entry["says"] }).to match([/\A2[45]\.\d V/, "0.0 V"])
    expect(try["standing"]).to include("place" => "outdoor", "acts" => 3, "walks" => 0)
    try = act(try, "volts", from: "outdoor.HPS.1", to: "outdoor.HPS.2", instrument: "low_impedance")
    try = act(try, "look", place: "liquid_side") # it has not tripped: the switch itself
    decided = decide(try, { kind: "stuck_open", at: "HPS" })
    expect([last_response.status, decided["state"], decided["result"]]).to eq([202, "judging", nil])
    work
    fetch("/api/practice/tries/#{try["id"]}")
    result = answer["result"]
    expect(answer["state"]).to eq("done")
    expect(result["truth"].first["title"]).to include("HPS")
    expect(result["score"]).to include("right" => true, "proved" => true, "unsafe" => 0)
    expect(result["steps"].map { |step| step["bits"] }).to all(be_a(Numeric))
    expect(answer["marks"]).to eq(result["score"]["marks"])
    act(answer, "wait", minutes: 5)
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/state"])
  end

  it "counts what had to be stopped, and keeps nothing of it at the unit" do
    try = begin_try(hide("stuck_open:HPS"))
    stopped = act(try, "jumper", from: "outdoor.HPS.1", to: "outdoor.HPS.2")
    expect(stopped["log"].last["stopped"]).to include("code" => "safety_bridged", "caution" => "safeties")
    expect(stopped["standing"]["jumpers"]).to eq([])
    act(stopped, "volts", from: "outdoor.C", to: "moon")
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/act/to"])
    act({ **try, "version" => 1 }, "wait", minutes: 1)
    expect(last_response.status).to eq(409)
  end

  it "is there tomorrow, as it was left, and nobody else's" do
    try = act(begin_try(hide("stuck_open:HPS")), "volts", from: "outdoor.C", to: "outdoor.Y")
    db[:drill_tries].update(updated_at: Time.now - 86_400, created_at: Time.now - 86_400)
    fetch("/api/practice")
    expect(answer["open"].first).to include("id" => try["id"], "acts" => 1)
    fetch("/api/practice/tries/#{try["id"]}")
    expect(answer).to eq(try)
    as(ServerBench.person("Tilda Roe", "apprentice"))
    fetch("/api/practice/tries/#{try["id"]}")
    expect(last_response.status).to eq(404)
    act(try, "wait", minutes: 1)
    expect(last_response.status).to eq(404)
  end

  describe "what is hidden" do
    # All that anybody is answered, and all that is kept where anybody could come by it.
    def everything(try, drill_id)
      texts = []
      ask = ->(&block) { block.call && (texts << last_response.body) }
      ask.call { fetch("/api/practice") }
      ask.call { fetch("/api/practice/drills/#{drill_id}") }
      %w[loops ladder connections].each do |view|
        ask.call { send_json(:post, "/api/practice/drills/#{drill_id}/drawing", view: view) }
      end
      ask.call { fetch("/api/practice/tries/#{try["id"]}") }
      ask.call { fetch("/api/practice/courses") }
      texts << db[:computed_results].exclude(kind: "signatures").select_map(:content).join
      texts << db[:events].select_map(:payload).join
      texts << db[:tasks].select_map(:input).join
      texts.join("\n")
    end

    it "is in no answer before the decision: 50 drills, their lists, drawings, acts, tasks and events" do
      library = PracticeTrial.library(rig, 34.0)
      maker = PracticeTrial.maker(rig, 34.0)
      hidden = (2..3).flat_map { |level| %w[changeover sequence wiring staging].flat_map { maker.members(_1, level) } }
      hidden
        .uniq
        .sample(50, random: Random.new(3))
        .each do |index|
          hypothesis = library.hypotheses[index]
          drill_id = hide(hypothesis.id)
          try = begin_try(drill_id)
          said = last_response.body.dup
          [
            ["volts", { from: "outdoor.C", to: "outdoor.Y" }],
            ["look", { place: "contactor" }],
            ["call", { value: "fan" }],
            ["landings", { place: "wall" }],
            ["settings", { fact: "defrost_interval_minutes" }]
          ].each do |kind, given|
            try = act(try, kind, **given)
            expect(last_response.status).to eq(200)
            said << last_response.body
          end
          said << everything(try, drill_id)
          [
            hypothesis.id,
            hypothesis.title,
            "hypotheses",
            "\"sealed\"",
            "\"spells\"",
            "\"par\"",
            "\"codes\""
          ].each { |word| expect(said).not_to include(word), "#{hypothesis.id}: #{word}" }
          db[:drill_tries].delete
          db[:drills].delete
        end
    end

    it "is not told by the size of what is answered" do
      sizes =
        %w[stuck_open:HPS open:cable_a.red open:SEQ].map do |id|
          drill_id = hide(id)
          begin_try(drill_id).then { |try| everything(try, drill_id).size }
        end
      expect(sizes.max - sizes.min).to be < 1_000 # lists of tries grow by one a drill
    end

    it "has no circuit that other routes would answer for" do
      drill_id = hide("stuck_open:HPS")
      %w[trace expected measurement spice alike svg way timeline].each do |question|
        %w[visits rigs practice/drills practice/tries].each do |noun|
          send_json(:post, "/api/#{noun}/#{drill_id}/#{question}", {})
          expect(last_response.status).to eq(404), "#{noun} #{question}"
        end
      end
    end
  end

  describe "drills that ask" do
    def ask(form)
      send_json(:post, "/api/practice/drills", id: uuid, rig_id: boathouse, form: form, subject: "sequence", level: 1)
      begin_try(answer["id"])
    end

    def reply(try, given)
      send_json(
        :post,
        "/api/practice/tries/#{try["id"]}/answers",
        version: try["version"],
        number: try["ask"]["number"],
        answer: given
      )
      answer
    end

    it "judge at once, ask the next, and come to marks" do
      try = ask("predict")
      asked = []
      while try["ask"]
        asked << try["ask"]["call"]
        loads = try["ask"]["loads"].to_h { |load| [load["code"], true] }
        try = reply(try, loads: loads, points: try["ask"]["points"].map { "about_24" })
        expect(last_response.status).to eq(200)
      end
      expect(asked.size).to eq(try["drill"]["questions"])
      shares = try["log"].map { |entry| entry["share"] }
      expect([try["state"], try["marks"]]).to eq(["done", (shares.sum / shares.size * 100).round])
      expect(try["log"].first["lines"].first).to include("what", "said", "is", "right")
    end

    it "have a first question in every form, that holds no answer" do
      %w[trace panel timing].each do |form|
        try = ask(form)
        expect([try["ask"]["number"], try["standing"], try["unit"]]).to eq([0, nil, nil])
        expect(last_response.body).not_to match(/"(seed|fault|asks|sealed)"/)
      end
    end

    it "refuse an answer to another question, or half of one, and keep nothing" do
      try = ask("timing")
      send_json(
        :post,
        "/api/practice/tries/#{try["id"]}/answers",
        version: try["version"],
        number: 3,
        answer: {
          minutes: 1
        }
      )
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/number"])
      reply(try, { hours: 1 })
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/answer/minutes"])
      fetch("/api/practice/tries/#{try["id"]}")
      expect(answer["log"]).to eq([])
    end
  end

  it "shows progress by subject: new, then due again as the schedule has it" do
    fetch("/api/practice")
    expect(answer["subjects"].map { |one| one["standing"] }.uniq).to eq(["new"])
    expect(answer["today"]["subject"]).to eq("power")
    try = begin_try(hide("stuck_open:HPS"))
    db[:drill_tries].where(id: try["id"]).update(state: "done", marks: 100, done_at: Time.now - 3600)
    fetch("/api/practice")
    sequence = answer["subjects"].find { |one| one["id"] == "sequence" }
    expect(sequence).to include("standing" => "sure", "done" => 1, "last_marks" => 100, "due" => false)
    expect(Time.iso8601(sequence["due_at"]) - Time.now).to be_within(60).of(82_800)
  end

  it "answers an act at whole steps of time, whatever is hidden, refusals too" do
    even = Gorvant::Server::EvenTime
    expect([0.0, 0.01, 0.24, 0.25, 0.26, 0.9].map { |spent| even.left(spent).round(2) }).to eq(
      [0.25, 0.24, 0.01, 0.0, 0.24, 0.1]
    )
    waited = []
    allow(even).to receive(:pause).and_return(->(seconds) { waited << seconds })
    try = begin_try(hide("stuck_open:HPS"))
    expect(waited).to eq([])
    try = act(try, "volts", from: "outdoor.C", to: "outdoor.Y")
    expect([last_response.status, waited.size]).to eq([200, 1])
    expect(waited).to all(be_between(0, even::STEP_SECONDS))
    allow(Gorvant::Practice::Bench).to receive(:new).and_raise(
      Gorvant::Practice::BadAct.new(field: "/act", problem: "no")
    )
    act(try, "volts", from: "outdoor.C", to: "outdoor.O")
    expect([last_response.status, waited.size]).to eq([422, 2])
  end

  describe "courses" do
    let(:apprentice) { ServerBench.person("Tilda Roe", "apprentice") }

    def course(**more)
      send_json(:post, "/api/practice/courses", { id: uuid, name: "First week", **more })
      answer
    end

    it "are handed out, done, and their results seen by who made them alone" do
      drill_id = hide("stuck_open:HPS")
      made = course(drill_ids: [drill_id], learner_ids: [apprentice])
      expect([last_response.status, made["learners"], made["results"]]).to eq([201, ["Tilda Roe"], []])
      nothing = { "standing" => "new", "done" => 0, "last_marks" => nil }
      expect(made["by_learner"]).to match([{ "learner" => "Tilda Roe", "subjects" => [include(nothing)] }])
      as(apprentice)
      fetch("/api/practice/courses")
      expect(answer["courses"].first).to include("name" => "First week", "results" => nil, "by_learner" => nil)
      decide(begin_try(drill_id, course_id: made["id"]), { kind: "stuck_open", at: "HPS" })
      work
      as(ServerBench.person("Olm Brandt", "technician"))
      fetch("/api/practice/courses/#{made["id"]}")
      expect(last_response.status).to eq(404) # handed to somebody else
      as(ServerBench.viewer.user_id)
      fetch("/api/practice/courses/#{made["id"]}")
      expect(answer["results"].first).to include("learner" => "Tilda Roe", "state" => "done", "marks" => 40)
      stands = {
        "id" => "sequence",
        "title" => "Sequence of each call",
        "standing" => "shaky",
        "done" => 1,
        "last_marks" => 40
      }
      expect(answer["by_learner"]).to eq([{ "learner" => "Tilda Roe", "subjects" => [stands] }])
      send_json(:post, "/api/practice/courses/#{made["id"]}/removal", {})
      expect(last_response.status).to eq(200)
      expect(db[:drill_tries].count).to eq(1) # what was done stays
    end

    it "refuse a stranger, a drill that is not there, and a nameless one" do
      drill_id = hide("stuck_open:HPS")
      course(drill_ids: [drill_id], learner_ids: [uuid])
      expect(answer["errors"].first["field"]).to eq("/learner_ids")
      course(drill_ids: [uuid])
      expect(answer["errors"].first["field"]).to eq("/drill_ids")
      course(name: " ", drill_ids: [drill_id])
      expect(answer["errors"].first["field"]).to eq("/name")
      as(apprentice)
      course(drill_ids: [drill_id])
      expect(last_response.status).to eq(403)
    end

    it "go into a file that tells nothing, and come out of it with the words alone" do
      made = course(drill_ids: [hide("stuck_open:HPS"), hide("open:cable_a.red")])
      seal = { passphrase: "quiet herons at noon" }
      send_json(:post, "/api/practice/courses/#{made["id"]}/file", { passphrase: "short" })
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/passphrase"])
      send_json(:post, "/api/practice/courses/#{made["id"]}/file", seal)
      file = answer
      expect(file["format"]).to eq("gorvant-drill/1")
      plain = JSON.generate(file) + file["sealed"].unpack1("m0").force_encoding("BINARY")
      expect(plain).not_to match(/HPS|cable_a|stuck_open|hypotheses/)

      take = { id: uuid, file: file, **seal }
      send_json(:post, "/api/practice/files", { **take, passphrase: "quiet herons at dawn" })
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/passphrase"])
      send_json(:post, "/api/practice/files", { **take, file: file.merge("title" => "Another") })
      expect(last_response.status).to eq(422) # the title is bound to what is sealed
      send_json(:post, "/api/practice/files", { **take, file: file.merge("format" => "x") })
      expect(answer["errors"].first["field"]).to eq("/file/format")
      send_json(:post, "/api/practice/files", { **take, file: file.except("salt") })
      expect(answer["errors"].first["field"]).to eq("/file/salt")
      2.times { send_json(:post, "/api/practice/files", take) }
      expect([last_response.status, answer["drills"].size, answer["name"]]).to eq([200, 2, "First week"])
      expect(db[:drills].where(made_by: "file").count).to eq(2)
      try = act(begin_try(answer["drills"].first["id"]), "volts", from: "outdoor.HPS.1", to: "outdoor.HPS.2")
      expect(try["log"].last["data"]["value"]).to be > 20
    end
  end
end
