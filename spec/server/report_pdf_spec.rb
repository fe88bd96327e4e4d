# frozen_string_literal: true

require "open3"
require_relative "../support/server"

# What a report looks like as PDF, whatever is in it.
RSpec.describe Gorvant::Server::Reports::Pdf do
  blocks = Gorvant::Blocks
  report = ->(**given) do
    {
      "title" => "Bramble mill, Loft unit",
      "crew" => "Larkmere crew",
      "visit_on" => "2026-11-29",
      "names" => ["Ilse"],
      "draft" => true,
      "customer" => [{ "title" => "Told", "blocks" => [blocks.text("It is cold.")] }],
      "sections" => [],
      "addenda" => [],
      **given.transform_keys(&:to_s)
    }
  end
  section = ->(*list) { [{ "id" => "one", "title" => "One", "always" => false, "blocks" => list }] }
  render = ->(given, photo: nil) { described_class.new(JSON.parse(JSON.generate(given)), photo: photo).render }
  text = ->(bytes) do
    Open3.capture2("pdftotext", "-layout", "-", "-", stdin_data: bytes, binmode: true).first.force_encoding("UTF-8")
  end
  info = ->(bytes) { Open3.capture2("pdfinfo", "-", stdin_data: bytes, binmode: true).first }

  it "draws every view of a circuit with all of its words and signs" do
    rig = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
    trace =
      Gorvant::Trace.new(
        rig,
        Gorvant::Condition.parse({ "call" => "heat", "faults" => [{ "kind" => "open", "at" => "cable_b.yellow" }] })
      )
    drawings =
      { "focus" => { load: "CC" }, "ladder" => {}, "loops" => {}, "connections" => {} }.map do |view, options|
        scene = Gorvant::Views.scene(view, trace, options)
        blocks.drawing(scene.title, Gorvant::Formats::Svg.dump(scene, state: Gorvant::Views.state_words(trace)))
      end
    said = text.call(render.call(report.call(sections: section.call(*drawings))))
    expect(said).to include("board T1", "contactor", "≠", "supposed: yellow of cable B open")
  end

  it "has its title, language, bookmarks, and a number on every page" do
    rows = Array.new(120) { |i| ["row #{i}", "x" * 40] }
    bytes = render.call(report.call(sections: section.call(blocks.table(%w[a b], rows)) * 3))
    expect(info.call(bytes)).to match(/Title:\s+Bramble mill, Loft unit, 2026-11-29/)
    expect(bytes).to include("/Lang", "en-US", "/Outlines")
    pages = text.call(bytes).split("\f").reject { |page| page.strip.empty? }
    pages.each_with_index { |page, i| expect(page).to match(%r{#{i + 1} / #{pages.size}}) }
    expect(pages.drop(1)).to all(match(/^a\s+b\s*$/).or(match(/row \d+/)))
  end

  it "loses no word of a cell that is higher than a page, of an endless word, or of an empty table" do
    words = Array.new(1_500) { |i| "w#{i}" }
    table = blocks.table(%w[left right], [["short", words.join(" ")], ["y" * 300, "z"]])
    said =
      text.call(
        render.call(
          report.call(sections: section.call(table, blocks.table(%w[none], []), blocks.list([]), blocks.facts([])))
        )
      )
    expect(words - said.split).to eq([])
    expect(said.gsub(/\s/, "")).to include("y" * 20)
  end

  it "says of a photo that is gone that it is, and stands a report with nothing in it" do
    gone = ->(id) { raise Gorvant::Server::NotFound.new(thing: "photo", id: id) }
    said = text.call(render.call(report.call(sections: section.call(blocks.photo("1", "splice", ""))), photo: gone))
    expect(said).to include("splice: not there any more")
    expect(text.call(render.call(report.call(customer: [])))).to include("Bramble mill")
  end

  it "sets a tape and stages with nothing marked, and times past the hour" do
    tape =
      blocks.tape(
        [
          { "title" => "fan off", "expected" => nil, "seen" => nil },
          { "title" => "end", "expected" => 4_000.0, "seen" => 0.0 }
        ],
        4_000.0
      )
    stages = blocks.stages([{ "title" => "Y", "from" => 0.0, "to" => nil, "says" => nil }], 0)
    expect(text.call(render.call(report.call(sections: section.call(tape, stages))))).to include(
      "fan off",
      "expected 66:40"
    )
  end
end
