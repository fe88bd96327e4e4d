# frozen_string_literal: true

module Gorvant
  module Assembly
    # Field cables and jumpers. Each end of a conductor is a node of its own, so it can be lifted and read by itself.
    module Cables
      class << self
        def draw(sketch)
          indoor_switches(sketch)
          sketch.rig.cables.each { |cable| cable(sketch, cable) }
          sketch.rig.jumpers.each do |jumper|
            sketch.join(
              "#{jumper.place}.#{jumper.from}",
              "#{jumper.place}.#{jumper.to}",
              how: :joint,
              id: jumper.id,
              label: "jumper #{jumper.from}–#{jumper.to} at the #{sketch.rig.place_title(jumper.place)}"
            )
          end
        end

        # Codes of the switches that sit in Y between the air handler's strip and the cable outdoors.
        def in_y(rig) = [("FLS" if rig[:float_switch] == "y"), ("FRS" if rig[:freeze_stat])].compact

        # The point that a landing stands on: the screw itself, or, for Y on its way outdoors, the last switch in it.
        def landing(rig, cable, place, terminal)
          outdoors = place == "air_handler" && terminal == "Y" && [cable.from, cable.to].include?("outdoor")
          last = outdoors ? in_y(rig).last : nil
          last ? "air_handler.#{last}.2" : "#{place}.#{terminal}"
        end

        # Node of one end of a conductor.
        def end_node(cable, conductor, place) = "#{place}.#{cable.id}.#{conductor.id}"

        private

        def indoor_switches(sketch) = sketch.string(in_y(sketch.rig), "air_handler", "air_handler.Y")

        def cable(sketch, cable)
          cable.conductors.each { |conductor| conductor(sketch, cable, conductor) }
          couple(sketch, cable)
        end

        def conductor(sketch, cable, conductor)
          ends = [cable.from, cable.to].map { |place| end_node(cable, conductor, place) }
          run(sketch, cable, conductor, ends)
          { cable.from => conductor.from, cable.to => conductor.to }.each_with_index do |(place, terminal), i|
            sketch.name(ends[i], "#{Naming.conductor(cable, conductor)}, at the #{sketch.rig.place_title(place)}")
            next unless terminal

            sketch.join(
              landing(sketch.rig, cable, place, terminal),
              ends[i],
              how: :joint,
              id: "#{cable.id}.#{conductor.id}@#{place}",
              label:
                "#{conductor.id.tr("_", " ")} on #{Naming.letter(sketch.rig, terminal)} " \
                  "at the #{sketch.rig.place_title(place)}"
            )
          end
        end

        # The copper from end to end, in as many pieces as its splices make; its first piece has the conductor's own
        # name.
        def run(sketch, cable, conductor, ends)
          id = "#{cable.id}.#{conductor.id}"
          ohms = cable.conductor_ohms / (conductor.splices.size + 1)
          label = Naming.conductor(cable, conductor)
          last =
            conductor
              .splices
              .inject([ends[0], id]) do |(node, piece), splice|
                sides = %w[a b].map { |side| "#{id}.#{splice.id}_#{side}" }
                sides.each { |side| sketch.name(side, "splice #{splice.id.tr("_", " ")} in #{label}") }
                sketch.net.wire(piece, from: node, to: sides[0], component: cable.id, ohms: ohms, label: label)
                sketch.join(
                  sides[0],
                  sides[1],
                  how: :joint,
                  id: "#{id}/#{splice.id}",
                  label: "splice #{splice.id.tr("_", " ")} in #{label}"
                )
                [sides[1], "#{id}/after_#{splice.id}"]
              end
          sketch.net.wire(last[1], from: last[0], to: ends[1], component: cable.id, ohms: ohms, label: label)
        end

        # Half of the capacitance sits at each end.
        def couple(sketch, cable)
          farads =
            Catalogue.profile.fetch("cable").fetch("coupling_picofarads_per_foot") * 1e-12 * cable.length_feet / 2
          cable
            .conductors
            .combination(2) do |first, second|
              [cable.from, cable.to].each do |place|
                sketch.net.coupling(
                  "#{cable.id}.#{first.id}~#{second.id}@#{place}",
                  from: end_node(cable, first, place),
                  to: end_node(cable, second, place),
                  farads: farads
                )
              end
            end
        end
      end
    end
  end
end
