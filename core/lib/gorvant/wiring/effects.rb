# frozen_string_literal: true

module Gorvant
  # What a wiring does in each trial, against what should be: in words that follow from the solved loads alone.
  module Effects
    # wrong: [{ code, title, should: bool }]; nodes: [{ id, label, should }] of terminals that stand otherwise.
    Effect = Value.define(:trial, :title, :works, :says, :wrong, :nodes)

    class << self
      # [Effect] of outcomes against what should be, in the order of the trials.
      def of(trials, outcomes, should)
        netlist = Assembly.netlist(trials.rig)
        trials.all.map { |trial| effect(trial, outcomes.fetch(trial.id), should.fetch(trial.id), netlist, trials.rig) }
      end

      # Whether every load does what it should in every trial.
      def right?(outcomes, should) =
        should.all? do |id, outcome|
          outcomes.fetch(id).loads == outcome.loads && outcomes.fetch(id).blown.empty? &&
            outcomes.fetch(id).chatter.empty?
        end

      # What comes out of the registers, in words: "heats", "cools", "strips alone", "nothing runs".
      def air(outcome, rig)
        loads = outcome.loads
        return Catalogue.words("wiring.air_fuse") if outcome.blown.any?

        parts = [compressor(loads, rig), backup(loads)].compact
        parts = [Catalogue.words(loads["BLOWER"] ? "wiring.air_blower" : "wiring.air_nothing")] if parts.empty?
        if !loads["BLOWER"] && !loads["GAS"] && parts.first != Catalogue.words("wiring.air_nothing")
          parts << Catalogue.words("wiring.air_no_blower")
        end
        parts.join(", ")
      end

      private

      def compressor(loads, rig)
        return nil unless loads["COMP"]
        return Catalogue.words("wiring.air_hot_gas") if loads["HGS"]

        fed = loads["RVS"] || loads["RVS_LINE"] || false
        cooling = fed == (rig.changeover == "O")
        Catalogue.words("wiring.air_#{cooling ? "cools" : "heats"}")
      end

      def backup(loads) =
        if %w[HTR HTR2 GAS].any? { |code| loads[code] }
          Catalogue.words("wiring.air_#{loads["GAS"] ? "gas" : "strips"}")
        else
          nil
        end

      def effect(trial, found, should, netlist, rig)
        wrong =
          should
            .loads
            .reject { |code, on| found.loads[code] == on }
            .map { |code, on| { code: code, title: Naming.component(code), should: on } }
        nodes =
          should
            .nodes
            .reject { |node, state| found.nodes[node] == state }
            .map { |node, state| { id: node, label: netlist.label(node), should: state } }
        works = wrong.empty? && found.blown.empty? && found.chatter.empty?
        Effect.new(
          trial: trial.id,
          title: trial.title,
          works: works,
          says: works ? Catalogue.words("wiring.works") : says(found, should, wrong, rig),
          wrong: wrong,
          nodes: nodes
        )
      end

      def says(found, should, wrong, rig)
        is, meant = [found, should].map { |outcome| air(outcome, rig) }
        first =
          is == meant || !should.loads.key?("BLOWER") ? nil : Catalogue.words("wiring.instead", is: is, meant: meant)
        loads =
          wrong.map do |one|
            Catalogue.words(
              "wiring.load_#{one[:should] ? "off" : "on"}",
              title: one[:title][0].downcase + one[:title][1..]
            )
          end
        chatter = found.chatter.any? ? Catalogue.words("wiring.chatter", relays: found.chatter.join(", ")) : nil
        fuse = first.nil? && found.blown.any? ? Catalogue.words("wiring.air_fuse") : nil
        [first, fuse, chatter, *(found.blown.any? ? [] : loads)].compact.join("; ")
      end
    end
  end
end
