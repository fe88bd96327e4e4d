# frozen_string_literal: true

require_relative "../../support/finding"
require_relative "../../../bench/rigs"

# What was read where no test of the list reads: it is solved for everything that could be so.
RSpec.describe Gorvant::Diagnosis::Library do
  let!(:library) { Finding.library("single stage", BenchRigs::SINGLE, 34.0) }

  # A reading with patience for so many turns of a settling.
  def clue(where, turns)
    Gorvant::Patience.with(-> { (turns -= 1).negative? }) { Finding.new(library).clue("heat", "volts_ac", where, 24.0) }
  end

  it "goes on where it stood when somebody gave it up, and ends with what each shows by itself" do
    said = []
    until (read = said.last).is_a?(Gorvant::Diagnosis::Clue) || said.size > 60
      said << begin
        clue(%w[outdoor.R outdoor.Y], 300)
      rescue Gorvant::StillAtIt => e
        [e.fields[:seconds], e.message[/goes on where it stands/]]
      end
    end
    expect(said.size).to be_between(3, 60)
    expect(said[0...-1].uniq).to eq([[1, "goes on where it stands"]])
    maker = Gorvant::Diagnosis::Maker.new(library.situation)
    some = (0...library.size).reject { |i| library.hypotheses[i].steady }[0...-1].sample(25, random: Random.new(3))
    expect(some.map { |i| read.column.codes[i] }).to eq(
      some.map { |i| maker.code_in(read.condition, read.test, library.hypotheses[i]).to_s }
    )
  end

  it "says that it goes on only where it came farther than before" do
    read = clue(%w[outdoor.R outdoor.C], Float::INFINITY)
    another = read.test.with(id: "another")
    give_up_after = ->(turns) do
      Gorvant::Patience.with(-> { (turns -= 1).negative? }) { library.solved_in(read.condition, another) }
    rescue Gorvant::GaveUp => e
      e.class
    end
    expect([0, 30, 0].map(&give_up_after)).to eq([Gorvant::GaveUp, Gorvant::StillAtIt, Gorvant::GaveUp])
    expect(give_up_after.call(Float::INFINITY).codes).to eq(read.column.codes)
  end
end
