# frozen_string_literal: true

require "json"
require "open3"
require "yaml"

# Arrows that nobody checks leak: the core needs nothing outside itself, and its rooms lean only on rooms above them.
RSpec.describe "Architecture" do
  root = File.expand_path("..", __dir__)
  rooms = %w[
    catalogue
    findings
    circuit
    rig
    faults
    sensors
    sequence
    thermostat
    defrost
    frost
    runs
    wiring
    evidence
    diagnosis
    recorded
    practice
    desks
    drawing
    formats
    report
  ]
  core = Dir[File.join(root, "core/lib/gorvant/**/*.rb")]
  # Whatever the folder above is called, and in any locale.
  inside = ->(path) { path.delete_prefix("#{root}/core/lib/gorvant/") }
  text = ->(path) { File.read(path, encoding: "UTF-8") }

  # { constant => room } for what each room defines at the top of the core's module.
  defined =
    core.each_with_object({}) do |path, found|
      room = inside.call(path)[%r{\A([a-z_]+)/}, 1] or next
      text
        .call(path)
        .scan(/^  (?:class|module) ([A-Z]\w+)|^  ([A-Z]\w+) = Value\.define/)
        .flatten
        .compact
        .each { |name| found[name] ||= room }
    end

  core.each do |path|
    name = inside.call(path)
    room = name[%r{\A([a-z_]+)/}, 1]

    it "#{name} requires only the standard library when it is loaded" do
      required = text.call(path).scan(/^\s*require "([^"]+)"/).flatten
      late = text.call(path).scan(/^ {8,}require "([^"]+)"/).flatten # where it is used, not at load
      expect(required - late - %w[date digest json time yaml set did_you_mean strscan csv zlib]).to eq([])
      expect(late - %w[json_schemer tzinfo]).to eq([])
    end

    next unless room

    it "#{name} leans only on rooms above #{room}" do
      code = text.call(path).lines.reject { |line| line.strip.start_with?("#") }.join
      used =
        defined.select do |constant, home|
          home != room && code.match?(/(?<![\w:"'])#{constant}(?![\w:])|(?<![\w:"'])#{constant}(?=\.|::)/)
        end
      below = used.select { |_constant, home| rooms.index(home) > rooms.index(room) }
      expect(below.map { |constant, home| "#{constant} (#{home})" }).to eq([])
    end

    it "#{name} stands in a known room, and reads no clock, no file, no network" do
      expect(rooms).to include(room)
      code = text.call(path)
      expect(code).not_to match(/Time\.now|Date\.today|\bENV\b|Random\.rand|\bSocket|Net::HTTP|Sequel/)
      expect(code).not_to match(/\bFile\.|\bDir\b/) unless room == "catalogue"
    end
  end

  it "the core loads without a gem, in any locale" do
    loads = [
      "env",
      "-u",
      "RUBYOPT",
      "-u",
      "RUBYLIB",
      "-u",
      "BUNDLE_GEMFILE",
      "LC_ALL=C",
      "LANG=C",
      RbConfig.ruby,
      "--disable-gems",
      "-I#{root}/core/lib",
      "-e",
      'require "gorvant"; print Gorvant::Catalogue.wording.size, Gorvant::Catalogue.print_style.encoding, Gorvant::Catalogue.schema("gorvant-rig-1").size'
    ]
    output, status = Open3.capture2e(*loads)
    expect([status.success?, output]).to match([true, /\A\d+UTF-8\d+\z/])
  end

  it "every rule has its words, severity and source" do
    Gorvant::Rule.all.each do |rule|
      expect(Gorvant::Catalogue.findings.fetch(rule.code)).to include("title", "says", "severity", "source")
    end
  end

  # Of two, the reader takes the last and says nothing.
  it "has no data in which one key stands twice" do
    twice =
      lambda do |node|
        next node.children.to_a.flat_map(&twice) unless node.is_a?(Psych::Nodes::Mapping)

        keys = node.children.each_slice(2).map { |key, _| key.value }
        keys.tally.filter_map { |key, times| key if times > 1 } +
          node.children.each_slice(2).flat_map { |_, value| twice.call(value) }
      end
    found = Dir[File.join(root, "{core/data,server}/*.yml")].to_h { |path| [path, twice.call(YAML.parse_file(path))] }
    expect(found.reject { |_, keys| keys.empty? }).to eq({})
  end

  it "every source that the data name stands in docs/sources.md" do
    named =
      Dir[File.join(root, "core/data/*.{yml,json}")].flat_map do |path|
        text.call(path).scan(/(?:source(?: for all)?: |"source": ")([a-z][a-z0-9-]+(?:, [a-z][a-z0-9-]+)*)/).flatten
      end
    known = text.call(File.join(root, "docs/sources.md")).scan(/^### ([a-z0-9-]+)/).flatten
    expect(named.flat_map { |list| list.split(", ") }.uniq - known).to eq([])
  end

  it "only the front end's tokens write colors, and no SQL stands outside the repositories" do
    # Repositories, the connection with its roles and its migrations, the door's own tables, the worker's queue and the
    # demo data's own upkeep may.
    may = %w[repositories/ database.rb roles.rb crew.rb people/door.rb tasks/worker.rb demo.rb viewer.rb]
    resources =
      Dir[File.join(root, "server/**/*.rb")].reject do |path|
        may.any? { |place| path.delete_prefix("#{root}/server/").start_with?(place) }
      end
    expect(
      resources.select { |path| text.call(path).match?(/db\[:|\.where\(|Sequel/) }.map { |path| File.basename(path) }
    ).to eq([])
  end

  # On each storey a desk is a folder; it may use what is above or shared, and no other desk.
  it "no desk of the core knows another desk" do
    desks =
      Dir[File.join(root, "core/lib/gorvant/desks/*/**/*.rb")].group_by do |path|
        inside.call(path)[%r{desks/([a-z_]+)/}, 1]
      end
    names =
      desks.transform_values do |paths|
        paths.flat_map { |path| text.call(path).scan(/^ {2,4}(?:class|module) ([A-Z]\w+)/).flatten }.uniq - %w[Desks]
      end
    leaks =
      desks.flat_map do |desk, paths|
        others = names.except(desk).values.flatten - names.fetch(desk) - %w[Trace] # a mechanism's name too
        paths.flat_map do |path|
          code = text.call(path).lines.reject { |line| line.strip.start_with?("#") }.join
          others
            .select { |name| code.match?(/(?<![\w:"'])#{name}(?=\.|::)/) }
            .map { |name| "#{inside.call(path)}: #{name}" }
        end
      end
    expect(desks.size).to be > 5
    expect(leaks).to eq([])
  end

  it "no desk of the pages imports another desk, and what is shared imports neither desk nor page" do
    pages = Dir[File.join(root, "web/src/**/*.{vue,ts}")].to_h { |path| [path.delete_prefix("#{root}/web/src/"), path] }
    leaks =
      pages.flat_map do |name, path|
        home = name[%r{\A(?:desks|pages)/[a-z_]+|\Ashared}] or next []
        imports = text.call(path).scan(%r{(?:from|import)\s*\(?\s*["']@/((?:desks|pages)/[a-z_]+)}).flatten
        imports
          .reject { |other| other == home || !%w[desks shared].include?(home.split("/").first) }
          .map { |other| "#{name}: #{other}" }
      end
    expect(pages.keys.grep(%r{\Adesks/}).size).to be > 30
    expect(leaks).to eq([])
  end

  it "the list of desks is one: the pages have a tab for each, under the same title" do
    list = text.call(File.join(root, "web/src/shared/model/visitPages.ts"))
    words = JSON.parse(text.call(File.join(root, "web/src/words/en/shared.json"))).fetch("visitPages")
    tabs =
      list
        .scan(/id: '(\w+)', title: say\('visitPages\.(\w+)'\), path: (null|'[\w-]+')/)
        .map { |id, title, path| [id, words.fetch(title), path != "null"] }
    desks = YAML.safe_load_file(File.join(root, "core/data/desks.yml"))
    expect(tabs).to eq(desks.map { |id, about| [id, about["title"], about["built"]] })
  end
end
