# frozen_string_literal: true

module Gorvant
  module Faults
    # A conductor, joint, coil or winding that no longer conducts, or a wire taken off.
    class Open < Fault
      register "open", "lifted"
      def inject(netlist, held) = [netlist, held.merge(branch(netlist).id => :open)]
    end

    # A switch or contact that does not move.
    class Stuck < Fault
      register "stuck_open", "stuck_closed"

      def inject(netlist, held)
        branch = branch(netlist)
        wrong("'#{branch.id}' is neither switch nor contact, so it cannot be stuck") unless branch.switching?
        [netlist, held.merge(branch.id => kind == "stuck_open" ? :open : :closed)]
      end
    end

    # A branch with other ohms: a bad joint, a burnt winding, a weak transformer. "ohms" may say how many.
    class Changed < Fault
      register "high_resistance", "coil_shorted", "transformer_weak"
      KINDS = { "high_resistance" => %i[wire], "coil_shorted" => %i[coil], "transformer_weak" => %i[secondary] }.freeze

      def inject(netlist, held)
        branch = branch(netlist)
        unless KINDS.fetch(kind).include?(branch.kind)
          wrong("'#{branch.id}' is a #{branch.kind}; this fault is of a #{KINDS.fetch(kind).join(" or ")}")
        end
        [netlist.with(changed(branch)), held]
      end

      private

      def changed(branch)
        numbers = Catalogue.profile.fetch("faults")
        case kind
        when "transformer_weak"
          branch.with(props: branch.props.merge(ohms: branch[:ohms] * numbers.fetch("weak_transformer_factor")))
        when "coil_shorted"
          Branch.new(
            id: branch.id,
            kind: :load,
            from: branch.from,
            to: branch.to,
            component: branch.component,
            props: {
              ohms: numbers.fetch("shorted_coil_ohms"),
              label: branch.label,
              works_above_volts_ac: Float::INFINITY
            }.freeze
          )
        else
          branch.with(props: branch.props.merge(ohms: ohms(numbers.fetch("bad_joint_ohms"))))
        end
      end

      def ohms(usual)
        ohms = given.fetch("ohms", usual)
        if ohms.is_a?(Numeric) && ohms.between?(0.01, 1e6)
          ohms.to_f
        else
          wrong("has to be a number of ohms from 0.01 to 1000000", "ohms")
        end
      end
    end

    # Two points that touch and should not; of one, the chassis is the other. A jumper or a conductor that somebody put
    # there is the same to the circuit.
    class Short < Fault
      register "short", "to_ground", "jumper", "extra"

      def inject(netlist, held)
        points = kind == "to_ground" ? [given["at"], Assembly::CHASSIS] : given["at"]
        wrong("has to be two different points") unless points.is_a?(Array) && points.size == 2 && points.uniq.size == 2
        first, second = points.map { |point| node(netlist, point) }.sort
        wrong("joins low voltage to line voltage; that is not modelled") if across?(netlist, first, second)
        name = { "jumper" => "jumper", "extra" => "conductor" }.fetch(kind, "short")
        bridge =
          Branch.new(
            id: "short.#{first}~#{second}",
            kind: :wire,
            from: first,
            to: second,
            props: {
              ohms: Catalogue.profile.fetch("joint_ohms"),
              label: "#{name} #{netlist.label(first)} – #{netlist.label(second)}"
            }.freeze
          )
        [netlist.with(bridge), held]
      end

      private

      def across?(netlist, first, second)
        line = netlist.sections.find { |section| section.reference == Assembly::GROUND }
        line && [first, second].one? { |point| line.nodes.include?(point) }
      end
    end

    # Two conductors on each other's terminals at a place: "at" is their two joints, e.g. cable_b.orange@outdoor.
    class Swapped < Fault
      register "swapped"

      def inject(netlist, held)
        joints = Array(given["at"]).map { |id| branch(netlist, id) }
        unless joints.size == 2 && joints.all? { |joint| joint.id.include?("@") } && joints.uniq.size == 2
          wrong("has to be two joints of one place, such as cable_b.orange@outdoor")
        end
        first, second = joints
        [netlist.with(first.with(from: second.from), second.with(from: first.from)), held]
      end
    end

    # A conductor's end on another terminal: "at" is its joint, "to" the terminal's node.
    class Landed < Fault
      register "landed"

      def inject(netlist, held)
        joint = branch(netlist)
        wrong("has to be a joint such as cable_a.blue@wall") unless joint.id.include?("@")
        to = node(netlist, given["to"], "to")
        wrong("is where it lands already", "to") if to == joint.from
        [netlist.with(joint.with(from: to)), held]
      end

      def title(netlist) = format(about.fetch("title"), at: netlist[given["at"]].label, to: netlist.label(given["to"]))
    end

    # A setting of the thermostat: "at" is the fact, "value" what it is set to.
    class SetUp < Fault
      register "set_up"

      def refit(rig)
        wrong("has to be one of #{Rig.settings.join(", ")}") unless Rig.settings.include?(given["at"])
        problem = Rig::Check.new(rig).value(given["at"], given["value"], Catalogue.facts.fetch(given["at"])).first
        wrong(problem["problem"], "value") if problem
        rig.set(given["at"] => given["value"])
      end

      def title(_netlist)
        format(
          about.fetch("title"),
          at:
            "#{
              Catalogue.facts.fetch(given["at"])["title"].then { |title| title.include?("/") ? title : title.downcase }
            } on “#{Comparison.words(given["at"], given["value"])}”"
        )
      end
    end

    # A thermistor of the board: its few volts are the board's own, so no 24 V reading shows it. at: COIL_T or AMB_T.
    class Sensor < Fault
      register "sensor_open", "sensor_shorted", "sensor_drifted", "sensor_in_sun", "sensors_swapped"
      MOST_OFF = 60

      def mechanical? = true

      def inject(netlist, held)
        wrong("this board has no thermistors") unless netlist.branch?("COIL_T")
        wrong("has to be COIL_T or AMB_T") unless kind == "sensors_swapped" || %w[COIL_T AMB_T].include?(given["at"])
        by = given["by_degrees_f"]
        unless by.nil? || (by.is_a?(Numeric) && by.abs <= MOST_OFF)
          wrong("has to be a number from -#{MOST_OFF} to #{MOST_OFF} °F", "by_degrees_f")
        end
        [netlist, held]
      end
    end

    # What no voltage shows.
    class Mechanical < Fault
      register "valve_stuck", "valve_leaking", "not_pumping", "motor_dead"
      def mechanical? = true

      def inject(netlist, held)
        branch(netlist) if kind == "motor_dead"
        [netlist, held]
      end
    end
  end
end
