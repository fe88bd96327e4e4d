# frozen_string_literal: true

require_relative "finding"

# Find played against units whose truth is known. A unit is a specimen: its source, loads and conductors are drawn
# within their tolerances as components, and solved; a person misreads some of what is seen. None of it is taken from
# the finder's own table of answers.
class FindingTrial
  MOST = 15
  # not_now: whether it ended in that nothing of the complaint shows.
  Played = Struct.new(:truth, :tests, :minutes, :found, :not_now, :top, :belief, :beliefs, keyword_init: true)

  def initialize(library, random, misread: 0.03)
    @library = library
    @random = random
    @misread = misread
    @maker = Gorvant::Diagnosis::Maker.new(library.situation)
    @clues = Gorvant::Diagnosis::Clues.new(library)
    @meter = Gorvant::Diagnosis::Scale.volts
  end

  # An index of a hypothesis, drawn by its share among those that the complaint leaves.
  def draw(symptoms)
    shares = Gorvant::Diagnosis::Beliefs.new(@library, symptoms: symptoms).all[0...-1]
    aim = @random.rand * shares.sum
    shares.each_index.find { |i| (aim -= shares[i]) <= 0 } || 0
  end

  # choose: takes a Finder and answers with the test to make.
  def play(truth, symptoms, mode: "cheapest", &choose)
    @specimen = draw_specimen
    @bodies = {}
    evidence = []
    stands = call = nil
    minutes = 0.0
    beliefs = []
    loop do
      finder =
        Gorvant::Diagnosis::Finder.new(
          @library,
          symptoms: symptoms,
          evidence: evidence,
          stands: stands,
          call: call,
          mode: mode
        )
      beliefs << [finder.remedy_belief, mends?(finder, truth)] if evidence.any?
      choice = finder.settled? || evidence.size == MOST ? nil : (choose ? choose.call(finder) : finder.next_test)
      return played(truth, finder, evidence, minutes, beliefs) unless choice

      minutes += choice.minutes
      stands = choice.test.at || stands
      call = @library.situation.state(choice.test.state).condition.call if choice.test.state &&
        choice.test.place != "forced_defrost"
      evidence << told(choice.test, answer(truth, choice.test))
    end
  end

  # Whether two hypotheses are the same to any test, or to the repair: whoever takes the one in hand has the other.
  def same?(first, second)
    @library.class_of[first] == @library.class_of[second] || @library.remedies[first] == @library.remedies[second] ||
      wires(first).intersect?(wires(second))
  end

  # Whether the first suspect is the truth; wires seen otherwise are told apart by whoever sees them.
  def right?(finder, truth)
    top = finder.top
    top.indexes.any? { |i| same?(i, truth) } ||
      (finder.seen_at_wires?(top.indexes.first) && finder.seen_at_wires?(truth))
  end

  # Conductors that something is wrong with.
  def wires(index) = @library.hypotheses[index].faults.flat_map { |fault| fault.to_s.scan(/cable_\w+\.\w+/) }.uniq

  # Whether the unit with this truth shows nothing of the complaint at the moment, by its own marks.
  def absent?(finder, truth)
    one = @library.hypotheses[truth]
    return true if one.steady || (one.as_designed? && same?(truth, @library.index("nothing")))

    finder.symptoms.none? { |symptom| finder.beliefs.shows?(truth, symptom) || one.explains[symptom] }
  end

  # Whether the unit played last had so little of its fault that it may not show.
  def mild?(truth) = @specimen[:amount].zero? && @maker.amounts(hypothesis(truth)).size > 1

  private

  def played(truth, finder, evidence, minutes, beliefs)
    top = finder.top
    Played.new(
      truth: truth,
      tests: evidence.size,
      minutes: minutes,
      found: finder.not_now? ? absent?(finder, truth) : right?(finder, truth),
      not_now: finder.not_now?,
      top: top.indexes.first,
      belief: top.belief,
      beliefs: beliefs
    )
  end

  def mends?(finder, truth) = finder.mends?(truth)

  def draw_specimen
    tolerance = Gorvant::Catalogue.profile.fetch("tolerance")
    load = tolerance["load_va_fraction"]
    {
      amount: @random.rand(3),
      source: 1 + (((@random.rand * 2) - 1) * tolerance["source_volts_fraction"]),
      loads: Hash.new { |all, id| all[id] = 1 / (1 + (((@random.rand * 2) - 1) * load)) },
      wires: Hash.new { |all, id| all[id] = @random.rand(0.5..2.0) }
    }
  end

  # Clue of an answer, or of volts as they are typed.
  def told(test, answer)
    return @clues.answered(test, answer) unless answer.is_a?(Float)

    @clues.answered(test, @meter.answer(answer)).with(told: @meter.told(answer, answer))
  end

  # Volts of any class, as a slip has them.
  def any_volts
    to = @meter.edges.values.sample(random: @random)
    from = @meter.edges.values.select { |edge| edge < to }.max || 0.0
    (from + (@random.rand * (to - from))).round(1)
  end

  def answer(truth, test)
    if @random.rand < @misread
      return test.scale.is_a?(Gorvant::Diagnosis::Volts) ? any_volts : test.scale.answers.sample(random: @random)
    end

    code = shown(truth, test)
    if code.include?("+") # there just now, or not
      code, truth = code.split("+").zip([truth, @library.index("nothing")]).sample(random: @random)
    end
    code = code.split("|")[@specimen[:amount]] if code.include?("|")
    return measured(truth, test) if code.match?(/\Ab\d/)
    return chattering(test) if code == "unsteady"

    drawn(test.scale, code)
  end

  # The code that a truth shows in a test, and the hypothesis that it is.
  def shown(truth, test) = @library.column(test).codes[truth]

  def hypothesis(truth)
    one = @library.hypotheses[truth]
    one.steady ? @library.hypotheses[@library.index(one.steady)] : one
  end

  # An answer that the truth leaves open: by the odds that the trade gives it, misreads apart.
  def drawn(scale, code)
    return code if scale.answers.map(&:to_s).include?(code)

    odds =
      Gorvant::Diagnosis.numbers.fetch("choices")[code] ||
        (code == "ghost" ? Gorvant::Diagnosis.numbers.fetch("ghost") : nil)
    return scale.answers.sample(random: @random) unless odds

    aim = @random.rand
    odds.find { |_answer, share| (aim -= share) <= 0 }&.first || odds.keys.first
  end

  # Volts of this very specimen, by this very meter.
  def measured(truth, test)
    between = volts_between(truth, test) or return 0.0
    [between + (((@random.rand * 2) - 1) * ((between * 0.01) + 0.2)), 0.0].max.round(1)
  end

  # A relay that picks up and drops out again and again: a meter shows something between nothing and what feeds it.
  def chattering(test)
    sound = volts_between(@library.index("nothing"), test) || 0.0
    (@random.rand * [sound, 24.0 * @specimen[:source]].max).round(1)
  end

  def volts_between(truth, test)
    volts = specimen_volts(truth, test.state)
    return nil unless volts.key?(test.from_node) && volts.key?(test.to_node)

    (volts[test.from_node] - volts[test.to_node]).abs * @specimen[:source]
  end

  def specimen_volts(truth, state)
    @bodies[[truth, state]] ||= begin
      amounts = @maker.amounts(hypothesis(truth))
      solution = @maker.body_in(amounts[@specimen[:amount]] || amounts.first, state).solution
      scale = scale_of(solution.netlist)
      solution
        .netlist
        .sections
        .each_with_object({}) do |section, volts|
          volts.merge!(section.solve(solution.closed, open: solution.open, volts: volts, scale: scale))
        end
    end
  end

  def scale_of(netlist) =
    netlist
      .branches
      .each_with_object({}) do |branch, factors|
        factors[branch.id] = @specimen[:loads][branch.id] if branch.load?
        factors[branch.id] = @specimen[:wires][branch.id] if branch.kind == :wire
      end
end

# The same with truths that no hypothesis is: two faults at once, or a fact noted wrongly that Find does not ask about.
# A truth is a Hypothesis of its own; remedies: what of the library would be put right with it.
class OutsideTrial < FindingTrial
  Outside = Struct.new(:whole, :parts)

  # Two single faults that go together, drawn by their shares among those that the complaint leaves.
  def pair(symptoms)
    loop do
      members = Array.new(2) { draw(symptoms) }.uniq
      both = members.map { |i| hypothesis(i) }
      next unless members.size == 2 && both.all?(&:condemns?)

      made = Outside.new(together(both), members)
      return made if solved?(made)
    end
  end

  # [Outside] of every answer of a choice or a flag that Find takes as noted.
  def noted_wrongly
    asked = Gorvant::Diagnosis.numbers.fetch("rig_facts")
    rig = @library.situation.rig
    keys =
      Gorvant::Catalogue.facts.select { |key, about| %w[flag choice].include?(about["kind"]) && rig.asks?(key) }.keys
    others = (keys - asked).flat_map { |key| otherwise(rig, key).map { |value| [key, value] } }
    others
      .map { |key, value| Outside.new(nothing.with(id: "#{key}_#{value}", facts: { key => value }), []) }
      .select { |one| solved?(one) }
  end

  # Whether a part that is none of the truth stands above this belief.
  def wrongly?(finder, truth, above)
    top = finder.top.indexes.first
    return false unless @library.hypotheses[top].condemns? && finder.remedy_belief > above

    truth.parts.none? { |i| same?(i, top) }
  end

  # The Finder at the end of a play.
  def ended(truth, symptoms) = play(truth, symptoms, mode: "fewest")

  private

  def played(_truth, finder, *) = finder
  def mends?(_finder, _truth) = false

  def nothing = @library.hypotheses[@library.index("nothing")]
  def hypothesis(truth) = truth.is_a?(Outside) ? truth.whole : super
  def shown(truth, test) = @library.code_of(truth.whole, test, nil).to_s

  def together(both)
    both[0].with(
      id: both.map(&:id).join("+"),
      faults: both.flat_map(&:faults),
      senses: both[0].senses.merge(both[1].senses),
      at: nil
    )
  end

  def otherwise(rig, key)
    about = Gorvant::Catalogue.facts.fetch(key)
    (about["kind"] == "flag" ? [true, false] : about.fetch("of").keys) - [rig[key.to_sym]]
  end

  # Whether such a unit can be: two faults may exclude one another, a fact another.
  def solved?(truth)
    @library.tests.first(3).each { |test| shown(truth, test) }
    @library.situation.states.each { |state| @maker.body_in(truth.whole, state.id) }
    true
  rescue Gorvant::Error, KeyError
    false
  end
end
