# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::Nearest do
  it "guesses at what somebody may have mistyped, and not at a text" do
    expect(described_class.of("bakup", %w[backup blower])).to eq("backup")
    expect(described_class.of("x" * 61, ["x" * 61, "LPS"])).to be_nil
    expect(described_class.closest("qqqqqqq", %w[LPS HPS])).to eq("LPS").or eq("HPS")
    expect(described_class.closest("q" * 4_000, %w[LPS HPS])).to be_nil
    expect(described_class.quoted("q" * 4_000).size).to eq(61)
  end

  it "keeps an error about a point short, however long the point" do
    netlist = Gorvant::Assembly.netlist(rig)
    expect { netlist.fetch_node("outdor.Y") }.to raise_error(
      Gorvant::UnknownNode,
      /'outdor\.Y'; the nearest known is 'outdoor\.Y'/
    )
    expect { netlist.fetch_node("y" * 4_000) }.to raise_error(Gorvant::UnknownNode) { |error|
      expect(error.message.size).to be < 100
    }
    expect { netlist["y" * 4_000] }.to raise_error(Gorvant::UnknownBranch) { |error|
      expect(error.message.size).to be < 100
    }
  end
end
