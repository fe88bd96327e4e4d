# frozen_string_literal: true

module Gorvant
  # From the answers to the composer's questions to a rig wired as it should be: which conductors run between which
  # places, in customary colors, and which jumpers belong.
  module Composer
    # Customary color of what lands on a terminal. Source: docs/sources.md, domain-variants.
    COLORS = {
      "R" => "red",
      "C" => "blue",
      "Y" => "yellow",
      "Y2" => "light_blue",
      "G" => "green",
      "O" => "orange",
      "B" => "dark_blue",
      "W2" => "white",
      "W" => "white",
      "E" => "brown"
    }.freeze

    class << self
      # facts: { key => value }, all of one source; lengths: { cable id => feet }.
      # Raises BadRigFile for answers that make no sense.
      def compose(name:, facts:, source: "assumed", lengths: {}, note: nil)
        recorded =
          facts.to_h { |key, value| [key.to_s, Fact.new(value: value, provenance: Provenance.new(source: source))] }
        wire(
          Rig.build(name: name, archetype: "split_heat_pump", note: note, facts: recorded, cables: []),
          source,
          lengths
        )
      end

      # A rig with other answers: { key => Fact }. What a person landed otherwise stays; what belonged to the old
      # answers goes, what belongs to the new ones comes.
      def recompose(rig, facts, name: rig.name)
        before = wire(rig.with(cables: [], jumpers: []), "assumed", {})
        after =
          wire(
            Rig.build(**rig.to_h, name: name, facts: facts, cables: [], jumpers: [], terminal_names: {}),
            "assumed",
            {}
          )
        cables =
          after.cables.map do |cable|
            merge(cable, rig.cables.find { |own| own.id == cable.id }, before.cables.find { |own| own.id == cable.id })
          end
        others = rig.cables.reject { |cable| after.cables.any? { |own| own.id == cable.id } }
        names =
          rig.terminal_names.select do |node, _name|
            after.terminals(node.split(".").first).include?(node.split(".").last)
          end
        Rig.build(
          **after.to_h,
          cables: cables + others,
          jumpers: kept_jumpers(rig, before, after),
          terminal_names: names
        )
      end

      # A rig of the same sort as this one, with all else as the archetype has it: what a panel is compared with.
      def archetype_of(rig)
        layout = rig.layout
        kept = layout.fetch("sort").filter_map { |key| [key, rig[key]] if rig.asks?(key) }.to_h
        compose(name: "#{layout.fetch("title")}, as usual", facts: kept)
      end

      private

      def wire(bare, source, lengths) =
        Rig.build(**bare.to_h, cables: cables(bare, source, lengths), jumpers: jumpers(bare, source))

      def ways(cable) = cable ? cable.conductors.map { |conductor| [conductor.from, conductor.to] } : []

      def merge(wanted, own, before)
        return wanted unless own

        gone = ways(before) - ways(wanted)
        kept = own.conductors.reject { |conductor| gone.include?([conductor.from, conductor.to]) }
        missing =
          wanted.conductors.reject do |conductor|
            kept.any? { |there| [there.from, there.to] == [conductor.from, conductor.to] }
          end
        taken = kept.map(&:id)
        missing =
          missing.map { |conductor| taken.include?(conductor.id) ? conductor.with(id: "#{conductor.id}_2") : conductor }
        own.with(conductors: kept + missing)
      end

      def kept_jumpers(rig, before, after)
        kept =
          rig.jumpers.reject do |jumper|
            before.jumpers.any? { |own| own.id == jumper.id } && after.jumpers.none? { |own| own.id == jumper.id }
          end
        kept + after.jumpers.reject { |jumper| kept.any? { |own| own.id == jumper.id } }
      end

      def cables(rig, source, lengths)
        [
          ["cable_a", "wall", "air_handler", indoor(rig), 42],
          ["cable_b", "air_handler", "outdoor", field(rig), 55]
        ].map do |id, from, to, runs, feet|
          conductors =
            runs.map do |color, first, second|
              Conductor.new(id: color, color: color.tr("_", " "), from: first, to: second)
            end
          Cable.new(
            id: id,
            from: from,
            to: to,
            gauge_awg: 18,
            length_feet: lengths.fetch(id, feet),
            conductors: conductors,
            provenance: Provenance.new(source: source)
          )
        end
      end

      # [[color, terminal at the wall, terminal at the air handler]]
      def indoor(rig)
        changeover = rig.changeover_terminal(rig.changeover) || "OB"
        runs = straight(rig, %w[R C Y Y2 G], "wall") + [[COLORS.fetch(rig.changeover), changeover, rig.changeover]]
        return runs if rig[:backup] == "none"

        runs << ["white", rig.aux_terminal, rig[:outdoor_thermostat] ? "W2" : "W"]
        emergency_conductor?(rig) ? runs << %w[brown E W] : runs
      end

      # [[color, terminal at the air handler, terminal outdoors]]
      def field(rig)
        runs = straight(rig, ["R", "C", "Y", "Y2", rig.changeover], "outdoor")
        return runs if rig[:backup] == "none"

        runs << %w[pink W2 W2] if rig[:outdoor_thermostat]
        rig[:w2_out_run] ? runs << %w[white W W2_out] : runs
      end

      def straight(rig, terminals, place) =
        (terminals & rig.terminals(place)).map { |terminal| [COLORS.fetch(terminal), terminal, terminal] }

      def emergency_conductor?(rig) = rig[:emergency_path] != "jumper"

      def jumpers(rig, source)
        return [] if rig[:backup] == "none"
        return [] if rig[:emergency_path] == "two_conductors"

        [
          Jumper.new(
            id: "aux_e",
            place: "wall",
            from: rig.aux_terminal,
            to: "E",
            provenance: Provenance.new(source: source)
          )
        ]
      end
    end
  end
end
