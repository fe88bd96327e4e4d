# frozen_string_literal: true

require_relative "../support/golden"

RSpec.describe "Golden tables" do
  Golden.names.each do |name|
    it "#{name} comes out as it was accepted (bin/golden --accept rewrites it)" do
      expect(Golden.made(name)).to eq(Golden.kept(name))
    end
  end
end
