# frozen_string_literal: true

# Bodies made from the API's own document: whole ones, and ones with a place of them turned to what nobody should send.
# Seeded.
class Fuzz
  # Wide, as machines differ: what grows with the square of a body goes far beyond it. Speed is told in bench/.
  LONGEST_SECONDS = 5
  DOCUMENT = YAML.safe_load_file(File.join(Gorvant::Server::ROOT, "server/openapi.yml"))
  ODD = [
    nil,
    true,
    false,
    0,
    -1,
    1e-320,
    1e300,
    10**40,
    2**31,
    0.1 + 0.2,
    "",
    " ",
    "\u200b\u200b",
    "x" * 5_000,
    "\u202Egnp.exe",
    "\u0007bell",
    "<script>alert(1)</script>",
    "NaN",
    "Infinity",
    "1e999",
    "=1+1",
    "%00",
    "'; DROP TABLE visits; --",
    "../../etc/passwd",
    "2026-13-45",
    "A" * 36,
    "\u{1F525}",
    [],
    {},
    [[]],
    [nil] * 300,
    { "a" => { "b" => {} } },
    ["x"] * 3_000
  ].freeze
  OPERATIONS =
    DOCUMENT
      .fetch("paths")
      .flat_map do |path, item|
        item.slice("get", "post", "put", "patch", "delete").map { |method, operation| [method, path, operation] }
      end
      .freeze

  # known: { name of a schema or a property => a value that stands, asked for anew each time }.
  def initialize(seed, known = {})
    @random = Random.new(seed)
    @known = known
  end

  attr_reader :random

  # A body that the operation's schema takes, or nil where it has none.
  def body(operation)
    schema = resolve(operation.fetch("requestBody", nil))&.dig("content", "application/json", "schema")
    schema && make(schema, 0)
  end

  # The body with one or two places of it turned odd.
  def spoiled(body)
    random.rand(1..2).times.inject(body) { |so_far, _| spoil(so_far, places(so_far).sample(random: random)) }
  end

  # Text that is no body of ours at all.
  def garbage(body)
    text = JSON.generate(body)
    [
      text[0, random.rand(text.size + 1)],
      text.sub(/\d+/, "1e999"),
      text.sub(/"[^"]*"/, "\"\xff\""),
      text.sub(":", ":{\"a\":" * 50),
      "[" * 5_000,
      "\u0000",
      text + text
    ].sample(random: random)
  end

  private

  def resolve(part)
    return part unless part.is_a?(Hash) && part["$ref"]

    resolve(part["$ref"].delete_prefix("#/").split("/").inject(DOCUMENT) { |inner, key| inner.fetch(key) })
  end

  def make(schema, depth, name = nil)
    given = @known[schema["$ref"].to_s.split("/").last] || @known[name]
    return given.call if given

    schema = resolve(schema)
    if schema["allOf"]
      return make(schema["allOf"].map { |one| resolve(one) }.reduce({}) { |all, one| join(all, one) }, depth, name)
    end

    options = schema["oneOf"] || schema["anyOf"]
    return make(options.sample(random: random), depth, name) if options
    return schema["enum"].sample(random: random) if schema["enum"]

    of_type(schema, Array(schema["type"] || "object").sample(random: random), depth, name)
  end

  def join(all, one) =
    all.merge(one) { |key, old, new| key == "properties" ? old.merge(new) : (key == "required" ? old | new : new) }

  def of_type(schema, type, depth, name)
    case type
    when "object"
      object(schema, depth)
    when "array"
      depth > 5 ? [] : Array.new(random.rand(0..3)) { make(schema.fetch("items", {}), depth + 1, name) }
    when "string"
      text(schema)
    when "integer"
      [schema["minimum"] || 0, 1, 3, 40].sample(random: random)
    when "number"
      [schema["minimum"] || 0, 1, 24.3, 60].sample(random: random)
    when "boolean"
      random.rand < 0.5
    end
  end

  def object(schema, depth)
    wanted =
      schema
        .fetch("properties", {})
        .select { |key, _| schema.fetch("required", []).include?(key) || (depth < 6 && random.rand < 0.6) }
    wanted.to_h { |key, inner| [key, make(inner, depth + 1, key)] }
  end

  def text(schema)
    case schema["format"]
    when "uuid"
      SecureRandom.uuid
    when "date"
      "2026-11-28"
    when "date-time"
      "2026-11-28T10:00:00Z"
    else
      if schema["pattern"]
        SecureRandom.uuid
      else
        ["heat", "Y", "outdoor.C", "0-40, 50-", "Mill", "a,b\n1,2\n", "high_impedance"].sample(random: random)
      end
    end
  end

  def places(value, so_far = [])
    inner =
      case value
      when Hash
        value.flat_map { |key, one| places(one, so_far + [key]) }
      when Array
        value.each_with_index.flat_map { |one, i| places(one, so_far + [i]) }
      else
        []
      end
    [so_far, *inner]
  end

  def spoil(value, place)
    return ODD.sample(random: random) if place.nil? || place.empty?
    return value unless value.respond_to?(:[]) && value.is_a?(Enumerable)

    copy = value.dup
    copy[place.first] = spoil(value[place.first], place.drop(1))
    copy["x" * random.rand(1..300)] = 1 if copy.is_a?(Hash) && random.rand < 0.05
    copy
  end
end
