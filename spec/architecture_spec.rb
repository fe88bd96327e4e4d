# frozen_string_literal: true

# Arrows that nobody checks leak: the core needs nothing outside itself, and its rooms lean only on rooms above them.
RSpec.describe "Architecture" do
  root = File.expand_path("..", __dir__)
  rooms = %w[catalogue findings circuit rig faults sensors sequence thermostat defrost runs wiring diagnosis practice drawing formats]
  core = Dir[File.join(root, "core/lib/gorvant/**/*.rb")]

  # { constant => room } for what each room defines at the top of the core's module.
  defined = core.each_with_object({}) do |path, found|
    room = path[%r{gorvant/([a-z_]+)/}, 1] or next
    File.read(path).scan(/^  (?:class|module) ([A-Z]\w+)|^  ([A-Z]\w+) = Value\.define/).flatten.compact.each { |name| found[name] ||= room }
  end

  core.each do |path|
    name = path.delete_prefix("#{root}/core/lib/gorvant/")
    room = name[%r{\A([a-z_]+)/}, 1]

    it "#{name} requires only the standard library, json_schemer and the core" do
      required = File.read(path).scan(/^\s*require "([^"]+)"/).flatten
      expect(required - %w[digest json yaml set did_you_mean strscan csv json_schemer]).to eq([])
    end

    next unless room

    it "#{name} leans only on rooms above #{room}" do
      code = File.read(path).lines.reject { |line| line.strip.start_with?("#") }.join
      used = defined.select { |constant, home| home != room && code.match?(/(?<![\w:"'])#{constant}(?![\w:])|(?<![\w:"'])#{constant}(?=\.|::)/) }
      below = used.select { |_constant, home| rooms.index(home) > rooms.index(room) }
      expect(below.map { |constant, home| "#{constant} (#{home})" }).to eq([])
    end

    it "#{name} stands in a known room, and reads no clock, no file, no network" do
      expect(rooms).to include(room)
      code = File.read(path)
      expect(code).not_to match(/Time\.now|Date\.today|\bENV\b|Random\.rand|\bSocket|Net::HTTP|Sequel/)
      expect(code).not_to match(/\bFile\.|\bDir\b/) unless room == "catalogue"
    end
  end

  it "every rule has its words, severity and source" do
    Gorvant::Rule.all.each { |rule| expect(Gorvant::Catalogue.findings.fetch(rule.code)).to include("title", "says", "severity", "source") }
  end

  it "every source that the data name stands in docs/sources.md" do
    named = Dir[File.join(root, "core/data/*.yml")].flat_map { |path| File.read(path).scan(/source(?: for all)?: ([a-z][a-z0-9-]+(?:, [a-z][a-z0-9-]+)*)/).flatten }
    known = File.read(File.join(root, "docs/sources.md")).scan(/^### ([a-z0-9-]+)/).flatten
    expect(named.flat_map { |list| list.split(", ") }.uniq - known).to eq([])
  end

  it "only the front end's tokens write colours, and no SQL stands outside the repositories" do
    resources = Dir[File.join(root, "server/{resources,presenters,requests}/**/*.rb")]
    expect(resources.select { |path| File.read(path).match?(/db\[:|\.where\(|Sequel/) }.map { |path| File.basename(path) }).to eq([])
  end
end
