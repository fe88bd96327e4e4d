# frozen_string_literal: true

module Gorvant
  module Server
    # A wiring as found as JSON: the strips with all that lands on them, what each call does, the findings and the
    # fewest moves.
    class WiringPresenter
      def initialize(check)
        @check = check
        @rig = check.rig
      end

      def to_h
        {
          strips: strips,
          ends: ends,
          jumpers: jumpers,
          effects: @check.effects.map { |effect| effect(effect) },
          works: @check.works?,
          standing: @check.standing.to_h,
          findings: findings,
          correction: correction,
          seen: {
            done: @check.seen[0],
            all: @check.seen[1]
          },
          faults: @check.faults_on_recorded,
          as_found: @check.found.to_json_hash
        }
      end

      private

      def strips
        @rig
          .layout
          .fetch("places")
          .keys
          .map do |place|
            terminals = AsFound.terminals(@rig, place)
            {
              place: place,
              title: @rig.place_title(place),
              cables:
                @rig
                  .cables
                  .select { |cable| [cable.from, cable.to].include?(place) }
                  .map { |cable| { id: cable.id, title: Naming.cable(cable) } },
              terminals:
                terminals.map do |terminal|
                  {
                    id: terminal,
                    letter: Naming.letter(@rig, terminal),
                    tap: !@rig.terminals(place).include?(terminal)
                  }
                end
            }
          end
      end

      def ends
        @check
          .differences
          .found
          .ends(@rig)
          .map do |one|
            conductor =
              @rig.cables.find { |cable| cable.id == one.cable }.conductors.find { |known| known.id == one.conductor }
            color = one.color || conductor&.color || one.conductor
            {
              cable: one.cable,
              conductor: one.conductor,
              place: one.place,
              lands_on: one.lands_on,
              lies: one.lies,
              seen: one.seen,
              told: one.told,
              color: color.tr("_", " "),
              sheath: color.downcase.tr(" ", "_"),
              drawn: drawn(one),
              known: !conductor.nil?
            }
          end
      end

      def drawn(one)
        cable = @rig.cables.find { |known| known.id == one.cable }
        conductor = cable.conductors.find { |known| known.id == one.conductor }
        conductor && (one.place == cable.from ? conductor.from : conductor.to)
      end

      def jumpers
        drawn = AsFound.jumpers_of(@rig)
        found = @check.found.jumpers
        rest = drawn.reject { |own| found.any? { |other| Formats::LandingsCsv.same?(own, other) } }
        (rest.map { |own| [own, false] } + found.map { |one| [one, true] }).map do |one, seen|
          one.to_h.merge(drawn: drawn.any? { |own| Formats::LandingsCsv.same?(own, one) }, seen: seen)
        end
      end

      def effect(effect) = effect.to_h

      def findings
        @check.told.map do |told|
          FindingPresenter
            .new(told.finding)
            .to_h
            .merge(
              kind: told.kind,
              hidden: told.hidden,
              moves: told.moves,
              effects: told.effects.map { |one| effect(one) },
              faults: told.faults,
              assumed: told.finding.assumed,
              ends: told.ends.map { |one| { cable: one.cable, conductor: one.conductor, place: one.place } }
            )
        end
      end

      def correction = @check.correction.to_h.slice(:moves, :works, :complete)
    end
  end
end
