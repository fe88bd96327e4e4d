# frozen_string_literal: true

require_relative "../../support/finding"

# The tests from here on, as one page to take along.
RSpec.describe Gorvant::Diagnosis::RoadMap do
  let(:find) { Finding.new(Finding.library("boathouse", rig("boathouse_north"), 34.0)) }

  def finder(clues) = Gorvant::Diagnosis::Finder.new(find.library, symptoms: %w[no_heat], evidence: clues)
  def map = Gorvant::Desks::Find::Words.new(finder([])).road_map { |clues| finder(clues) }

  # [[answers on the way], leaf] of every leaf.
  def leaves(stop, way = [])
    return [[way, stop]] unless stop[:test]

    stop[:branches].flat_map { |branch| leaves(branch[:then], way + [[stop[:test][:says], branch[:answer]]]) }
  end

  it "fits on a page, likeliest ways first, and every leaf says where it comes to" do
    drawn = map
    ends = leaves(drawn[:tree])
    expect(ends.size).to eq(drawn[:leaves]).and be_between(12, 25)
    expect(ends.map { |way, _leaf| way.size }.max).to be <= 6
    expect(ends.map { |_way, leaf| leaf[:proof] }).to all(match(/\S/))
    expect(ends.count { |_way, leaf| leaf[:sure] }).to be >= 1
    expect(ends.reject { |_way, leaf| leaf[:sure] }.count { |_way, leaf| leaf[:also].any? }).to be >= 8
    sums = ends.map { |_way, leaf| [leaf[:share], *leaf[:also]].sum { |words| words[/(\d+)%\z/, 1].to_i } }
    expect(sums.max).to be <= 103 # of what is put right alike, each is counted once
    shares = drawn[:tree][:branches].map { |branch| branch[:share] }
    expect(shares).to eq(shares.sort.reverse)
    expect(shares.sum).to be_between(0.8, 1.001)
  end

  it "draws answers that come to one and the same as one way, with the least that any of them is worth" do
    told =
      [
        ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.3],
        %w[heat seen compressor runs],
        ["heat", "volts_ac", %w[outdoor.C outdoor.board.T1], 0.1],
        %w[heat seen ice solid_block],
        ["heat", "looked_up", "defrost_interval_minutes", 90]
      ].filter_map { |call, *rest| find.clue(call, *rest) }
    drawn = Gorvant::Desks::Find::Words.new(finder(told)).road_map { |clues| finder(told + clues) }
    ends = leaves(drawn[:tree])
    plain = ends.select { |_way, leaf| leaf[:also].empty? }
    stations = plain.map { |way, leaf| [way[0...-1], way.last.first, *leaf.values_at(:title, :proof, :sure)] }
    expect(stations.uniq.size).to eq(stations.size)
    several = plain.select { |way, _leaf| way.last.last.include?("; ") }
    expect([ends.size, several.any?]).to eq([drawn[:leaves], true])
    checked = several.map { |way, leaf| [way.last.last.split("; ").size, leaf[:share]] }
    expect(checked).to all(match([be > 1, match(/%\z/)]))
  end

  it "asks what Find would ask: each station is the next test after the answers on its way" do
    tree = map[:tree]
    clues = Gorvant::Diagnosis::Clues.new(find.library)
    told = []
    3.times do
      here = finder(told)
      expect(tree[:test][:says]).to eq(Gorvant::Desks::Find::Words.new(here).to_h[:next][:says])
      test = here.next_test.test
      answer =
        test.scale.answers.max_by { |one| here.beliefs.odds(find.library.column(test))[test.scale.answers.index(one)] }
      told += [clues.answered(test, answer)]
      tree = tree[:branches].first[:then]
      break unless tree[:test]
    end
  end
end
