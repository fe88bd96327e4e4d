# frozen_string_literal: true

module Gorvant
  # Where the unit as found differs from what it should be, thing by thing, each with the faults that stand for it in
  # the circuit and the moves that put it right.
  class Differences
    # kind: setting, crossed, wrong, missing, extra, spare_landed, color, bare, jumper_missing or jumper_extra. place,
    # nil for a setting. ends: AsFound::Landing of the conductors it is about. should: { end => terminal or nil }.
    # moves: sentences.
    Difference =
      Value.define(
        :kind,
        :place,
        :ends,
        :should,
        :faults,
        :moves,
        :key,
        :jumper,
        defaults: {
          place: nil,
          ends: [].freeze,
          should: {}.freeze,
          key: nil,
          jumper: nil
        }
      )

    attr_reader :rig, :found

    # rig: with its settings put right; recorded: as the rig's own facts have them.
    def initialize(rig, found, recorded)
      @rig = rig
      @found = found
      @recorded = recorded
      @ends = found.ends(rig)
    end

    def all = @all ||= settings + landings + jumpers

    # Settings as they are found: what the visit recorded, else what the rig's facts say.
    def settings_found = Rig.settings.to_h { |key| [key, @found.settings.fetch(key) { @recorded[key] }] }

    private

    def settings
      Target
        .fitting(@recorded)
        .filter_map do |key, values|
          value = settings_found.fetch(key)
          next if values.include?(value)

          Difference.new(
            kind: "setting",
            key: key,
            faults: [{ "kind" => "set_up", "at" => key, "value" => value }],
            moves: [
              words("move_setting", title: Catalogue.facts.fetch(key)["title"], value: Comparison.words(key, @rig[key]))
            ]
          )
        end
    end

    def landings
      left = other = colors + bare
      taken = left.flat_map(&:ends)
      off = @ends.reject { |one| taken.include?(one) || one.lands_on == drawn(one) }
      crossed = crossings(off)
      off -= crossed.flat_map(&:ends)
      crossed + off.filter_map { |one| single(one) } + other
    end

    # What the rig has at this end; nil for a spare end, or for a conductor that it does not know.
    def drawn(one)
      cable = @rig.cables.find { |known| known.id == one.cable }
      conductor = cable.conductors.find { |known| known.id == one.conductor }
      conductor && (one.place == cable.from ? conductor.from : conductor.to)
    end

    def known?(one) =
      @rig.cables.any? do |cable|
        cable.id == one.cable && cable.conductors.any? { |conductor| conductor.id == one.conductor }
      end
    def own_color(one) =
      @rig
        .cables
        .find { |cable| cable.id == one.cable }
        .conductors
        .find { |conductor| conductor.id == one.conductor }
        &.color

    # Two that stand on each other's terminals at one place.
    def crossings(off)
      pairs =
        off
          .combination(2)
          .select do |a, b|
            [a.cable, a.place] == [b.cable, b.place] && known?(a) && known?(b) && a.lands_on && b.lands_on &&
              a.lands_on == drawn(b) && b.lands_on == drawn(a)
          end
      pairs.map { |a, b| difference("crossed", [a, b]) }
    end

    def single(one)
      return extra(one) unless known?(one)
      return difference("missing", [one]) if one.lands_on.nil?

      difference(drawn(one) ? "wrong" : "spare_landed", [one])
    end

    # A conductor that only the visit knows: one difference for both of its ends.
    def extra(one)
      both = @ends.select { |other| other.cable == one.cable && other.conductor == one.conductor }
      landed = both.select(&:lands_on)
      return nil unless landed.size == 2 && landed.first == one

      nodes = landed.map { |end_| landing(end_) }
      Difference.new(
        kind: "extra",
        place: one.place,
        ends: landed,
        faults: bridge("extra", nodes),
        moves: [words("move_cap", what: name(one), place: title(one.place))]
      )
    end

    def difference(kind, ends)
      Difference.new(
        kind: kind,
        place: ends.first.place,
        ends: ends,
        should: ends.to_h { |one| [one, drawn(one)] },
        faults: ends.filter_map { |one| fault(one) },
        moves: ends.map { |one| move(one) }
      )
    end

    def fault(one)
      joint = "#{one.cable}.#{one.conductor}@#{one.place}"
      node = one.lands_on && landing(one)
      return bridge("extra", ["#{one.place}.#{one.cable}.#{one.conductor}", node]).first if drawn(one).nil?

      node ? { "kind" => "landed", "at" => joint, "to" => node } : { "kind" => "lifted", "at" => joint }
    end

    # The point that an end stands on: Y for the outdoor cable is past the switches that sit in it.
    def landing(one)
      cable = @rig.cables.find { |known| known.id == one.cable }
      if one.place == "air_handler" && one.lands_on == "Y"
        Assembly::Cables.landing(@rig, cable, one.place, one.lands_on)
      else
        AsFound.node(@rig, one.place, one.lands_on)
      end
    end

    # Nothing where one of the two is a screw with nothing behind it.
    def bridge(kind, nodes) = nodes.all? ? [{ "kind" => kind, "at" => nodes }] : []

    def move(one)
      should = drawn(one)
      return words("move_cap", what: name(one), place: title(one.place)) unless should
      return words("move_land", what: name(one), place: title(one.place), to: letter(should)) unless one.lands_on

      words("move", what: name(one), place: title(one.place), from: letter(one.lands_on), to: letter(should))
    end

    # A conductor of another color that runs where a drawn one should and does not: the same circuit.
    def colors = replaced + relabeled

    def replaced
      gone.filter_map do |cable, conductor|
        other =
          extras.find do |ends|
            ends.first.cable == cable.id &&
              ends.to_h { |one| [one.place, one.lands_on] } ==
                { cable.from => conductor.from, cable.to => conductor.to }
          end
        other &&
          Difference.new(
            kind: "color",
            place: other.first.place,
            ends: other + ends_of(cable.id, conductor.id),
            faults: [],
            moves: [],
            key: conductor.color
          )
      end
    end

    # [[Cable, Conductor]] of those that land nowhere.
    def gone
      all = @rig.cables.flat_map { |cable| cable.conductors.map { |conductor| [cable, conductor] } }
      all.select { |cable, conductor| ends_of(cable.id, conductor.id).all? { |one| one.lands_on.nil? } }
    end

    def relabeled
      other =
        @ends.select do |one|
          one.color && known?(one) && one.color.tr("_", " ") != own_color(one).tr("_", " ") &&
            one.lands_on == drawn(one)
        end
      other.map do |one|
        Difference.new(kind: "color", place: one.place, ends: [one], faults: [], moves: [], key: own_color(one))
      end
    end

    def ends_of(cable, conductor) = @ends.select { |one| one.cable == cable && one.conductor == conductor }
    def extras =
      @ends
        .reject { |one| known?(one) }
        .group_by { |one| [one.cable, one.conductor] }
        .values
        .select { |ends| ends.size == 2 && ends.all?(&:lands_on) }

    # A loose end that is not capped, of a conductor that is not missed.
    def bare
      @ends
        .select { |one| one.lies == "bare" && (!known?(one) || drawn(one).nil?) }
        .map do |one|
          Difference.new(
            kind: "bare",
            place: one.place,
            ends: [one],
            faults: [],
            moves: [words("move_bare", what: name(one), place: title(one.place))]
          )
        end
    end

    def jumpers
      drawn = AsFound.jumpers_of(@rig)
      @found.jumpers.filter_map do |jumper|
        own = drawn.find { |other| same?(other, jumper) }
        next if jumper.found == !own.nil?

        jumper.found ? jumper_extra(jumper) : jumper_missing(jumper)
      end
    end

    def same?(one, other) = one.place == other.place && [one.from, one.to].sort == [other.from, other.to].sort

    def jumper_missing(jumper)
      id = [jumper.from, jumper.to].sort == %w[RC RH] ? "rc_rh" : @rig.jumpers.find { |own| same?(own, jumper) }.id
      Difference.new(
        kind: "jumper_missing",
        place: jumper.place,
        jumper: jumper,
        faults: [{ "kind" => "open", "at" => id }],
        moves: [words("move_jumper_on", ends: "#{jumper.from}–#{jumper.to}", place: title(jumper.place))]
      )
    end

    def jumper_extra(jumper)
      nodes = [jumper.from, jumper.to].map { |terminal| AsFound.node(@rig, jumper.place, terminal) }
      Difference.new(
        kind: "jumper_extra",
        place: jumper.place,
        jumper: jumper,
        faults: bridge("jumper", nodes),
        moves: [words("move_jumper_off", ends: "#{jumper.from}–#{jumper.to}", place: title(jumper.place))]
      )
    end

    def words(key, **fields) = Catalogue.words("wiring.#{key}", **fields)
    def title(place) = Naming.place(@rig, place)
    def letter(terminal) = Naming.letter(@rig, terminal)
    def name(one) = Naming.wire(one.conductor, one.cable)
  end
end
