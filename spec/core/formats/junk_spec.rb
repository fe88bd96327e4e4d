# frozen_string_literal: true

require_relative "../../support/core"

# Files as they come from the field: good ones with something broken in them. Each is read or refused in words; nothing
# else is raised, and what is refused leaves nothing.
RSpec.describe "Files with junk in them" do
  let(:fitted) { rig }
  let(:landings) do
    Gorvant::Formats::LandingsCsv.dump(
      fitted,
      Gorvant::AsFound.parse(
        { "landings" => [{ "cable" => "cable_a", "conductor" => "orange", "place" => "wall", "lands_on" => "G" }] },
        fitted
      )
    )
  end
  let(:table) do
    "degrees_f,ohms\n#{Gorvant::ThermistorTable.all.first.points.map { |point| point.join(",") }.join("\n")}\n"
  end
  let(:history) { "minutes,fed,cold\n0,1,0\n25,0,0\n40,1,1\n62,0,1\n75,1,1\n170,1,1\n" }
  let(:course) { "seconds,outdoor,coil\n0,30,20\n60,31,25\n120,29,70\n" }

  let(:odd) do
    [
      "",
      "\"",
      ",",
      ";",
      "\n",
      "\r",
      "\t",
      "\uFEFF",
      "1e999",
      "-",
      "NaN",
      "=1+1",
      "ü",
      "\u0000",
      "9" * 400,
      "\xFF".b,
      "\"a\nb\"",
      "0x1F",
      "1,5",
      "true"
    ]
  end

  # A text with up to four pieces taken out, put in, doubled or turned round.
  def broken(text, random)
    random
      .rand(1..4)
      .times
      .inject(text.b) do |so_far, _|
        at = random.rand(0..so_far.size)
        cut = random.rand(0..6)
        piece = [odd.sample(random: random).b, so_far[at, cut].to_s.reverse, so_far[at, cut].to_s * 2].sample(
          random: random
        )
        so_far[0, at] + piece + so_far[(at + cut)..].to_s
      end
  end

  {
    "landings" => ->(text, fitted) do
      Gorvant::Formats::LandingsCsv.read(text, fitted).then { |read| read.as_found.nil? ? read.refused : [] }
    end,
    "table" => ->(text, _) do
      Gorvant::Formats::SensorTableCsv
        .read(text, id: "own", title: "Own")
        .then { |read| read.table.nil? ? read.refused : [] }
    end,
    "history" => ->(text, _) { Gorvant::Formats::RunHistoryCsv.read(text) && [] },
    "course" => ->(text, _) { Gorvant::Formats::CourseCsv.parse(text) && [] }
  }.each do |what, reader|
    it "reads or refuses #{what}" do
      random = Random.new(what.sum)
      outcomes =
        Array.new(400) do
          text = broken(send(what), random)
          refused = reader.call(text, fitted)
          expect(refused.map { |one| one[:line] }).to all(be_a(Integer)), text.inspect
          refused.any?
        rescue Gorvant::Error => e
          expect(e.message).to match(/\w{3}/)
          true
        end
      expect(outcomes.count(true)).to be_between(20, 398),
      "most should be refused and some still be readable: #{outcomes.tally}"
    end
  end
end
