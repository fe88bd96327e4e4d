# frozen_string_literal: true

require_relative "signals"

module Gorvant
  class Run
    # Writes down what changes, and because of what. What flips back within one instant while all come to rest is not
    # worth a line; a defrost that ends as it begins is.
    class Recorder
      Draft = Struct.new(:signal, :value, :says, :because, :rule, :rule_says, :as_designed, :until_seconds)
      CURVES = {
        "coil" => %w[coil °F],
        "outdoor" => ["outdoor air", "°F"],
        "room" => %w[room °F],
        "pressure" => ["pressure difference", "psi"],
        "clock" => ["defrost count", "min"],
        "frost" => ["frost on the coil, modelled", "kg"]
      }.freeze
      CONTROLLER_KEYS = %w[call hold lockout defrost turn valve].freeze
      FLIPS = %w[defrost APS].freeze

      attr_reader :standing

      def initialize(rig, cast)
        @rig = rig
        @signals = Signals.new(rig, Assembly.netlist(rig), cast)
        @thermal = cast.thermal # these have their own reasons
        @values = {}
        @steps = Hash.new { |hash, key| hash[key] = [] }
        @events = []
        @drafts = []
        @instants = []
        @conditions = {}
        @standing = Hash.new { |hash, key| hash[key] = [] }
        @findings = []
        @cold_strips = false
        @found_now = []
        @found_before = []
        turn_against_hold
      end

      def count = @events.size
      def state = @values.dup

      # [title] of the signals that are not alike in all of these states.
      def restless(states) =
        @values.keys.select { |id| states.map { |state| state[id] }.uniq.size > 1 }.map { |id| @signals.title(id) }

      # A move of the script; returns its place in the list.
      def script(_now, move)
        of = move.of.is_a?(Hash) ? Fault.parse(move.of).title(Assembly.netlist(@rig)) : Array(move.of).join(" to ")
        value = script_value(move)
        says =
          Catalogue.words(
            "event.script_#{%w[switch supply fault jumper].include?(move.what) ? "of" : "set"}",
            what: move.what.tr("_", " "),
            of: of,
            value: value
          )
        draft("script.#{move.what}", move.value, says, nil, Controller::Reason.new(rule: "script"))
      end

      def script_value(move)
        return "#{format("%g", move.value)} °F" if move.value.is_a?(Numeric)

        move.what == "call" ? Catalogue.calls.fetch(move.value)["title"].downcase : move.value
      end

      # What the controllers put out, with their reasons.
      def outputs(now, outputs, reasons, causes)
        reasons.each { |key, reason| stand_reason(key, now, reason) }
        CONTROLLER_KEYS.each do |key|
          change(key, outputs[key], reasons[key], causes) if outputs.key?(key) && @signals[key]
        end
        closed = outputs.fetch("outputs", [])
        @signals.all.each_value do |about|
          case about.kind
          when "output"
            change(about.id, closed.include?(about.id.split(".").last), reasons[about.id], causes)
          when "contact"
            change(about.id, outputs[about.id], reasons[about.id], causes)
          when "switch"
            change(about.id, outputs[about.id], reasons[about.id], causes) if outputs.key?(about.id)
          end
        end
      end

      # What the circuit makes of it, causes before what they led to.
      def circuit(_now, circuit, causes)
        found = (@readings ||= {}.compare_by_identity)[circuit.solution] ||= readings(circuit)
        return if found.equal?(@read)

        @read = found
        notice(circuit.findings)
        note(found.reject { |id, value| @values.key?(id) && @values[id] == value }, circuit, causes)
      end

      # All is at rest: keeps what is otherwise than before the instant.
      def stand(now, before, condition)
        beginning = @instants.empty?
        kept = keep(now, before) unless beginning
        @values.each { |id, value| @steps[id] << [now, value] if @steps[id].empty? || @steps[id].last[1] != value }
        @drafts = []
        strips(now)
        @found_now.each do |finding|
          @findings << Timeline::Noticed.new(seconds: now, finding: finding) unless @found_before.include?(finding.code)
        end
        @found_before = @found_now.map(&:code)
        index = @conditions[condition] ||= @conditions.size
        @instants.pop if @instants.last&.first == now
        @instants << [now, index] if @instants.empty? || @instants.last[1] != index || kept
      end

      def timeline(script, history)
        Timeline.new(
          rig: @rig,
          script: script,
          events: @events,
          findings: @findings,
          instants: @instants,
          conditions: @conditions.keys,
          standing: @standing,
          signals:
            @signals
              .all
              .values
              .select { |about| @steps.key?(about.id) }
              .map do |about|
                Timeline::Signal.new(id: about.id, title: about.title, group: about.group, steps: @steps[about.id])
              end,
          curves:
            CURVES.map do |id, (title, unit)|
              Timeline::Curve.new(id: id, title: title, unit: unit, points: history.fetch(id))
            end
        )
      end

      private

      def stand_reason(key, now, reason)
        list = @standing[key]
        return if list.any? && list.last[1] == reason

        list.pop if list.any? && list.last[0] == now
        list << [now, reason]
      end

      def note(changed, circuit, causes)
        waiting = @instants.empty? ? {} : changed.select { |id, _value| @values.key?(id) }
        @values.merge!(changed)
        led = waiting.to_h { |id, _value| [id, cause(id, circuit, waiting)] }
        until waiting.empty?
          id = waiting.keys.find { |one| !waiting.key?(led[one]) } || waiting.keys.first
          because = (latest(led[id]) if led[id]) || own_cause(id, causes) || causes["fault"] || causes["jumper"]
          draft(id, waiting.delete(id), @signals.says(id, @values[id]), because, nil)
        end
      end

      # { signal id => value } of all that the circuit decides.
      def readings(circuit)
        condition = circuit.condition
        @signals
          .all
          .each_value
          .with_object({}) do |about, found|
            case about.kind
            when "supply"
              found[about.id] = condition.supplies.fetch(about.id, true)
            when "switch"
              found[about.id] = circuit.closed?(about.id) unless @thermal.include?(about.id)
            when "fuse"
              found[about.id] = circuit.closed?(about.id)
            when "node"
              found[about.id] = circuit.live?(about.id)
            when "load"
              found[about.id] = circuit.works?(about.id)
            when "speed"
              found[about.id] = speed(circuit)
            end
          end
      end

      # A blower board with a Y input runs faster when Y is live.
      def speed(circuit)
        return "off" unless circuit.works?("BLOWER")

        circuit.live?("air_handler.Y") ? "high" : "low"
      end

      def change(id, value, reason, causes)
        value = false if value.nil?
        return if @values[id] == value && @values.key?(id)

        first = !@values.key?(id)
        @values[id] = value
        return if first && @instants.empty?

        draft(id, value, @signals.says(id, value), from(reason) || own_cause(id, causes), reason)
      end

      def from(reason) = reason&.from && latest(reason.from)
      # The move of the script that a signal follows at once.
      def own_cause(id, causes) = causes[id] || (["call", *@thermal].include?(id) ? causes.values.last : nil)

      def draft(signal, value, says, because, reason)
        rule = reason && Catalogue.sequence.fetch(reason.rule)
        @drafts << Draft.new(
          signal,
          value,
          says,
          because,
          reason&.rule,
          rule && format(rule["says"], reason.fields),
          rule ? rule["as_designed"] : nil,
          reason&.until_seconds
        )
        @events.size + @drafts.size - 1
      end

      # The newest event of a signal, this instant's included.
      def latest(id)
        here = @drafts.rindex { |draft| [id, "script.#{id}"].include?(draft.signal) }
        return @events.size + here if here

        @latest&.[](id)
      end

      # The signal that led to a change of the circuit, or nil: of what its ways lead through, what changed last; a
      # change of this very instant counts as later than any before.
      def cause(id, circuit, waiting)
        movers = (@signals[id].kind == "load" ? load_movers(id, circuit) : node_movers(id)) - [id]
        movers.find { |mover| waiting.key?(mover) } ||
          movers.select { |mover| latest(mover) }.max_by { |mover| latest(mover) }
      end

      def load_movers(id, circuit)
        return [] unless @signals[id].kind == "load"

        loop = circuit.loop_of(id)
        on = @values[id]
        steps = on ? (loop.best_feeder || []) : loop.feeders.flatten(1).select(&:open?)
        home = loop.home || []
        (steps + (on ? home : home.select(&:open?)))
          .map(&:branch)
          .select(&:switching?)
          .uniq
          .flat_map { |branch| @signals.movers(branch) }
          .uniq
      end

      # By what can feed a point.
      def node_movers(id)
        letter = id.split(".").last
        case id
        when "blower_speed"
          %w[BLOWER THERMOSTAT.Y]
        when "outdoor.board.T1"
          %w[hold lockout turn] + @rig[:safeties] + ["THERMOSTAT.Y"]
        when "outdoor.W2_out", "air_handler.W"
          %w[DFR lockout ODT THERMOSTAT.W1 THERMOSTAT.W2 THERMOSTAT.E]
        when /\./
          %W[THERMOSTAT.#{letter} THERMOSTAT.OB DFR]
        else
          return []
        end + ["FU", *Condition::SUPPLIES]
      end

      def keep(now, before)
        lasting = @drafts.each_index.select { |i| lasts?(i, before) }
        base = @events.size
        place = lasting.each_with_index.to_h { |draft, i| [base + draft, base + i] }
        lasting.each { |i| @events << event(@drafts[i], now, cause_of(@drafts[i].because, base, place)) }
        @latest ||= {}
        @events.drop(base).each { |event| @latest[event.signal.delete_prefix("script.")] = event.id }
        lasting.any?
      end

      # A script's move lasts; a signal's last change does, where it is not back to where it was.
      def lasts?(index, before)
        draft = @drafts[index]
        return true if draft.signal.start_with?("script.") || FLIPS.include?(draft.signal)

        @drafts.rindex { |other| other.signal == draft.signal } == index && before[draft.signal] != draft.value
      end

      # Through causes that did not last to one that did.
      def cause_of(id, base, place)
        id = @drafts[id - base].because while id && id >= base && !place.key?(id)
        id && (place[id] || id)
      end

      def event(draft, now, because)
        Timeline::Event.new(
          id: @events.size,
          seconds: now,
          signal: draft.signal,
          value: draft.value,
          says: draft.says,
          because: because,
          rule: draft.rule,
          rule_says: draft.rule_says,
          as_designed: draft.as_designed,
          until_seconds: draft.until_seconds
        )
      end

      # Faults that the circuit's own rules find are noticed when they begin.
      def notice(findings) = @found_now = findings.select(&:fault?)

      # Strips that are fed while no air moves.
      def strips(now)
        cold = (@values["HTR"] || @values["HTR2"] || false) && !@values["BLOWER"]
        if cold && !@cold_strips
          @findings << Timeline::Noticed.new(seconds: now, finding: Finding.of("strips_without_blower"))
        end
        @cold_strips = cold
      end

      def turn_against_hold
        unless @rig[:y_path] == "delay" && @rig[:defrost_turn] == "drops" &&
                 @rig[:board_hold_seconds] > @rig[:defrost_turn_seconds]
          return
        end

        @findings << Timeline::Noticed.new(
          seconds: 0.0,
          finding:
            Finding.of(
              "turn_against_hold",
              hold: format("%g", @rig[:board_hold_seconds]),
              turn: format("%g", @rig[:defrost_turn_seconds])
            )
        )
      end
    end
  end
end
