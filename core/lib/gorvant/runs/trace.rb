# frozen_string_literal: true

module Gorvant
  # A rig under a condition, solved at one instant: what is live, which loads work and why, and what a meter should
  # show.
  class Trace
    # One line of the load table. why: a sentence; chain: sentences from the load back to the first missing link.
    LoadState = Value.define(:code, :title, :on, :volts_ac, :why, :chain, :missing, :as_designed)

    # One step of that chain.
    Why = Value.define(:says, :missing, :as_designed, defaults: { missing: nil, as_designed: false })

    attr_reader :rig, :condition, :netlist, :solution, :findings, :fault_titles

    def initialize(rig, condition)
      @rig = rig
      @condition = condition
      faults = Fault.parse_all(condition.faults)
      @fitted = fitted = faults.inject(rig) { |so_far, fault| fault.refit(so_far) }
      @netlist, held = Fault.inject(Assembly.netlist(fitted), faults)
      @held = late_contacts.merge(held)
      @positions = Assembly.positions(fitted, condition)
      @solution = Settling.settle(@netlist, positions: @positions, held: @held)
      @findings = Rule.check_all(@solution) + mechanical(faults)
      @fault_titles = faults.map { |fault| fault.title(@netlist) }
      @low_voltage = Loops.new(@solution, hot: Assembly::HOT, home: Assembly::HOME)
      @line_voltage = Loops.new(@solution, hot: Assembly::LINE_HOT, home: Assembly::LINE_HOME)
      @low_nodes =
        @netlist.sections.find { |section| section.reference == Assembly::HOME }.nodes.to_h { |node| [node, true] }
    end

    # live, dead, home, between or floating, against the transformer's C (line voltage: against ground).
    def state(node)
      return "floating" if solution.floating?(node)

      volts = solution.volts[node].abs
      return "live" if volts >= Catalogue.profile.dig("reading_classes", "about_24", "low")
      return "between" if volts > Catalogue.profile.dig("reading_classes", "about_0", "high")

      home.joined?(node) ? "home" : "dead"
    end

    # Letters of the terminals live at the wall, as lamps on them would show: jumpers and feeds back included.
    def live_at_wall
      (rig.terminals("wall") - %w[R C])
        .select { |terminal| state("wall.#{terminal}") == "live" }
        .map { |terminal| Naming.letter(rig, terminal) }
        .sort
    end

    # Whether an open branch breaks a loop: a safety, fuse or conductor does; a relay contact, or an output of
    # electronics that leave it open or are not fed, does not, unless somebody supposed it broken.
    def breaks?(branch)
      return false if solution.conducts?(branch)
      return true if held_open?(branch)
      return false if electronic?(branch) || (branch[:needs] && !solution.working?(branch[:needs]))

      branch.kind == :fuse || branch[:closed] == true || !branch.switching?
    end

    # VA that the transformer gives, against its plate: { drawn_va, rated_va, volts_ac }.
    def supply
      secondary = netlist.secondary
      {
        drawn_va: solution.amps(secondary) * solution.volts_across(secondary),
        rated_va: secondary[:rated_va],
        volts_ac: solution.volts_across(secondary)
      }
    end

    # Codes of the loads to tell about: what runs, then the controls.
    def load_codes =
      (rig.layout.fetch("shown_loads") + rig.layout.fetch("controls")).select { |code| netlist.branch?(code) }

    def loads = @loads ||= load_codes.map { |code| load_state(code) }

    # One line of the load table, for any load of the circuit.
    def load_state(code)
      branch = netlist[code]
      on = works?(code)
      chain = on ? [works(code)] : why_off(code, [])
      LoadState.new(
        code: code,
        title: Naming.component(code),
        on: on,
        volts_ac: solution.volts_across(branch),
        why: chain.first.says,
        chain: chain.map(&:says),
        missing: chain.last.missing,
        as_designed: chain.last.as_designed
      )
    end

    # Whether a load does its work: all of its windings fed.
    def works?(code) =
      ([code] + (netlist.branch?("#{code}.start") ? ["#{code}.start"] : [])).all? { |id| solution.working?(id) }

    # Loop of a load: feeders and way home.
    def loop_of(code)
      branch = netlist[code]
      (@loops ||= {})[code] ||= (low_voltage?(branch.from) ? @low_voltage : line_voltage(branch)).of(branch)
    end

    # What the instrument should show between two points, and why. Where nobody has read how things stand (a contactor's
    # poles, a switch near its points) it may be one of several.
    # Returns [Expected, Reasons::Reason].
    def reading(first, second, instrument = "high_impedance")
      Patience.check!
      expected = meter(instrument).read(first, second)
      either(expected, first, second, instrument) || [expected, reasons(first).explain(first, second, expected)]
    end

    # [Assembly::Positions::Stand] of switches that stand where the call, the weather or the coil puts them.
    def stands = @stands ||= Assembly::Positions.stands(@fitted, condition)

    # Ohms between two points as things stand, with the power off.
    def ohms(first, second, isolated: false)
      (@ohmmeter ||= Ohmmeter.new(netlist, positions: @positions, held: @held)).read(first, second, isolated: isolated)
    end

    def meter(instrument) = (@meters ||= {})[instrument] ||= Meter.new(solution, instrument)

    def low_voltage?(node) = @low_nodes.key?(node)

    private

    # --- what nobody has read

    def either(expected, first, second, instrument)
      rivals = expected.low_volts_ac ? rivals_at(first, second) : []
      return nil if rivals.empty?

      others =
        rivals
          .map { |rival| [rival.meter(instrument).read(first, second), rival.trait] }
          .reject { |other, _trait| like?(other, expected) }
      return nil if others.empty?

      # What one of them leaves untold is untold.
      untold = others.map(&:first).find { |other| other.low_volts_ac.nil? }
      return untold, reasons(first).explain(first, second, untold) if untold

      all = [[expected, trait || own_trait(rivals.first)], *others]
      [
        Expected.either(all.map(&:first)),
        Reasons::Reason.new(key: "either", says: either_words(all, rivals), links: [])
      ]
    end

    # The circuits that it may be as well, where all of them have both points.
    def rivals_at(first, second)
      points = [first, second]
      rivals = near_their_points + (points.all? { |node| low_voltage?(node) } ? [] : unread_contactors)
      rivals.all? { |rival| points.all? { |node| rival.netlist.node?(node) } } ? rivals : []
    end

    def like?(one, other) =
      one.klass == other.klass &&
        ((one.volts_ac || 0) - (other.volts_ac || 0)).abs < Catalogue.profile.dig("reading_classes", "about_0", "high")

    def either_words(all, rivals)
      list =
        all
          .map { |read, by| Catalogue.words("reason.either_one", volts: format("%.1f", read.volts_ac || 0.0), if: by) }
          .uniq
          .join(" or ")
      Catalogue.words("reason.either", list: list, why: rivals.first.why)
    end

    # The same circuit with the contactor otherwise, where nobody has read it.
    def unread_contactors
      @unread_contactors ||=
        begin
          legs = {
            "contactor_L1" => {
              contactor_poles: 1,
              contactor_switched_leg: "L1"
            },
            "contactor_L2" => {
              contactor_poles: 1,
              contactor_switched_leg: "L2"
            },
            "contactor_two" => {
              contactor_poles: 2
            }
          }
          known = {
            1 => rig[:contactor_switched_leg] == "unknown" ? %w[contactor_L1 contactor_L2] : [],
            2 => []
          }.fetch(rig[:contactor_poles], legs.keys)
          known
            .drop(1)
            .map do |key|
              Rival.new(
                rig.set(legs.fetch(key)),
                condition,
                Catalogue.wording.fetch("either.#{key}"),
                Catalogue.wording.fetch("either.contactor")
              )
            end
        end
    end

    # The same circuit with a switch that is near its points in its other position.
    def near_their_points
      @near_their_points ||=
        stands
          .select { |stand| stand.state == "undetermined" }
          .map do |stand|
            closed = @positions.fetch(stand.code) { netlist[stand.code][:closed] }
            Rival.new(
              rig,
              condition.with(switches: condition.switches.merge(stand.code => closed ? "open" : "closed")),
              Catalogue.words("either.near_as", code: stand.code, state: closed ? "open" : "closed"),
              Catalogue.words("either.near", code: stand.code)
            )
          end
    end

    # What this trace itself takes for so.
    def trait = nil

    def own_trait(rival)
      return Catalogue.wording.fetch("either.contactor_L1") unless near_their_points.include?(rival)

      stand = stands.find { |one| one.state == "undetermined" }
      Catalogue.words(
        "either.near_as",
        code: stand.code,
        state: solution.conducts?(netlist[stand.code]) ? "closed" : "open"
      )
    end

    # What a furnace feeds goes home to the neutral, which is grounded at the panel.
    def line_voltage(branch)
      return @line_voltage unless rig[:backup] == "gas" && branch.from.start_with?("air_handler.")

      neutral
    end

    def neutral = @neutral ||= Loops.new(@solution, hot: Assembly::LINE_HOT, home: Assembly::GROUND)

    # What no voltage shows is told in words.
    def mechanical(faults)
      faults
        .select(&:mechanical?)
        .map do |fault|
          words = fault.about.slice("is", "shows", "proof").transform_keys(&:to_sym)
          Finding.of("mechanical", title: fault.title(netlist), **words)
        end
    end

    # Contacts that the run over time holds where their delay has them.
    def late_contacts
      condition.contacts.to_h do |id, state|
        unless netlist.branch?(id) && netlist[id].kind == :contact
          raise BadCondition.new(field: "/condition/contacts/#{id}", problem: "is no contact of this rig")
        end

        [id, state.to_sym]
      end
    end

    def home = @home ||= Paths.new(solution, Assembly::HOME)

    def reasons(node)
      @reasons ||= {}
      @reasons[low_voltage?(node)] ||= (
        if low_voltage?(node)
          Reasons.new(solution, hot: Assembly::HOT, home: Assembly::HOME)
        else
          Reasons.new(solution, hot: Assembly::LINE_HOT, home: Assembly::LINE_HOME)
        end
      )
    end

    def works(code)
      feeder = loop_of(code).best_feeder || []
      names = feeder.select { |step| step.branch.switching? }.map { |step| step.branch.label }.uniq
      Why.new(says: say("works", code, way: names.empty? ? "wire alone" : names.join(", ")))
    end

    # The chain of reasons from a load that is off back to the first missing link. A contact that is open because its
    # coil is dead leads on to that coil.
    def why_off(code, seen)
      return [] if seen.include?(code)

      loop = loop_of(code)
      return [Why.new(says: say("no_way", code))] unless loop.best_feeder
      return [Why.new(says: say("no_home", code))] unless loop.home

      missing = first_missing(loop)
      return [start_winding(code) || too_low(code)] unless missing

      branch = missing.branch
      return contact_chain(code, branch, seen) if branch.kind == :contact

      [designed?(branch) ? left_open(code, branch, loop) : open_link(code, branch)]
    end

    # Of several feeds that are open somewhere, the one that is being called speaks: W2 called and held off by its
    # outdoor thermostat is not "E not called".
    def first_missing(loop)
      called = loop.feeders.select { |steps| steps.any? { |step| thermostat?(step.branch) && !step.open? } }
      feeder = called.min_by { |steps| steps.count(&:open?) } || loop.best_feeder
      (feeder + loop.home).find(&:open?)
    end

    # A switch that stands open where the weather, or the call, puts it, and would close by itself, is as designed.
    def open_link(code, branch)
      warm = branch.id == "ODT" && stands.find { |stand| stand.code == "ODT" && stand.state == "open" }
      if warm
        return(
          Why.new(
            says: say("odt_warm", code, degrees: format("%g", condition.outdoor_degrees_f)),
            missing: branch.id,
            as_designed: true
          )
        )
      end

      Why.new(says: say(open_key(branch), code, link: branch.label), missing: branch.id)
    end

    # An output that is left open: by this call, by a balance point, or because the thermostat is told of other
    # equipment.
    def left_open(code, branch, loop)
      balance(code, branch) || set_up(code, branch) ||
        Why.new(
          says: say(open_key(branch), code, link: uncalled(loop, branch).join(" and ")),
          missing: branch.id,
          as_designed: true
        )
    end

    # Every output of the thermostat that would have fed the load had it been called.
    def uncalled(loop, branch)
      return [branch.label] unless thermostat?(branch)

      loop
        .feeders
        .filter_map { |steps| steps.find(&:open?)&.branch }
        .select { |open| thermostat?(open) && designed?(open) }
        .map(&:label)
        .uniq
        .sort
        .reverse
    end

    def thermostat?(branch) = branch.component == "THERMOSTAT" && branch.switching?

    def balance(code, branch)
      outdoor = condition.outdoor_degrees_f
      unless outdoor && thermostat?(branch) && condition.outputs.nil? &&
               Outputs.closed(@fitted, condition.call).include?(branch.id.split(".").last)
        return nil
      end

      fields = { outdoor: format("%g", outdoor) }
      if Balance.nothing?(@fitted, outdoor)
        return Why.new(says: say("balance_crossed", code, **fields), missing: branch.id)
      end

      key, limit =
        (
          if Balance.compressor?(@fitted, outdoor)
            %i[above_balance auxiliary_balance_degrees_f]
          else
            %i[below_balance compressor_balance_degrees_f]
          end
        )
      Why.new(
        says: say(key.to_s, code, limit: format("%g", @fitted[limit]), **fields),
        missing: branch.id,
        as_designed: true
      )
    end

    # Not as designed where the same call, with the thermostat set up for this equipment, would have closed it.
    def set_up(code, branch)
      return nil unless thermostat?(branch) && condition.outputs.nil?

      right = Target.rig(@fitted)
      return nil if right.equal?(@fitted) || !set_right.works?(code)

      wrong = Target.fitting(@fitted).reject { |key, values| values.include?(@fitted[key]) }.keys
      words =
        wrong.map do |key|
          Catalogue.words(
            "why.set_up_says",
            title: Catalogue.facts.fetch(key)["title"],
            is: Comparison.words(key, @fitted[key]),
            right: Comparison.words(key, right[key])
          )
        end
      Why.new(says: say("set_up_wrong", code, link: branch.label, settings: words.join("; ")), missing: branch.id)
    end

    # The same with the thermostat's settings put right.
    def set_right =
      @set_right ||=
        Trace.new(
          Target.rig(@fitted),
          condition.with(faults: condition.faults.reject { |fault| fault["kind"] == "set_up" })
        )

    def contact_chain(code, contact, seen)
      return [parted(code, contact)] if contact[:rest] == :closed
      if late?(contact)
        return [
          Why.new(
            says: say("contact_late", code, link: contact.label, relay: contact[:relay]),
            missing: contact.id,
            as_designed: true
          )
        ]
      end

      first = Why.new(says: say("contact_open", code, link: contact.label, relay: contact[:relay]), missing: contact.id)
      rest = solution.working?(contact[:relay]) ? [] : why_off(contact[:relay], seen + [code])
      [first, *rest]
    end

    # A normally closed contact parts because its coil works: meant so, when nobody holds it open.
    def parted(code, contact)
      working = solution.working?(contact[:relay])
      Why.new(
        says: say(working ? "contact_parted" : "open_link", code, link: contact.label, relay: contact[:relay]),
        missing: contact.id,
        as_designed: working
      )
    end

    # A contact whose coil works, but whose delay is not over.
    def late?(contact) = condition.contacts[contact.id] == "open" && solution.working?(contact[:relay])

    # A thermostat or board output that this call leaves open is no fault; a lockout is.
    def designed?(branch) =
      @positions[branch.id] == false && electronic?(branch) && !held_open?(branch) && !locked_out?(branch)
    def electronic?(branch) = %w[THERMOSTAT BOARD].include?(branch.component)
    def locked_out?(branch) = branch.id == "BOARD.compressor" && condition.board&.fetch("lockout", false)

    def held_open?(branch) = condition.faults.any? { |fault| fault["at"] == branch.id }

    def open_key(branch)
      return "locked_out" if locked_out?(branch)
      return "open_link" unless designed?(branch)

      { "BOARD.compressor" => "board_holds", "BOARD.defrost" => "board_idle", "BOARD.divert" => "board_idle" }.fetch(
        branch.id,
        "not_called"
      )
    end

    # A motor with its run winding fed and its start winding not: it hums, and its overload will trip.
    def start_winding(code)
      return unless solution.working?(code) && netlist.branch?("#{code}.start")

      Why.new(says: say("no_start", code, volts: format("%.0f", solution.volts_across(netlist["#{code}.start"]))))
    end

    def too_low(code)
      branch = netlist[code]
      volts = solution.volts_across(branch)
      if volts < Catalogue.profile.dig("reading_classes", "about_0", "high")
        return Why.new(says: say("no_supply", code))
      end

      needs = branch.behavior.works_above_volts_ac(branch, false)
      return Why.new(says: say("shorted", code, volts: format("%.1f", volts)), missing: branch.id) if needs.infinite?

      Why.new(says: say("fed_too_low", code, volts: format("%.1f", volts), needs: "#{needs.round} V"))
    end

    def say(key, code, **fields)
      title = Naming.component(code)
      Catalogue.words("why.#{key}", load: title[0].upcase + title[1..], **fields)
    end

    # A trace that this one cannot be told from, with what it takes for so, and why nobody knows.
    class Rival < Trace
      attr_reader :trait, :why

      def initialize(rig, condition, trait, why)
        super(rig, condition)
        @trait = trait
        @why = why
      end
    end
  end
end
