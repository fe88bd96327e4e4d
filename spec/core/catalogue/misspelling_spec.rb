# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::Misspelling do
  {
    %w[klin kiln] => 1,
    %w[kiln kiln] => 0,
    %w[kln kiln] => 1,
    %w[killn kiln] => 1,
    %w[kion kiln] => 1,
    %w[iknl kiln] => 2,
    %w[inlk kiln] => nil,
    %w[bording boarding] => 1,
    %w[thermsotat thermostat] => 1,
    %w[thremsotat thermostat] => 2,
    %w[ab ba] => 1
  }.each do |(typed, word), slips|
    it("#{typed} is #{slips ? "#{slips} from" : "not near"} #{word}") do
      expect(described_class.within(typed, word, 2)).to eq(slips)
      expect(described_class.within(word, typed, 2)).to eq(slips)
    end
  end

  # A slow reckoning of the same: every word that a number of single slips can make.
  def slips_of(word)
    letters = %w[a b c]
    cut = (0..word.size).map { |i| [word[0, i], word[i..]] }
    cut.flat_map do |head, tail|
      letters.map { |letter| head + letter + tail } +
        (tail.empty? ? [] : [head + tail[1..]] + letters.map { |letter| head + letter + tail[1..] }) +
        (tail.size > 1 ? [head + tail[1] + tail[0] + tail[2..]] : [])
    end
  end

  it "counts one slip exactly where one slip makes the other word" do
    random = Random.new(7)
    words = Array.new(40) { Array.new(random.rand(3..6)) { %w[a b c].sample(random: random) }.join }.uniq
    words
      .product(words)
      .each do |one, other|
        made = one == other || slips_of(one).include?(other)
        expect([one, other, !described_class.within(one, other, 1).nil?]).to eq([one, other, made])
      end
  end

  it "takes the nearest, all that are equally near, and nothing for a short or an endless word" do
    known = %w[kiln kilo boathouse board]
    expect(described_class.of("klin", known)).to eq(["kiln"])
    expect(described_class.of("kilx", known)).to contain_exactly("kiln", "kilo")
    expect(described_class.of("boathuose", known)).to eq(["boathouse"])
    expect(described_class.of("boahtuose", known)).to eq(["boathouse"])
    expect(described_class.of("barod", known)).to eq([])
    expect(described_class.of("ki", known)).to eq([])
    expect(described_class.of("k" * 31, ["k" * 31])).to eq([])
  end
end
