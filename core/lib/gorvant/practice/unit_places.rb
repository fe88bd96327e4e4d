# frozen_string_literal: true

module Gorvant
  module Practice
    # What there is to act on at a unit as drawn: the same for every drill of the rig, whatever is hidden in it.
    class UnitPlaces
      def initialize(rig)
        @rig = rig
        @netlist = Assembly.netlist(rig)
      end

      # { kind of place => [{ "id", "title", … }] }
      def to_h
        {
          "calls" => calls,
          "points" => points,
          "looks" => seen(Act.looks(@rig)),
          "degrees" => Act.degrees(@rig).map { |id| item(id, Observation.functions.dig("degrees_f", "places", id)) },
          "facts" => facts,
          "joints" => Act.joints(@netlist).map { |id| item(id, @netlist[id].label) },
          "links" => links,
          "parts" => Act.parts(@netlist).map { |id| item(id, "#{id} · #{Naming.component(id)}") },
          "sensors" =>
            %w[COIL_T AMB_T].select { |id| @netlist.branch?(id) }.map { |id| item(id, Naming.component(id)) },
          "places" => @rig.layout.fetch("places").keys.map { |id| item(id, @rig.place_title(id)) }
        }
      end

      private

      def item(id, title, **more) = { "id" => id, "title" => title.to_s, **more.transform_keys(&:to_s) }

      def calls = (Outputs.calls(@rig) - %w[defrost]).map { |id| item(id, Catalogue.calls.fetch(id).fetch("title")) }

      def points =
        @netlist
          .nodes
          .select { |node| @netlist.labels.key?(node) }
          .map { |node| item(node, @netlist.label(node), place: node.split(".").first) }

      def seen(ids) = ids.map { |id| item(id, Observation.functions.dig("seen", "places", id, "title")) }

      def facts =
        Observation
          .readable_facts(@rig)
          .map do |key|
            about = Catalogue.facts.fetch(key)
            values = about.fetch("of", {}).map { |value, says| { "id" => value, "title" => says.to_s } }
            item(key, about.fetch("title"), group: about["group"], values: values)
          end

      # What may be open, or not: conductors, switches, contacts, coils, fuses, windings.
      def links =
        @netlist
          .branches
          .select do |branch|
            branch.switching? || %i[coil fuse load capacitor secondary].include?(branch.kind) || conductor?(branch)
          end
          .map { |branch| item(branch.id, branch.label) }

      def conductor?(branch) = branch.component.to_s.start_with?("cable") && !branch.id.include?("@")
    end
  end
end
