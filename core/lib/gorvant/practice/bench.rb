# frozen_string_literal: true

module Gorvant
  module Practice
    # A free bench on a hidden unit. Every act takes bench minutes, in which the unit runs on as a tape has it: holds,
    # delays, defrosts and thermostat act in it. A pure function of drill, Standing and Act.
    class Bench
      # standing: after the act; says: what was seen or read, in words; data: { fields of it }; stopped: Unsafe::Stop or
      # nil; observation, condition, stopped_minutes: as Find would be told of it, nil where it tells nothing; also:
      # [place, choice] of what the same look tells of a wait that is over, or nil.
      Outcome =
        Value.define(
          :standing,
          :says,
          :data,
          :stopped,
          :observation,
          :condition,
          :stopped_minutes,
          :also,
          defaults: {
            also: nil,
            data: {}.freeze,
            stopped: nil,
            observation: nil,
            condition: nil,
            stopped_minutes: nil
          }
        )

      LET_GO = 0.5 # seconds after the relay is heard
      JOINED_OHMS = 0.4 # wire, closed contacts and leads

      attr_reader :drill

      def initialize(drill)
        @drill = drill
        @truth = drill.truth
        @rig = @truth.rig(drill.rig)
        @drawn = Assembly.netlist(drill.rig)
        @situation = drill.situation
        @unsafe = Unsafe.new(drill, @situation)
        @ports = Diagnosis.ports
        @costs = Diagnosis.numbers.fetch("minutes").merge(Practice.numbers.fetch("minutes"))
      end

      # As a learner comes to it: the call that is complained of is set, and has been for a while.
      def start = Standing.new(call: first_call, began: first_call)

      # Whether a fault lies in a part.
      def self.of_part?(fault, part)
        at = fault["at"]
        at.is_a?(String) && (at == part || at.start_with?("#{part}.")) && fault["kind"] != "set_up"
      end

      # Outcome of an act. Raises BadAct.
      def take(standing, act)
        check_room(standing)
        stop = @unsafe.of(act, standing) { unit(standing) }
        return stopped(standing, stop) if stop

        public_send(act.kind, standing, act)
      rescue ZeroTimeLoop, BadScript
        raise BadAct.new(field: "/act", problem: "cannot be run on this unit; take it back and try another")
      end

      # The Standing after acts that were taken before.
      def after(acts) = acts.inject(start) { |standing, act| take(standing, act).standing }

      # The hidden unit as it stands now.
      def unit(standing)
        seconds = lead + standing.seconds
        UnitAt.new(@rig, timeline(standing), seconds, @truth, standing.seconds)
      end

      # --- acts

      def call(standing, act)
        about = Catalogue.calls.fetch(act["value"])
        cost = @costs["call"] + (about["aux"] || about["stage"] > 1 ? @costs["second_call"] : 0.0)
        now = standing.at("wall", cost)
        told(now.moved("call", act["value"]).with(call: act["value"]), "call", title: about.fetch("title"))
      end

      def wait(standing, act)
        told(standing.at(nil, act["minutes"]), "wait", minutes: format("%g", act["minutes"]))
      end

      def supply(standing, act)
        now = standing.at(act["of"], @costs["supply"])
        off = act["value"] == "off" ? standing.off | [act["of"]] : standing.off - [act["of"]]
        now = now.moved("supply", act["value"], of: act["of"]).with(off: off, proved: false)
        told(now, "supply", place: @drill.rig.place_title(act["of"]), value: act["value"])
      end

      # With a meter checked on a live source before and after: costs nothing, and tells what is so.
      def prove_dead(standing, _act)
        dead = unit(standing).solution.working.values.none? && standing.dead?
        says = Catalogue.wording.fetch(dead ? "practice.dead" : "practice.not_dead")
        Outcome.new(standing: standing.with(proved: dead, acts: standing.acts + 1), says: says, data: { dead: dead })
      end

      def volts(standing, act)
        line = act.nodes.any? { |node| !@situation.low?(node) }
        now = opened(standing, place_of(act["to"]), line ? @costs["line_volts"] : @costs["volts"])
        instrument = act["instrument"] || "high_impedance"
        value = shown(unit(now).volts(act["from"], act["to"], instrument), now)
        given = { "function" => "volts_ac", "from_node" => act["from"], "to_node" => act["to"], "value" => value }
        read(now, given.merge("instrument" => instrument), value && format("%.1f V", value), value: value)
      end

      def ohms(standing, act)
        now = opened(standing, place_of(act["to"]), @costs["ohms"])
        ohms = ohms_of(act, now)
        value = ohms&.finite? ? ohms * (1 + noise(now, "ohms_fraction")) : nil
        given = { "function" => "ohms", "from_node" => act["from"], "to_node" => act["to"], "instrument" => "ohmmeter" }
        given["isolated"] = true if act["isolated"]
        given.merge!(value ? { "value" => value.round(2) } : { "open" => true })
        read(now, given, value ? "#{format(value < 10 ? "%.1f" : "%.0f", value)} Ω" : "OL", value: value)
      end

      def look(standing, act)
        place = act["place"]
        minutes = Diagnosis.numbers.dig("by_hand", place, "minutes") || @costs[place] || @costs["seen"]
        minutes = @costs["port"] if @ports.include?(place)
        minutes = Diagnosis.numbers.dig("fuse_lamp", place, "minutes") || minutes
        now = standing.at(Practice.numbers.dig("looks", place), minutes)
        choice = seen(place, now)
        return told(now, "untold") unless choice

        words = Observation.functions.dig("seen", "choices", choice)
        outcome = read(now, { "function" => "seen", "place" => place, "choice" => choice }, words, choice: choice)
        waited = waited_for(place, now)
        waited ? outcome.with(also: [waited, choice]) : outcome
      end

      # What stands set at the thermostat, on the board's jumper, on the plates.
      def settings(standing, act)
        fact = act["fact"]
        wall = Catalogue.facts.fetch(fact)["group"] == "settings"
        now = standing.at(wall ? "wall" : "outdoor", @costs["fact"])
        value = @rig[fact.to_sym]
        given = { "function" => "looked_up", "place" => fact, "choice" => value }
        read(now, given, Comparison.words(fact, value), choice: value)
      end

      def landings(standing, act)
        now = opened(standing, act["place"], @costs["landings"])
        found = unit(now).landings(act["place"])
        rows = found.map { |joint, node| { "joint" => joint, "on" => node && @drawn.label(node) } }
        as_drawn = found.all? { |joint, node| node == (@drawn.branch?(joint) ? @drawn[joint].from : nil) }
        as_drawn &&= touching(unit(now), act["place"]).empty?
        choice = as_drawn ? "as_drawn" : "otherwise"
        given = { "function" => "seen", "place" => "wires_#{act["place"]}", "choice" => choice }
        read(now, given, nil, rows: rows, touching: touching(unit(now), act["place"]))
      end

      # A thermistor's pair in its own plug, by this unit's table.
      def sensor(standing, act)
        now = standing.at("outdoor", @costs["sensor"])
        unit = unit(now)
        sensed = Sensed.through(unit.condition.faults, coil: unit.degrees("coil"), air: unit.degrees("outdoor"))
        degrees = sensed.public_send(Sensed::SENSORS.fetch(act["of"]))
        return told(now, "sensor_out", value: open_sensor?(unit, act["of"]) ? "OL" : "0 Ω") unless degrees

        table = ThermistorTable.all.first
        ohms = table.ohms_at(degrees.clamp(table.low_degrees_f, table.high_degrees_f))
        told(now, "sensor", ohms: format("%.0f", ohms), degrees: format("%.0f", degrees))
      end

      def degrees(standing, act)
        place = act["place"]
        now = standing.at(Practice.numbers.dig("degrees", place), @costs["degrees"])
        curve = place == "coil_switch_pipe" ? "coil" : "outdoor"
        value = unit(now).degrees(curve) + noise(now, "degrees_f")
        given = { "function" => "degrees_f", "place" => place, "value" => value.round(1) }
        read(now, given, "#{format("%.0f", value)} °F", value: value.round(1))
      end

      # How long the compressor has stood: heard, or asked of whoever lives there.
      def since_stop(standing, _act)
        now = standing.at(nil, @costs["minutes"])
        minutes = unit(now).stopped_minutes
        return told(now, minutes_unknown(now)) unless minutes

        given = { "function" => "minutes", "place" => "since_stop", "value" => minutes.round(1) }
        read(now, given, Catalogue.words("practice.stopped", minutes: format("%.1f", minutes)), value: minutes.round(1))
      end

      def lift(standing, act)
        now = opened(standing, act["joint"].split("@").last, @costs["lift"] / 2)
        return told(standing, "lifted_already") if standing.lifted.include?(act["joint"])

        now = now.moved("fault", "begins", of: lifted(act["joint"])).with(lifted: standing.lifted + [act["joint"]])
        told(now, "lifted")
      end

      def land(standing, act)
        return told(standing, "landed_already") unless standing.lifted.include?(act["joint"])

        now = opened(standing, act["joint"].split("@").last, @costs["lift"] / 2)
        now = now.moved("fault", "ends", of: lifted(act["joint"])).with(lifted: standing.lifted - [act["joint"]])
        told(now, "landed")
      end

      def jumper(standing, act)
        now = opened(standing, place_of(act["to"]), @costs["jumper"])
        told(now.moved("jumper", "on", of: act.nodes).with(jumpers: standing.jumpers + [act.nodes]), "jumpered")
      end

      def unjumper(standing, act)
        pair = standing.jumpers.find { |ends| ends.sort == act.nodes.sort }
        raise BadAct.new(field: "/act/from", problem: "has no jumper of yours to take off") unless pair

        now = opened(standing, place_of(act["to"]), @costs["jumper"]).moved("jumper", "off", of: pair)
        told(now.with(jumpers: standing.jumpers - [pair]), "unjumpered")
      end

      # The coil switch's pins joined where the board has them, and the test pins bridged for as long as it takes.
      def force(standing, _act)
        now = opened(standing, "outdoor", 0.0)
        pins = jumpered_pins
        now = now.moved("jumper", "on", of: pins).with(jumpers: now.jumpers | [pins]) if pins
        now = bridged(now.moved("bridge", "on"))
        now = now.at("outdoor", @costs["force"] / 2)
        choice = forced(now)
        condition = { call: "heat", coil: true }
        read(
          now,
          { "function" => "seen", "place" => "forced_defrost", "choice" => choice },
          nil,
          choice: choice,
          on: condition
        )
      end

      def unforce(standing, _act)
        pins = jumpered_pins
        now = standing.at("outdoor", @costs["jumper"])
        return told(now, "unforced") unless pins && now.jumpers.include?(pins)

        told(now.moved("jumper", "off", of: pins).with(jumpers: now.jumpers - [pins]), "unforced")
      end

      # A new part in: what was wrong with it is gone. Dear, and counted where it was sound.
      def swap(standing, act)
        now = standing.at(@drawn.branches.find { |branch| branch.component.to_s == act["part"] }.from[/\A\w+/], 0.0)
        now = now.at(nil, @costs["swap"]).with(acts: standing.acts + 1, parts: standing.parts + [act["part"]])
        mended = @truth.faults.select { |fault| self.class.of_part?(fault, act["part"]) }
        told(mended.inject(now) { |so_far, fault| so_far.moved("fault", "ends", of: fault) }, "swapped")
      end

      private

      def lead = Practice.numbers["lead_seconds"]

      def check_room(standing)
        most = Practice.numbers.fetch("most")
        return if standing.acts < most["acts"] && standing.seconds < most["bench_minutes"] * 60

        raise BadAct.new(field: "/act", problem: "the bench closes after #{most["acts"]} acts, or a day: decide")
      end

      def timeline(standing)
        moves = standing.moves
        return @timeline if @timeline && @moves == moves && @timeline.duration_seconds >= lead + standing.seconds + 1

        @moves = moves
        # Some way ahead, so that the next readings need no new run.
        @timeline = Run.of(@rig, Script.parse(script(moves), lead + standing.seconds + 600.0))
      end

      # Before the learner came: the call, with what is wrong already so; where a hold is what there is to see, a
      # safety has just tripped and closed again.
      def script(moves)
        before = [{ "at_seconds" => 0.0, "what" => "call", "value" => first_call }, *@truth.moves(lead), *trip]
        mine = moves.map { |move| move.merge("at_seconds" => lead + move["at_seconds"]) }
        { "start" => { "outdoor_degrees_f" => @drill.outdoor_degrees_f }, "moves" => in_order(before + mine) }
      end

      def first_call
        call = @drill.symptoms.filter_map { |id| Catalogue.symptoms.dig(id, "opens", "call") }.first || "heat"
        call = "heat" if call == "defrost"
        Outputs.calls(@drill.rig).include?(call) && @situation.allowed?(call) ? call : "off"
      end

      def trip
        return [] unless @truth.hypotheses.any? { |one| one.turns["board"] == "hold" }

        code = (Assembly::Positions.movable(@rig) & Options.string("safeties")).first or return []
        at = lead - Practice.numbers["tripped_seconds"]
        [[at, "open"], [at + 2.0, "free"]].map do |seconds, value|
          { "at_seconds" => seconds, "what" => "switch", "of" => code, "value" => value }
        end
      end

      def in_order(moves) = moves.each_with_index.sort_by { |move, i| [move["at_seconds"], i] }.map(&:first)

      def place_of(node) = node.split(".").first.then { |place| place == "panel" ? "air_handler" : place }

      # The panel of a place is off from the first reading there.
      def opened(standing, place, minutes)
        place = "air_handler" unless @drill.rig.layout.fetch("places").key?(place)
        panel = place == "wall" || standing.opened.include?(place) ? 0.0 : @costs["panel"]
        standing.at(place, minutes + panel).with(opened: standing.opened | [place])
      end

      def lifted(joint) = { "kind" => "lifted", "at" => joint }

      def jumpered_pins
        @drill.rig[:sensing] == "coil_switch" && Moments::PINS.all? { |node| @drawn.node?(node) } ? Moments::PINS : nil
      end

      # The pins are let go as soon as it goes in, or when the longest interval would have run out.
      def bridged(now)
        begun = timeline(now).next_event("defrost", lead + now.seconds, true)&.seconds
        held = @drill.rig[:forced_entry] == "held_pins" ? @drill.rig[:forced_entry_hold_seconds] + 2.0 : nil
        seconds =
          held || [begun && (begun - lead - now.seconds + LET_GO), Practice.numbers["force_seconds"]].compact.min
        now.at("outdoor", seconds / 60.0).moved("bridge", "off").with(acts: now.acts)
      end

      def forced(now)
        unit = unit(now)
        return "goes_dead" if unit.condition.faults.any? { |fault| fault["at"] == "FU" }

        unit.defrosting? && unit.body.works?("DFR") ? drawn_choice(unit.body.gone_in, now) : "stays_out"
      end

      # What a person finds at a place now, nil where it cannot be told.
      def seen(place, now)
        unit = unit(now)
        case place
        when "ice"
          drawn_choice(@truth.codes["ice"], now)
        when /\Afuse_lamp/
          lamp(place, now)
        when "coil_switch_watched"
          watched(now)
        when *@ports
          @truth.whole.senses["port"] == place && @truth.there?(now.seconds) ? "past" : "inside"
        else
          unit.body.look(place).then { |choice| choice == Diagnosis::Scale::UNKNOWN ? nil : choice }
        end
      end

      # A coil switch on a cold coil over half an hour.
      def watched(now)
        return "stays_closed" unless @truth.there?(now.seconds)

        open = @truth.faults.any? { |fault| fault["at"] == "DFT" && fault["kind"] == "stuck_open" }
        @truth.whole.senses["watched"] || (open ? "stays_open" : "stays_closed")
      end

      # Of a lamp in place of the fuse, as the steady circuit has it in this call; nil of a drill that was made without.
      def lamp(place, now)
        code = @truth.codes["seen|#{now.call}|#{place}|person"]
        code && !@truth.there?(now.seconds) ? "not_full" : code
      end

      # Of what the truth leaves open, by the odds that the trade gives it.
      def drawn_choice(code, now)
        odds = Diagnosis.numbers.fetch("choices")[code] or return code
        aim = random(now).rand
        odds.find { |_answer, share| (aim -= share) <= 0 }&.first || odds.keys.first
      end

      # Terminals at a place that something joins which is not drawn.
      def touching(unit, place)
        unit.condition.faults.filter_map do |fault|
          ends = Array(fault["at"])
          next unless fault["kind"] == "short" && ends.all? { |node| node.start_with?("#{place}.") }
          next if ends.any? { |node| node.include?(".cable_") }

          ends.map { |node| @drawn.label(node) }
        end
      end

      def open_sensor?(unit, code) =
        unit.condition.faults.any? { |fault| fault["at"] == code && %w[sensor_open open].include?(fault["kind"]) }

      # The wait that is over when one looks at a contactor, or at strips: then what is seen speaks for itself.
      def waited_for(place, now)
        unit = unit(now)
        case place
        when "contactor"
          called = Catalogue.calls.fetch(now.call)["stage"].positive? && @rig[:y_path] == "delay"
          "after_the_wait" if called && (unit.stopped_minutes || 1e9) * 60 >= @rig[:board_hold_seconds]
        when "strips"
          "after_a_minute" if unit.live_minutes("air_handler.W").to_f >= @costs["sequencer"]
        end
      end

      # --- what a meter shows

      # A part by itself is what the fault made of it, whatever else is on; in the circuit, what the circuit gives.
      def ohms_of(act, now)
        code = act["isolated"] && @truth.there?(now.seconds) ? isolated_code(act) : nil
        winding = code && winding_ohms(act)
        case code
        when "open"
          Float::INFINITY
        when "joined"
          JOINED_OHMS
        when "shorted"
          winding * Catalogue.evidence.dig("ohms", "short_fraction") / 2
        when "winding"
          winding
        else
          unit(now).ohms(act["from"], act["to"], act["isolated"] == true)
        end
      end

      def isolated_code(act)
        ends = act.nodes.sort
        id = @truth.codes.keys.find { |key| key.start_with?("ohms|") && key.split("|")[-3, 2].sort == ends }
        id && @truth.codes.fetch(id)
      end

      def winding_ohms(act)
        between =
          @drawn.branches_at(act["from"]).find { |one| one.kind == :coil && one.other_end(act["from"]) == act["to"] }
        between ? between[:winding_ohms] : JOINED_OHMS
      end

      # Volts as they stand on the meter, nil where nothing ties the two supplies together and it wanders.
      def shown(expected, now)
        return 0.0 if expected.nil? # the point is not there: the probe touches nothing
        return nil if expected.volts_ac.nil?
        return random(now).rand(expected.low_volts_ac..expected.high_volts_ac).round(1) if expected.klass == "unsteady"

        (expected.volts_ac * (1 + noise(now, "volts_fraction"))).round(1).abs
      end

      def noise(now, name) = Practice.numbers.dig("noise", name) * ((random(now).rand * 2) - 1)
      def random(now) = Random.new((@drill.seed * 1009) + now.acts)

      def minutes_unknown(now) = unit(now).body.compressor? ? "runs_now" : "stopped_long"

      # --- words

      def told(standing, key, **fields)
        Outcome.new(standing: standing, says: Catalogue.words("practice.#{key}", **fields))
      end

      def read(standing, given, says, on: nil, **data)
        unit = unit(standing)
        observation = Observation.parse(given, drawn_trace) unless data.key?(:value) && data[:value].nil? &&
          !given["open"]
        Outcome.new(
          standing: standing,
          says: says || (observation ? observation.says : Catalogue.wording.fetch("practice.wanders")),
          data: data,
          observation: observation,
          condition: condition(standing, unit, on),
          stopped_minutes: unit.stopped_minutes
        )
      end

      # What a technician would note of how things stand: the call, or the defrost that is seen; a wire that is off.
      def condition(standing, unit, on)
        call = unit.defrosting? && !on ? "defrost" : standing.call
        Condition.new(
          call: call,
          outdoor_degrees_f: @drill.outdoor_degrees_f.to_f,
          faults: standing.lifted.map { |joint| lifted(joint) } + jumpers(standing),
          supplies: standing.off.to_h { |supply| [supply, false] }
        )
      end

      # What the pins of a forced defrost are for is told by the defrost itself.
      def jumpers(standing) = (standing.jumpers - [Moments::PINS]).map { |ends| { "kind" => "short", "at" => ends } }

      def drawn_trace = @drawn_trace ||= Trace.new(@drill.rig, Condition.new(call: "off"))

      def stopped(standing, stop)
        Outcome.new(standing: standing.with(acts: standing.acts + 1), says: stop.says, stopped: stop)
      end
    end
  end
end
