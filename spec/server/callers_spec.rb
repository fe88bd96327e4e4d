# frozen_string_literal: true

require_relative "../support/server"

# Who may what: each operation of the API for each who could ask, against the table in callers.txt.
RSpec.describe "Who asks", :server do
  rows = File.readlines(File.join(__dir__, "callers.txt")).grep_v(/^#/).map(&:split)
  document = YAML.safe_load_file(File.join(Gorvant::Server::ROOT, "server", "openapi.yml"))
  callers = %i[stranger apprentice technician owner server_owner other device revoked]

  after { ServerBench.alone }

  # { caller => headers that say who they are }
  let(:headers) do
    crew = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
    people = {
      apprentice: ServerBench.person("Tilda Roe", "apprentice"),
      technician: ServerBench.person("Olm Brandt", "technician"),
      owner: ServerBench.person("Ness Tarrow", "owner"),
      server_owner: ServerBench.viewer.user_id,
      other: ServerBench.person("Ilse Marrow", "owner", crew: crew)
    }
    tokens = Array.new(2) { |i| devices.make(uuid, ServerBench.viewer, name: "Meter #{i}", scope: "readings") }
    devices.revoke(ServerBench.viewer.crew_id, tokens.last.first[:id])
    {
      stranger: nobody,
      **people.transform_values do |id|
        { "HTTP_COOKIE" => ServerBench.cookie(id), "HTTP_X_CSRF_TOKEN" => ServerBench::TOKEN }
      end,
      device: {
        **nobody,
        "HTTP_AUTHORIZATION" => "Bearer #{tokens.first.last}"
      },
      revoked: {
        **nobody,
        "HTTP_AUTHORIZATION" => "Bearer #{tokens.last.last}"
      }
    }
  end

  # Ids of this crew, for those of the other; for its own people ids of nothing, so that nothing happens.
  def ids(mine) =
    { "rigs" => db[:rigs].get(:id), "visits" => visit_id, "units" => db[:units].get(:id), "people" => mine }

  def devices = Gorvant::Server::Devices.new(ServerBench.door)

  def ask(method, path, headers, own)
    nothing = own ? ids(ServerBench.viewer.user_id) : {}
    address = path.gsub(/\{\w+\}/) { nothing.fetch(path.split("/")[2], uuid) }
    clear_cookies
    body = method == "GET" ? {} : "{}"
    media = method == "GET" ? {} : { "CONTENT_TYPE" => "application/json" }
    public_send(method.downcase, address, body, "HTTP_HOST" => "127.0.0.1", **media, **headers)
    last_response
  end

  def sign(response, expected)
    case response.status
    when 401
      "1"
    when 403
      "3"
    when 404, 405, 422
      expected == "4" ? "4" : "+"
    when 200...500
      "+"
    else
      "broke: #{response.status}"
    end
  end

  it "stands in the table for every operation that the document has, and for no other" do
    operations =
      document["paths"].flat_map do |path, methods|
        methods.slice("get", "post", "put", "patch", "delete").map { |method, _| [method.upcase, path] }
      end
    expect(rows.map { |row| row.first(2) }).to match_array(operations)
  end

  # Who may sign out everywhere or take the demo data out does it in specs of their own.
  callers.each_with_index do |caller, column|
    it "is #{caller}: finds what the table says" do
      wrong =
        rows.filter_map do |method, path, *expected|
          next if expected[column] == "+" && path.start_with?("/api/session/end", "/api/demo/")

          seen = sign(ask(method, path, headers.fetch(caller), caller == :other), expected[column])
          "#{method} #{path}: #{seen}, not #{expected[column]}" if seen != expected[column]
        end
      expect(wrong).to eq([])
    end
  end
end
