# frozen_string_literal: true

require_relative "../../support/finding_trial"

# One transformer feeds all that is read of a unit: what it gives of what it should is one unknown, however often it is
# read. Against a thousand specimens drawn one by one.
RSpec.describe Gorvant::Diagnosis::Supply do
  let(:find) do
    facts = {
      "compressor_stages" => 2,
      "backup" => "gas",
      "changeover" => "B",
      "outdoor_thermostat" => true,
      "board_family" => "larch"
    }
    Finding.new(Finding.library("on gas", Gorvant::Composer.compose(name: "On gas", facts: facts), 34.0))
  end
  let(:scale) { Gorvant::Diagnosis::Scale.volts }

  def low(*points, call: "heat_2", volts: 21.7) = [call, "volts_ac", points, volts]

  # Nine units of ten within the tolerance of their transformer, one beyond, with its line.
  def given(random)
    reach = Gorvant::Catalogue.profile.dig("tolerance", "source_volts_fraction")
    beyond = random.rand
    return 1 + random.rand(-reach..reach) if beyond > 0.1

    beyond > 0.05 ? 1 + random.rand(reach..0.14) : 1 - random.rand(reach..0.14)
  end

  # Readings of one specimen after the other, each with an error of its own.
  def specimens(volts, readings)
    random = Random.new(3)
    Array.new(20_000) do
      given = volts * given(random)
      Array.new(readings) { scale.answer(given + (random.rand(-1.0..1.0) * ((given * 0.01) + 0.2))) }
    end
  end

  it "is somewhere for certain, from what is healthy at least to what is at most" do
    nominal = 24.5 # loaded, in the middle of what the demo's units give
    expect(described_class.shares.sum).to be_within(1e-9).of(1.0)
    expect(described_class.factors).to eq(described_class.factors.sort)
    expect(described_class.factors.minmax.map { |factor| factor * nominal }).to match(
      [be_within(0.3).of(22.0), be_within(0.6).of(28.0)]
    )
  end

  [22.7, 23.3].each do |volts|
    it "gives two low readings of #{volts} V as often as specimens do" do
      at = scale.answers.index("low")
      stands = scale.stands(scale.code(volts)).map { |row| scale.by_answer(row)[at] }
      once, twice = [stands, stands.map { |share| share * share }].map { |list| described_class.mean(list) }
      drawn = specimens(volts, 2)
      expect(once).to be_within(0.05).of(drawn.count { |first, _second| first == "low" } / drawn.size.to_f)
      expect(twice).to be_within(0.05).of(drawn.count { |pair| pair.uniq == %w[low] } / drawn.size.to_f)
      expect(twice).to be > once * once * 2 # they are not two pieces of news
    end
  end

  # 21.7 V is within tolerance, 20.8 V perhaps with a low line, 18.8 V is not.
  it "does not take a supply at the low end of its tolerance for a weak transformer, however often it is read" do
    points = [%w[wall.C wall.R], %w[wall.C wall.OB], %w[air_handler.C air_handler.Y]]
    heard =
      [21.7, 20.8, 18.8].map do |volts|
        told = points.map { |ends| low(*ends, volts: volts) }
        (0..3).map { |count| find.finder(%w[iced_outdoor_unit], *told.first(count)) }
      end
    inside, line, under = heard.map { |list| list.map { |finder| find.beliefs(finder)["transformer_weak:TRAN"].to_f } }
    expect(inside[1]).to be > inside[0]
    expect(inside[3]).to be < inside[0]
    expect([line[1], line[3]]).to all(be_between(0.2, 0.9))
    expect(under[3]).to be > 0.9
    expect(heard.first(2).map(&:last)).to all(satisfy { |finder| !finder.sure? })
  end

  # With light loads a weak one sags little, with heavy ones much: a reading far down speaks for the one, not the other.
  it "weighs how far it sags, not only that it does" do
    weak = find.library.index("transformer_weak:TRAN")
    heard = ->(call, volts) do
      told = low("air_handler.C", "air_handler.R", call: call, volts: volts)
      find.finder([], told).beliefs.likelihoods.first[weak]
    end
    expect(heard.call("heat_2", 19.0)).to be > heard.call("heat_2", 21.9)
    expect(heard.call("heat_aux", 21.9)).to be > heard.call("heat_aux", 19.0) * 2
  end

  it "finds the weak one by what loads do to it" do
    told = [
      low("wall.C", "wall.R", volts: 19.2),
      low("wall.C", "wall.R", call: "heat_aux", volts: 17.6),
      ["off", "volts_ac", %w[wall.C wall.R], 25.1],
      low("air_handler.TRAN.C", "air_handler.TRAN.R", volts: 19.3)
    ]
    finder = find.finder(%w[contactor_chatters], *told)
    expect([find.top(finder), finder.top.belief]).to match(["transformer_weak:TRAN", be > 0.8])
  end

  it "does not hang on the order of what was read, and forgets what is taken back" do
    told = [low("wall.C", "wall.R"), %w[heat seen ice solid_block], low("wall.C", "wall.OB")]
    both = [told, told.rotate].map { |list| find.finder(%w[iced_outdoor_unit], *list).beliefs }
    both[0].all.each_with_index { |belief, i| expect(belief).to be_within(1e-9).of(both[1].all[i]) }
    without = find.finder(%w[iced_outdoor_unit], *told.first(2)).beliefs
    expect(both[0].none_without(2)).to be_within(1e-9).of(without.all.last)
  end

  it "weighs on where readings by the thousand speak against everything" do
    both = [0.0, 21.7].map { |volts| find.clue(*low("wall.C", "wall.R", volts: volts)) }
    finder = Gorvant::Diagnosis::Finder.new(find.library, symptoms: %w[no_heat], evidence: both * 750)
    expect(finder.beliefs.all.sum).to be_within(1e-9).of(1.0)
  end

  it "expects less of the same low reading again, and asks for something else" do
    told = [low("wall.C", "wall.R"), low("wall.C", "wall.OB"), low("air_handler.C", "air_handler.R")]
    finders = [1, 3].map { |count| find.finder(%w[iced_outdoor_unit], *told.first(count), mode: "fewest") }
    again = find.library.column(find.library.test("volts_ac|heat_2|air_handler.C|air_handler.Y2|high_impedance"))
    once, thrice = finders.map { |finder| finder.beliefs.gain(again) }
    expect(thrice).to be < once * 0.5
    asked = finders.last.next_test.test
    expect([asked.function, asked.state]).not_to eq(%w[volts_ac heat_2])
  end
end
