# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # All that could be so with a rig: every single fault, switches that opened for a reason, what no circuit shows,
    # what is as designed, what is otherwise than noted, and none of these.
    class Hypotheses
      JOINTS = /@(wall|air_handler|outdoor)\z/

      # situation: Situation.
      def initialize(situation)
        @situation = situation
        @rig = situation.rig
        @netlist = situation.netlist
      end

      # [Hypothesis], shares adding up to one.
      def all
        found = as_designed + faults + opened + hidden + rig_facts
        found += intermittent(found)
        total = found.sum(&:share)
        none = numbers.dig("none", "share")
        found.map { |one| one.with(share: one.share / total * (1 - none)) } + [none_of_these(none)]
      end

      private

      def numbers = Diagnosis.numbers
      def weight(given) = weights[given["at"].to_s] || weights[owner(given["at"])] || 1.0
      def weights = numbers.fetch("weights")

      # What a fault is at: a part's code, or the cable of a conductor.
      def owner(at) = Array(at).first.to_s.split(/[.@]/).first

      # --- faults of the library

      def faults
        given = Faults::Library.everything(@rig, @netlist) - @situation.faults
        given = given.reject { |fault| right_setting?(fault) }
        given.group_by { |fault| fault["kind"] }.flat_map { |kind, members| shared(kind, members) }
      end

      # A setting that is right is no fault, however the visit found it.
      def right_setting?(fault) =
        fault["kind"] == "set_up" && Target.fitting(@rig).fetch(fault["at"], []).include?(fault["value"])

      # The share of a kind, parted among its members by weight.
      def shared(kind, members)
        weighed = members.map { |given| [given, weight(given) * (at_strip?(given) ? numbers["short_at_strip"] : 1.0)] }
        total = weighed.sum(&:last)
        weighed.flat_map { |given, share| of_fault(given, Catalogue.faults.fetch(kind).fetch("prior") * share / total) }
      end

      def at_strip?(given) = given["kind"] == "short" && given["at"].none? { |node| node.include?(".cable_") }

      def of_fault(given, share)
        fault = Fault.parse(given)
        about = fault.about
        senses = numbers.fetch("senses").fetch(fault.kind, {})
        plain =
          Hypothesis.new(
            id: Faults::Library.id(given),
            kind: fault.kind,
            title: fault.title(@netlist),
            faults: [given],
            senses: senses["still"] ? { "still" => given["at"] } : senses,
            at: given["at"].is_a?(String) ? given["at"] : nil,
            share: share,
            shows: about["shows"],
            proof: about["proof"]
          )
        return [open_fuse(plain)] if plain.id == Finder::FUSE_OPEN

        senses["valve"] == "stuck" ? stuck_valves(plain) : [plain]
      rescue BadCondition, UnknownNode, UnknownBranch
        []
      end

      # A fuse opens for a reason, and is no reason itself.
      def open_fuse(plain) =
        plain.with(
          title: Catalogue.wording.fetch("find.fuse_open"),
          shows: Catalogue.wording.fetch("find.fuse_open_shows"),
          proof: Catalogue.wording.fetch("find.fuse_open_proof")
        )

      # A slide that does not move stands in one of its two ends.
      def stuck_valves(plain)
        %w[heating cooling].map do |position|
          plain.with(
            id: "#{plain.id}_#{position}",
            title: Catalogue.words("find.valve_stuck", position: position),
            senses: {
              "valve" => position
            },
            share: plain.share / 2
          )
        end
      end

      # --- switches that opened for a reason

      def opened
        fitted = Diagnosis.opened.select { |code, _about| @netlist.branch?(code) && @netlist[code].kind == :switch }
        total = fitted.sum { |_code, about| about["share"] }
        fitted.map do |code, about|
          Hypothesis.new(
            id: "opened_#{code}",
            kind: "opened",
            title: Catalogue.words("find.opened", title: Naming.component(code).sub(/\A\w/, &:upcase), code: code),
            faults: [{ "kind" => "stuck_open", "at" => code }],
            senses: about["port"] ? { "port" => about["port"] } : {},
            at: code,
            share: numbers.dig("shares", "opened") * about["share"] / total,
            shows: Catalogue.words("find.behind", behind: about["behind"]),
            proof: Catalogue.wording.fetch("find.opened_proof"),
            licensed: !about["port"].nil?
          )
        end
      end

      # --- what no circuit shows

      def hidden
        numbers
          .fetch("hidden")
          .select do |_id, about|
            @situation.fits?(about) && about.fetch("faults", []).all? { |one| @netlist.branch?(one["at"]) }
          end
          .reject { |_id, about| about["fact"] && known_otherwise?(about) }
          .map do |id, about|
            Hypothesis.new(
              id: id,
              kind: "hidden",
              title: about["title"],
              faults: about.fetch("faults", []),
              facts: about["fact"] ? { about["fact"] => about["value"] } : {},
              senses: about.fetch("senses", {}),
              at: about["at"],
              part_ok: about["part_ok"],
              share: about["share"],
              shows: about["shows"],
              proof: about["proof"],
              licensed: about.fetch("licensed", false)
            )
          end
      end

      # Whether what an entry is about is noted so already, or was read to be otherwise where that settles it.
      def known_otherwise?(about) =
        @rig[about["fact"].to_sym] == about["value"] || (about["assumed"] && !@rig.assumed.include?(about["fact"]))

      # --- as designed

      def as_designed
        fitting = @situation.designs
        total = fitting.sum { |_id, about| about["weight"] * in_force(about) }
        fitting.map do |id, about|
          Hypothesis
            .new(
              id: id,
              kind: "as_designed",
              title: about["title"],
              turns: about.fetch("turns", {}),
              senses: about.fetch("senses", {}),
              explains: about.fetch("explains", {}),
              share: numbers.dig("shares", "as_designed") * about["weight"] * in_force(about) / total,
              shows: about["says"],
              proof: Catalogue.wording.fetch("find.as_designed_proof")
            )
            .then { |one| id == "nothing" && @situation.found.any? ? as_found(one) : one }
        end
      end

      # The unit with what the visit found, and nothing beside it.
      def as_found(nothing)
        nothing.with(
          kind: "found",
          title: Catalogue.words("find.found", list: @situation.found_titles.join("; ")),
          explains: {
          },
          share: numbers.dig("shares", "found"),
          shows: Catalogue.wording.fetch("find.found_shows"),
          proof: Catalogue.words("find.found_proof", moves: @situation.moves.join("; "))
        )
      end

      # What the weather of the visit holds off is more than one thing among many.
      def in_force(about)
        turns = about.fetch("turns", {})
        outdoor = @situation.outdoor_degrees_f or return 1.0
        past =
          (turns["above"] && outdoor > @rig[turns["above"].to_sym]) ||
            (turns["below"] && outdoor < @rig[turns["below"].to_sym]) ||
            (turns.dig("switches", "ODT") && Hysteresis.outdoor_thermostat(@rig).at(outdoor) == "open")
        past ? numbers["in_force"] : 1.0
      end

      # --- otherwise than noted

      def rig_facts
        open = numbers.fetch("rig_facts").select { |key| @rig.assumed.include?(key) && @rig.asks?(key) }
        others = open.flat_map { |key| otherwise(key).map { |value| [key, value] } }
        others.map do |key, value|
          Hypothesis.new(
            id: "rig_#{key}_#{value}",
            kind: "rig",
            title:
              Catalogue.words(
                "find.rig",
                title: Catalogue.facts.fetch(key).fetch("title"),
                value: Comparison.words(key, value),
                noted: Comparison.words(key, @rig[key.to_sym])
              ),
            facts: {
              key => value
            },
            share: numbers.dig("shares", "rig") / others.size,
            shows: Catalogue.wording.fetch("find.rig_shows"),
            proof: Catalogue.wording.fetch("find.rig_proof")
          )
        end
      end

      def otherwise(key)
        about = Catalogue.facts.fetch(key)
        all = about["kind"] == "flag" ? [true, false] : about.fetch("of").keys
        all - [@rig[key.to_sym]]
      end

      # --- the same, now and then

      TEMPERS = %w[open stuck_open].freeze
      private_constant :TEMPERS

      def intermittent(found)
        found
          .select { |one| TEMPERS.include?(one.kind) }
          .map do |one|
            one.with(
              id: "#{one.id}_at_times",
              kind: "intermittent",
              title: Catalogue.words("find.at_times", title: one.title),
              share: one.share * numbers.dig("intermittent", "share_of_steady"),
              shows: Catalogue.wording.fetch("find.at_times_shows"),
              proof: Catalogue.wording.fetch("find.at_times_proof"),
              steady: one.id
            )
          end
      end

      def none_of_these(share)
        Hypothesis.new(
          id: "none",
          kind: "none",
          title: Catalogue.wording.fetch("find.none"),
          share: share,
          shows: Catalogue.wording.fetch("find.none_shows"),
          proof: Catalogue.wording.fetch("find.none_proof")
        )
      end
    end
  end
end
