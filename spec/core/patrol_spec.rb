# frozen_string_literal: true

require_relative "../support/core"

# Nothing that can be said is said unseen: each finding, verdict, fault and rule of the sequence is named in an example.
RSpec.describe "Every rule" do
  told =
    Dir[File.expand_path("**/*_spec.rb", __dir__)]
      .reject { |path| path == __FILE__ }
      .map { |path| File.read(path, encoding: "UTF-8") }
      .join

  {
    "finding" => Gorvant::Catalogue.findings,
    "verdict" => Gorvant::Catalogue.verdicts,
    "rule of the sequence" => Gorvant::Catalogue.sequence,
    "kind of fault" => Gorvant::Catalogue.faults
  }.each do |what, words|
    it "#{what} has an example that names it" do
      expect(words.keys.reject { |key| told.match?(/["'\s\[(]#{key}["'\s,\])]/) }).to eq([])
    end
  end
end
