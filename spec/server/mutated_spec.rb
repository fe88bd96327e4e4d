# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/mutations"

# Every format that is read, broken by seeded changes: taken or refused in words, in time, and never half.
# MUTATION_SEED and MUTATION_TIMES may be set; bench/mutations.rb does more of them.
RSpec.describe "Broken texts", :server do
  seed = Integer(ENV.fetch("MUTATION_SEED", 5))
  times = Integer(ENV.fetch("MUTATION_TIMES", 200))

  before { Mutations.archive ||= documents }

  # What an archive of a visit holds, but for its manifest.
  def documents
    fetch("/api/visits/#{visit_id}/archive")
    files = Gorvant::Server::ArchiveZip.read(last_response.body)
    files.except("manifest.json").transform_values { |text| JSON.parse(text) }
  end

  Mutations::NAMES.each_with_index do |name, index|
    it "of a #{name} are taken or refused, none breaks what reads it" do
      samples, reader = Mutations.readers.fetch(name)
      taken = samples.map { |sample| Mutations.outcome(reader, sample) }
      expect(taken.uniq).to eq([:taken]) # else what follows would break nothing that counts
      mutations = Mutations.new(seed + index)
      outcomes = Array.new(times) { Mutations.outcome(reader, mutations.text(name, samples)) }
      expect(outcomes.grep(String).first(3)).to eq([])
      expect(outcomes.uniq).to include(:refused)
    end
  end

  it "of a zip that is cut anywhere, from either end, are refused in words, or hold nothing" do
    fetch("/api/visits/#{visit_id}/archive")
    zip = Gorvant::Server::ArchiveZip.dump("manifest.json" => "{}")
    read = ->(bytes) do
      Gorvant::Server::ArchiveZip.read(bytes)
    rescue Gorvant::BadArchive
      :refused
    end
    expect(whole = read.call(zip)).to eq("manifest.json" => "{}")
    cut = (1...zip.bytesize).flat_map { |at| [zip.byteslice(0, at), zip.byteslice(at..)].map(&read) }
    expect(cut.uniq).to contain_exactly(:refused, whole, {}) # its last byte and its very end can be missed
  end

  it "of drills with bytes that are no text are refused in words" do
    fetch("/api/visits/#{visit_id}/archive")
    samples, reader = Mutations.readers.fetch("drills within")
    text = samples.first.sub("gorvant-rig/1", "gorvant-\xA5ig/1").sub("gorvant-rig/2", "gorvant-\xA5ig/2")
    expect { reader.call(text.b) }.to raise_error(Gorvant::Server::Refused, /no drills/)
  end

  it "are kept whole or not at all: readings, and an archive of another crew's visit" do
    mutations = Mutations.new(seed)
    samples = [Mutations::READINGS]
    statuses =
      Array.new(40) do
        before = db[:readings].count
        text = mutations.text("readings CSV", samples).force_encoding("UTF-8").scrub
        send_json(:post, "/api/visits/#{visit_id}/readings-csv", text: text)
        kept = db[:readings].count - before
        rows = last_response.successful? ? answer.fetch("readings", answer["kept"]) : nil
        [last_response.status, kept.zero? || (!rows.nil? && kept.positive?)]
      end
    expect(statuses.map(&:first).uniq - [200, 201, 400, 422]).to eq([])
    expect(statuses.map(&:last).uniq).to eq([true])
  end
end
