# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/fuzz"

# Every route of the document, every field of its body, every parameter of its address: whatever comes, the answer is
# one of ours, in time, and the data is still whole. A route that is new is in here by being in the document. FUZZ_SEED
# and FUZZ_TIMES may be set.
RSpec.describe "Bodies that nobody should send", :server do
  seed = Integer(ENV.fetch("FUZZ_SEED", 28))
  times = Integer(ENV.fetch("FUZZ_TIMES", 9))
  let(:ids) do
    {
      "/api/visits" => visit_id,
      "/api/rigs" => db[:rigs].get(:id),
      "/api/units" => db[:units].get(:id),
      "/api/tasks" => uuid,
      "/api/photos" => uuid
    }
  end
  let(:drawn) { Random.new(seed) }
  let(:netlist) { Gorvant::Assembly.netlist(rig) }
  let(:nodes) { netlist.sections.flat_map(&:nodes) }
  let(:known) do
    {
      "Uuid" => -> { uuid },
      "RigFile" => -> { rig_file },
      "rig" => -> { rig_file },
      "version" => -> { db[:visits].where(id: visit_id).get(:version) || 1 },
      "rig_id" => -> { ids["/api/rigs"] },
      "from_node" => -> { nodes.sample(random: drawn) },
      "to_node" => -> { nodes.sample(random: drawn) },
      "instrument" => -> { "high_impedance" },
      "duration_seconds" => -> { 900 },
      "call" => -> { Gorvant::Outputs.calls(rig).sample(random: drawn) },
      "table_id" => -> { Gorvant::ThermistorTable.all.first.id },
      "load" => -> { netlist.branches.select(&:load?).map(&:id).sample(random: drawn) }
    }
  end

  after { ServerBench.alone } # whatever accounts the bodies have made

  def address(path, random)
    odd = ["%ff", "%00", "x", "1e9", "..", uuid.upcase, "%E2%80%AE", "a" * 300]
    path.gsub(/\{\w+\}/) do
      random.rand < 0.1 ? odd.sample(random: random) : ids.find { |prefix, _| path.start_with?(prefix) }&.last || uuid
    end
  end

  # What is against the answer, nil for nothing.
  def fault(took)
    return "took #{took.round(2)} s" if took > Fuzz::LONGEST_SECONDS
    return "status #{last_response.status}" if last_response.status >= 500
    return nil unless last_response.status >= 400

    kind = last_response.headers["content-type"].to_s
    return "no problem details: #{kind}" unless kind.include?("application/problem+json")

    "says nothing" if answer.values_at("title", "detail").any? { |words| words.to_s.strip.empty? }
  end

  # What the answer itself has cost, in seconds of this process, as others have the machine too; of what it only waited
  # for, a tenth.
  def timed(method, path, body)
    as(ServerBench.viewer.user_id) # whom the one before may have signed out
    began = clocks
    send_json(method, path, body)
    worked, passed = clocks.zip(began).map { |now, before| now - before }
    [worked, passed / 10].max
  end

  def clocks = [Process::CLOCK_PROCESS_CPUTIME_ID, Process::CLOCK_MONOTONIC].map { |id| Process.clock_gettime(id) }

  # The first of its kind loads what it needs, so that a slow one is asked once more.
  def ask(method, path, body)
    took = timed(method, path, body)
    took = timed(method, path, body) if took > Fuzz::LONGEST_SECONDS
    wrong = fault(took)
    wrong &&
      "#{method} #{path} #{body.is_a?(String) ? body[0, 200] : JSON.generate(body)[0, 400]}: #{wrong} #{last_response.body[0, 300]}"
  end

  Fuzz::OPERATIONS.each_with_index do |(method, path, operation), index|
    it "to #{method} #{path} are refused in words, in time, or do no harm" do
      fuzz = Fuzz.new(seed + index, known)
      wrong =
        Array.new(operation["requestBody"] ? times : 2) do |i|
          body = fuzz.body(operation) || {}
          body = [body, fuzz.spoiled(body), fuzz.spoiled(body), fuzz.garbage(body)][i % 4] if operation["requestBody"]
          ask(method, address(path, fuzz.random), body)
        end
      expect(wrong.compact).to eq([])
      as(ServerBench.viewer.user_id)
      fetch("/api/visits")
      expect(last_response.status).to eq(200)
    end
  end

  {
    "a number past all numbers" => [
      "/api/visits/%<visit>s/timeline",
      '{"script":{"moves":[{"at_seconds":1e999,"what":"call","value":"heat"}]},"duration_seconds":60}'
    ],
    "a number of 400 digits" => [
      "/api/compositions",
      "{\"name\":\"Mill\",\"facts\":{\"transformer_va\":{\"value\":1#{"0" * 400}," \
        "\"provenance\":{\"source\":\"measured\"}}}}"
    ],
    "a point with a name of 4 000 characters" => [
      "/api/visits/%<visit>s/trace",
      JSON.generate(condition: { call: "heat", faults: [{ kind: "open", at: "Q" * 4_000 }] })
    ],
    "20 000 thermistor points" => [
      "/api/visits/%<visit>s/defrost/thermistor",
      JSON.generate(table_id: "x", points: [{ degrees_f: 40, ohms: 1 }] * 20_000)
    ],
    "300 bad points" => [
      "/api/visits/%<visit>s/defrost/coil_switch",
      JSON.generate(points: [{ degrees_f: "warm", state: 7 }] * 300)
    ],
    "180 bad points" => [
      "/api/visits/%<visit>s/defrost/coil_switch",
      JSON.generate(points: [{ degrees_f: "warm", state: 7 }] * 180)
    ],
    "60 000 values" => [
      "/api/visits/%<visit>s/trace",
      JSON.generate(condition: { call: "heat", outputs: ["Y"] * 60_000 })
    ],
    "a forced test without its bridge" => %w[
      /api/visits/%<visit>s/defrost/forced_test
      {"test":{"marks":{"fan_off":16}}}
    ],
    "nine thousand bad words" => [
      "/api/notations",
      JSON.generate(name: "Mill", text: Array.new(300) { "R > #{"qqq > " * 30}(CC) > C" }.join("\n"))
    ]
  }.each do |what, (path, body)|
    it "such as #{what} get an answer of less than 20 kB, in time" do
      expect(ask(:post, format(path, visit: visit_id), body)).to be_nil
      expect(last_response.body.bytesize).to be < 20_000
      expect(answer.fetch("errors", []).size).to be <= 20
    end
  end

  {
    "/api/visits/%ff" => 400,
    "/api/visits/%0a" => 400,
    "/api/visits?a=%ff" => 400,
    "/api/visits?a=%" => 400,
    "/api/visits?a=1&a[b]=2" => 400,
    "/api/visits?#{"a" * 3_000}" => 400,
    "/api/visits/#{"a" * 2_000}" => 404,
    "/api/nothing" => 404
  }.each do |path, status|
    it "at the address #{path[0, 40]} get #{status} in problem details" do
      place, query = path.split("?")
      code, headers, =
        app.call(
          Rack::MockRequest.env_for("/", "HTTP_HOST" => "127.0.0.1").merge(
            "PATH_INFO" => place,
            "QUERY_STRING" => query.to_s,
            "HTTP_COOKIE" => ServerBench.cookie,
            "HTTP_X_CSRF_TOKEN" => ServerBench::TOKEN
          )
        )
      expect([code, headers["content-type"]]).to eq([status, "application/problem+json"])
    end
  end

  it "get 405 with what the address takes, and OPTIONS names the methods" do
    delete("/api/visits", {}, "HTTP_HOST" => "127.0.0.1")
    expect([last_response.status, last_response.headers["allow"]]).to eq([405, "GET, POST, HEAD, OPTIONS"])
    options("/api/visits/#{visit_id}", {}, "HTTP_HOST" => "127.0.0.1")
    expect([last_response.status, last_response.headers["allow"]]).to eq([204, "GET, PATCH, HEAD, OPTIONS"])
    options("/api/nowhere", {}, "HTTP_HOST" => "127.0.0.1")
    expect(last_response.status).to eq(404)
  end
end
