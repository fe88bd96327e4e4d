# frozen_string_literal: true

require_relative "../../support/finding"
require_relative "../../support/random_rigs"

# Whatever Find says of any rig: hypotheses, tests, what it makes of the answers.
RSpec.describe Gorvant::Desks::Find::Words do
  let(:bad_words) do
    {
      "an id" => /\b[a-z_]+\.(?:[A-Z]|cable_|board\.)|\bcable_[ab]\b|@(?:wall|outdoor|air_handler)|[a-z]_[a-z]/,
      "a gap" => /%<|nil\b|#<|\(\)|: *\z|(?<=\S)  +(?=\S)|\A\s*\z/,
      "no number" => /NaN|Infinity|\d\.\d{4,}|\de[-+]?\d/,
      "a stop too many" => /\.\.(?!\.)|,,|;;|: :/
    }
  end

  def wrong(said) =
    said.compact.uniq.flat_map do |words|
      bad_words.select { |_name, pattern| words.match?(pattern) }.keys.map { |name| "#{name} in #{words.inspect}" }
    end

  # Every sentence of an answer, ids and JSON left out.
  def sentences(value, key = nil)
    case value
    when Hash
      value.flat_map { |name, inner| sentences(inner, name.to_s) }
    when Array
      value.flat_map { |inner| sentences(inner, key) }
    when String
      if %w[
           says
           title
           first
           proof
           shows
           sort
           again
           first_look
           alike
           carried_by
           against
           not_proved
           cautions
           assumed
           at_title
         ].include?(key)
        [value]
      else
        []
      end
    else
      []
    end
  end

  describe "the mark of a visit" do
    well = [
      %w[heat seen vapour_line_by_hand hot],
      %w[heat seen blower blows],
      %w[heat seen outdoor_fan turns],
      ["heat", "volts_ac", %w[outdoor.C outdoor.O], 0.0],
      %w[heat seen compressor runs],
      ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.2]
    ]
    hums = [%w[heat seen compressor hums], %w[heat seen outdoor_fan turns]]
    let(:find) do
      facts = { "capacitor_herm_microfarads" => 40.0 }
      marked = Gorvant::Composer.compose(name: "Marked", facts: facts, source: "measured")
      Finding.new(Finding.library("marked", marked, 34.0))
    end

    # [complaint, what was read, how it stands]
    {
      "nothing read" => [%w[no_heat], [], "untouched"],
      "something read, and much left open" => [%w[no_heat], hums, "so_far"],
      "a part that was read bad" => [%w[no_heat], [*hums, ["off", "microfarads", "CAP.herm", 0.2]], "disagrees"],
      "a part that is left over, and was not read" => [
        %w[no_heat],
        [*hums, ["off", "microfarads", "CAP.herm", 39.0]],
        "so_far"
      ],
      "nothing that shows now" => [%w[no_heat], well, "so_far"],
      "what is right, and complained of" => [%w[cold_air_in_heating], well, "agrees"]
    }.each do |what, (symptoms, told, mark)|
      it("is #{mark} of #{what}") { expect(described_class.new(find.finder(symptoms, *told)).mark).to eq(mark) }
    end
  end

  it "names every test of a unit, those too that another page answers" do
    library = Finding.library("boathouse", rig("boathouse_north"), 34.0)
    clues = Gorvant::Diagnosis::Clues.new(library)
    told = library.tests.map { |test| clues.answered(test, test.scale.answers.first) }
    said = described_class.new(Gorvant::Diagnosis::Finder.new(library, evidence: told)).to_h[:evidence]
    expect(said.map { |one| one[:says] }.grep(/: :|\A[ :]|  /)).to eq([])
    expect(said.map { |one| one[:says] }).to include(/\ACoil switch by itself: /)
  end

  (1..3).each do |seed|
    it "is clean on rig #{seed}, from the first test to the last" do
      random = Random.new(seed)
      situation = Gorvant::Diagnosis::Situation.new(RandomRigs.rig(seed), outdoor_degrees_f: random.rand(5..70).to_f)
      maker = Gorvant::Diagnosis::Maker.new(situation)
      said = maker.hypotheses.flat_map { |one| [one.title, one.shows, one.proof] }
      library = Gorvant::Diagnosis::Library.of(situation)
      clues = Gorvant::Diagnosis::Clues.new(library)
      truth = random.rand(library.size - 1)
      told = []
      6.times do
        finder = Gorvant::Diagnosis::Finder.new(library, symptoms: %w[no_heat], evidence: told)
        said += sentences(described_class.new(finder).to_h)
        test = finder.next_test&.test or break
        column = library.column(test)
        row = column.scale.by_answer(column.scale.row(column.codes[truth]))
        told << clues.answered(test, column.scale.answers[row.index(row.max)])
      end
      expect(wrong(said).first(6)).to eq([])
      expect(said.size).to be > 400
    end
  end
end
