# frozen_string_literal: true

RSpec.describe Gorvant::Formats::Schemas do
  # json_schemer finds references late: each find lets others go first here, so that they ask in between.
  before do
    require "json_schemer"
    allow(Hana::Pointer).to receive(:parse).and_wrap_original do |parse, *pointer|
      50.times { Thread.pass }
      parse.call(*pointer)
    end
  end

  def refused(content, asking)
    Array.new(6) { Thread.new { asking.call.validate(content).map { |error| error["data_pointer"] } } }.map(&:value)
  end

  it "refuses nothing that is right, however many ask first at once, nor takes what is wrong" do
    schemas = described_class.new
    wrong = rig_file.merge("cables" => [rig_file["cables"].first.merge("color" => "red")])
    asking = -> { schemas.of("gorvant-rig-1") }
    expect(refused(rig_file, asking)).to all(be_empty)
    expect(refused(wrong, asking)).to all(eq(["/cables/0/color"]))
  end

  it "does so for a part of a schema" do
    schemas = described_class.new
    rig = { "id" => "x", "name" => "Bramble mill", "revisions" => 3 }
    found = refused(rig, -> { schemas.part("gorvant-archive-1", "rig") })
    expect(found).to all(contain_exactly("/id", "/revisions"))
  end
end
