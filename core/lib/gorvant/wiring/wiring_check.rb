# frozen_string_literal: true

module Gorvant
  # The wiring as found against the rig: what differs, what each difference does in every call, and the fewest moves
  # that put all right. Color is told and never counted as proof.
  class WiringCheck
    # finding: Finding; effects: [Effects::Effect] that do not work with this difference alone; hidden: whether every
    # call works as found all the same, since others make up for it; moves: sentences; ends: AsFound::Landing to mark;
    # jumper.
    Told = Value.define(:finding, :effects, :hidden, :moves, :ends, :kind, :should, :jumper, :faults)

    MOST_CALLS = 4 # told in one sentence

    attr_reader :rig, :found, :differences, :trials

    # recorded: the visit's rig; found: AsFound.
    def initialize(recorded, found)
      @recorded = recorded
      @rig = Target.rig(recorded)
      @found = found
      @differences = Differences.new(@rig, found, recorded)
      @trials = Trials.new(@rig)
      @should = @trials.ideal
      Fault.parse_all(faults)
    end

    # Every difference as a fault on the rig that is set up right.
    def faults = differences.all.flat_map(&:faults)

    # The faults that make the circuit as found of the visit's own rig, whose settings are as its facts have them.
    def faults_on_recorded
      settings =
        differences.settings_found.filter_map do |key, value|
          { "kind" => "set_up", "at" => key, "value" => value } if @recorded.asks?(key) && value != @recorded[key]
        end
      settings + differences.all.reject { |one| one.kind == "setting" }.flat_map(&:faults)
    end

    # [Effects::Effect] of the whole as found, call by call.
    def effects = @effects ||= Effects.of(trials, trials.outcomes(faults), @should)
    def works? = effects.all?(&:works)
    # Whether the wiring as drawn, with the settings right, does what it should.
    def drawn_right? = Effects.right?(trials.outcomes, @should)

    # [Told]: settings first, then the landings by what they do, then what is only to be known.
    def told
      @told ||=
        (differences.all.map { |one| tell(one) } + of_the_circuit).sort_by.with_index do |one, i|
          [one.kind == "setting" ? 0 : 1, Finding::SEVERITIES.index(one.finding.severity), i]
        end
    end

    # Against what the wiring as drawn can do: a fact that is an error by itself is mended by no move.
    def correction =
      @correction ||= Correction.new(trials, differences.all, drawn_right? ? @should : trials.outcomes).answer

    # How the wiring stands: an all-clear only of what was looked at.
    def standing
      done, all = seen
      wrong =
        told.any? { |one| one.kind != "setting" && %w[fault warning].include?(one.finding.severity) } ||
          (done.positive? && !works?)
      Standing.of(
        "wiring",
        wrong: wrong && looked_at.any?,
        looked_at: looked_at,
        taken: taken,
        done: done,
        all: all,
        works: works_words,
        works_cap: works_words.capitalize
      )
    end

    # How many ends somebody has looked at, of all.
    def seen = differences.found.ends(rig).then { |ends| [ends.count(&:seen), ends.size] }

    private

    def works_words = Catalogue.wording.fetch("standing.works#{"_not" unless works?}")

    def looked_at
      done, = seen
      [
        *(Catalogue.words("standing.ends", count: done) if done.positive?),
        *found.jumpers.reject(&:told).map { |jumper| jumper_words(jumper) }
      ]
    end

    # What counts as drawn, or as assumed.
    def taken
      done, all = seen
      titles = settings_unread.map { |key| Catalogue.facts.fetch(key)["title"].downcase }
      [
        *(Catalogue.words("standing.ends", count: all - done) if done < all),
        *jumpers_as_drawn.map { |jumper| jumper_words(jumper) },
        *found.told.map { |day| Catalogue.words("standing.told", day: day) },
        *(Catalogue.words("standing.set_up", titles: titles.join(", ")) if titles.any?)
      ]
    end

    # Those of the drawing that nobody has looked at.
    def jumpers_as_drawn
      AsFound
        .jumpers_of(rig)
        .reject do |own|
          found.jumpers.any? { |one| one.place == own.place && [one.from, one.to].sort == [own.from, own.to].sort }
        end
    end

    # Keys of set-up that nobody has read here, nor taken down as fitted.
    def settings_unread
      Target
        .fitting(@recorded)
        .keys
        .reject { |key| found.read_settings.key?(key) || (@recorded.facts[key] && !@recorded.facts[key].assumed?) }
    end

    def jumper_words(jumper) =
      Catalogue.words("standing.jumper", ends: "#{jumper.from}–#{jumper.to}", place: Naming.place(rig, jumper.place))

    def tell(difference)
      alone = Effects.of(trials, trials.outcomes(difference.faults), @should).reject(&:works)
      name = Named.new(differences).of(difference)
      hidden = alone.any? && works?
      Told.new(
        finding: finding(name, alone, hidden, difference),
        effects: alone,
        hidden: hidden,
        moves: difference.moves,
        ends: difference.ends,
        kind: difference.kind,
        should: difference.should.to_a,
        jumper: difference.jumper,
        faults: difference.faults
      )
    end

    def finding(name, alone, hidden, difference)
      Finding.of(
        name.code,
        severity: severity(alone, hidden),
        next_step: difference.moves.any? ? "#{difference.moves.join(". ")}." : nil,
        evidence: evidence(difference, alone, hidden),
        assumed: unseen(difference),
        **name.fields,
        **setting_fields(difference)
      )
    end

    # What a difference does decides how grave it is; where it does nothing (nil) the table says what to think of it.
    def severity(alone, hidden)
      return nil if alone.empty?

      hidden ? "warning" : "fault"
    end

    def setting_fields(difference)
      return {} unless difference.kind == "setting"

      {
        is: Comparison.words(difference.key, differences.settings_found.fetch(difference.key)),
        right: Comparison.words(difference.key, @rig[difference.key]),
        letter: @rig.changeover
      }
    end

    def evidence(difference, alone, hidden)
      landed =
        difference.ends.map do |one|
          Catalogue.words(
            "wiring.#{one.seen ? "seen" : "unseen"}_#{one.lands_on ? "on" : "off"}",
            what: one.conductor.tr("_", " "),
            place: Naming.place(rig, one.place),
            on: one.lands_on || "",
            lies: one.lies
          )
        end
      landed << Catalogue.words("wiring.nothing_alone") if alone.empty? && difference.faults.any?
      landed << Catalogue.words("wiring.hidden") if hidden
      landed
    end

    # Ends that nobody looked at count as drawn, or as an earlier visit told them.
    def unseen(difference)
      told = told_words(difference)
      return told if difference.ends.empty? || seen[0] == seen[1]

      [Catalogue.words("wiring.assumed_ends", count: seen[1] - seen[0]), *told]
    end

    def told_words(difference)
      days = [*difference.ends, difference.jumper].compact.filter_map(&:told).uniq
      days.map { |day| Catalogue.words("wiring.told", day: day) } +
        (found.told_settings.include?(difference.key) ? [Catalogue.wording.fetch("wiring.told_setting")] : [])
    end

    # What the solved circuit has of its own: sums and drops.
    def of_the_circuit = [overloaded, dropping, *drawn_wrong].compact

    def overloaded
      calls = trials.all.select { |trial| trials.outcomes(faults).fetch(trial.id).overloads.any? }
      return nil if calls.empty?

      one = trials.outcomes(faults).fetch(calls.first.id).overloads.first
      circuit(one.with(evidence: [Catalogue.words("wiring.in_calls", calls: calls.map(&:title).join(", "))]))
    end

    def dropping
      worst = trials.outcomes(faults).max_by { |_id, outcome| outcome.lost_fraction }
      most = Catalogue.profile.dig("wiring", "most_drop_fraction")
      return nil if worst[1].lost_fraction <= most

      title = trials.all.find { |trial| trial.id == worst[0] }.title
      circuit(
        Finding.of(
          "cable_drop",
          percent: (worst[1].lost_fraction * 100).round(1),
          call: title,
          most: (most * 100).round
        )
      )
    end

    def drawn_wrong
      return [] if drawn_right?

      wrong = Effects.of(trials, trials.outcomes, @should).reject(&:works)
      codes = Target.declared(rig).map(&:code)
      (codes.empty? ? %w[drawn_wrong] : codes).map { |code| circuit(declared(code, wrong), wrong) }
    end

    def declared(code, wrong)
      calls = wrong.map { |effect| "#{effect.title}: #{effect.says}" }.uniq.first(MOST_CALLS)
      Finding.of(code, calls: calls.join(". "))
    end

    def circuit(finding, effects = []) =
      Told.new(
        finding: finding,
        effects: effects,
        hidden: false,
        moves: [],
        ends: [],
        kind: "circuit",
        should: [],
        jumper: nil,
        faults: []
      )
  end
end
