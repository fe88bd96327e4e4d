# frozen_string_literal: true

module Gorvant
  module Faults
    # Every single fault that a rig can have, as the Hashes that Fault.parse reads.
    module Library
      # The settings that are commonly left wrong and show in the voltages; the rest are checked on the thermostat's own
      # page.
      SETTINGS = %w[changeover_setup system_setup backup_setup].freeze

      class << self
        # What a fault goes by in a list: "open:cable_a.red", "landed:cable_a.blue@wall:wall.Y".
        def id(given) =
          [given["kind"], Array(given["at"]).join("~"), *given.except("kind", "at").values].compact.join(":")

        # [{ "kind", "at", ... }]
        def of(rig, netlist = Assembly.netlist(rig))
          conductors(rig, netlist) + landings(rig, netlist) + parts(netlist) + settings(rig) + mechanical(netlist) +
            sensors(netlist)
        end

        # Wires off their terminals, and on others: too many to compare with everything, offered one by one.
        def landings_of(rig, netlist = Assembly.netlist(rig))
          joints = netlist.branches.select { |branch| branch.kind == :wire && branch.id.include?("@") }
          joints.flat_map do |joint|
            place = joint.id.split("@").last
            others = rig.terminals(place).map { |terminal| "#{place}.#{terminal}" } - [joint.from]
            [fault("lifted", joint.id), *others.map { |node| fault("landed", joint.id, to: node) }]
          end
        end

        # All that could read the same: every fault, wires on other terminals, and shorts between any two conductors
        # that share a cable, or any two terminals that share a box.
        def everything(rig, netlist = Assembly.netlist(rig)) =
          (of(rig, netlist) + landings_of(rig, netlist) + shorts_of(rig, netlist)).uniq

        def shorts_of(rig, netlist = Assembly.netlist(rig))
          cables =
            rig.cables.flat_map do |cable|
              cable
                .conductors
                .reject(&:spare)
                .map { |conductor| netlist["#{cable.id}.#{conductor.id}"].to }
                .combination(2)
                .to_a
            end
          boxes =
            rig
              .layout
              .fetch("places")
              .keys
              .flat_map do |place|
                rig
                  .terminals(place)
                  .map { |terminal| "#{place}.#{terminal}" }
                  .select { |node| netlist.node?(node) }
                  .combination(2)
                  .to_a
              end
          (cables + boxes).map { |pair| fault("short", pair) }
        end

        private

        def fault(kind, at, **more) = { "kind" => kind, "at" => at }.merge(more.transform_keys(&:to_s))

        def conductors(rig, netlist)
          rig.cables.flat_map do |cable|
            ids = cable.conductors.reject(&:spare).map { |conductor| "#{cable.id}.#{conductor.id}" }
            alone =
              ids.flat_map { |id| [fault("open", id), fault("to_ground", netlist[id].from), *splices(netlist, id)] }
            ends = ids.map { |id| netlist[id].to }
            alone + (commons(cable, netlist, ends) + ends.each_cons(2).to_a).map { |pair| fault("short", pair) }
          end
        end

        # Each of these ends of a cable with the common beside it.
        def commons(cable, netlist, ends)
          common = "#{cable.to}.C"
          return [] unless netlist.node?(common)

          ends.reject { |node| node.end_with?(".#{common_conductor(cable)}") }.map { |node| [node, common] }
        end

        def common_conductor(cable) = cable.conductors.find { |conductor| conductor.to == "C" }&.id

        def splices(netlist, id) =
          netlist
            .branches
            .select { |branch| branch.id.start_with?("#{id}/") && !branch.id.include?("/after_") }
            .map { |branch| fault("open", branch.id) }

        def landings(rig, netlist)
          joints = netlist.branches.select { |branch| branch.id.include?("@") && branch.kind == :wire }
          bad = joints.map { |joint| fault("high_resistance", joint.id) }
          bad + neighbors(joints).map { |first, second| fault("swapped", [first.id, second.id]) } +
            rig.jumpers.map { |jumper| fault("open", jumper.id) }
        end

        # [two joints] of one cable that stand beside each other at one end of it.
        def neighbors(joints) =
          joints
            .group_by { |joint| joint.id.split("@").last + joint.component.to_s + joint.id.split(".").first }
            .values
            .flat_map { |group| group.each_cons(2).to_a }

        def parts(netlist)
          netlist.branches.flat_map do |branch|
            case branch.kind
            when :switch, :contact
              [fault("stuck_open", branch.id), fault("stuck_closed", branch.id)]
            when :fuse
              [fault("stuck_open", branch.id)]
            when :coil
              [fault("open", branch.id), fault("coil_shorted", branch.id)]
            when :load, :capacitor
              [fault("open", branch.id)]
            when :secondary
              [fault("open", branch.id), fault("transformer_weak", branch.id)]
            else
              []
            end
          end
        end

        def settings(rig)
          asked = SETTINGS.select { |key| rig.asks?(key) }
          asked.flat_map do |key|
            (Catalogue.facts.fetch(key)["of"].keys - [rig[key]]).map { |value| fault("set_up", key, value: value) }
          end
        end

        # Either sensor open, shorted, drifted either way; the air's in the sun; both swapped.
        def sensors(netlist)
          return [] unless netlist.branch?("COIL_T")

          drift = Catalogue.profile.dig("sensors", "drift_degrees_f")
          each =
            %w[COIL_T AMB_T].flat_map do |code|
              [
                fault("sensor_open", code),
                fault("sensor_shorted", code),
                *[drift, -drift].map { |by| fault("sensor_drifted", code, by_degrees_f: by) }
              ]
            end
          each + [fault("sensor_in_sun", "AMB_T"), fault("sensors_swapped", "COIL_T")]
        end

        def mechanical(netlist)
          valve = netlist.branch?("RVS") ? [fault("valve_stuck", "RVS"), fault("valve_leaking", "RVS")] : []
          valve +
            [fault("not_pumping", "COMP"), fault("motor_dead", "OFM"), fault("motor_dead", "BLOWER")].select do |one|
              netlist.branch?(one["at"])
            end
        end
      end
    end
  end
end
