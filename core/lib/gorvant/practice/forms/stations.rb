# frozen_string_literal: true

module Gorvant
  module Practice
    # Trace it: the stations of a loop in order, then the first missing link by what the meter reads along it.
    class Stations
      Halt = Value.define(:id, :label, :nodes)

      def initialize(rig) = @rig = rig

      # [{ "part" => "order" or "missing", "call", "load", "fault" }]
      def asks(level, random)
        call, load =
          choices.select { |one| level > 1 || stations(*one).size <= 10 }.sample(random: random) || choices.first
        [
          { "part" => "order", "call" => call, "load" => load, "seed" => random.rand(1_000_000) },
          { "part" => "missing", "call" => call, "load" => load, "fault" => broken(call, load, random) }
        ]
      end

      def shown(ask)
        list = stations(ask["call"], ask["load"])
        head = {
          "part" => ask["part"],
          "call" => Catalogue.calls.dig(ask["call"], "title"),
          "load" => naming(ask["load"])
        }
        return head.merge("stations" => mixed(list, ask).map { |one| plain(one) }) if ask["part"] == "order"

        head.merge(
          "readings" => readings(ask),
          "links" => links(ask).map { |id, label| { "id" => id, "label" => label } }
        )
      end

      # given: { "order" => [id] } or { "link" => id }.
      def judge(ask, given)
        wrong("", "has to be an object") unless given.is_a?(Hash)
        ask["part"] == "order" ? order(ask, given["order"]) : missing(ask, given["link"])
      end

      private

      def wrong(field, problem) = raise(BadAct.new(field: "/answer#{field}", problem: problem))
      def naming(code) = Naming.component(code)
      def plain(station) = { "id" => station.id, "label" => station.label }

      # [[call, load]] of the low-voltage loads that a call runs.
      def choices
        @choices ||=
          (Outputs.calls(@rig) - %w[off]).flat_map do |call|
            trace = trace(call)
            codes =
              trace.load_codes.select { |code| trace.low_voltage?(trace.netlist[code].from) && trace.works?(code) }
            codes.map { |code| [call, code] }.select { |one| stations(*one).size.between?(5, most) }
          end
      end

      def most = Practice.numbers.dig("quiz", "most_stations")
      def trace(call, faults = []) = Trace.new(@rig, Condition.new(call: call, faults: faults))

      # Terminals, switches and the load, as one passes them from R to C.
      def stations(call, load)
        (@stations ||= {})[[call, load]] ||= begin
          trace = trace(call)
          loop = trace.loop_of(load)
          own = Halt.new(id: load, label: naming(load), nodes: [])
          out = loop.best_feeder.flat_map { |step| passed(trace, step) }
          back = loop.home.flat_map { |step| passed(trace, step) }
          [stop(trace, Assembly::HOT), *out, own, *back].compact.uniq(&:id)
        end
      end

      def passed(trace, step)
        branch = step.branch
        device = Halt.new(id: branch.id, label: Naming.code(@rig, branch.label), nodes: [step.from, step.to])
        [branch.switching? ? device : nil, stop(trace, step.to)]
      end

      def stop(trace, node)
        return nil unless node.count(".") == 1 || node == Assembly::HOME

        Halt.new(id: node, label: trace.netlist.label(node), nodes: [node])
      end

      def mixed(list, ask) = list.shuffle(random: Random.new(ask["seed"]))

      # Right by pairs: how many of two neighbors stand in the right order.
      def order(ask, given)
        list = stations(ask["call"], ask["load"])
        ids = list.map(&:id)
        unless given.is_a?(Array) && given.sort_by(&:to_s) == ids.sort
          wrong("/order", "has to be all of #{ids.size} stations, each once")
        end

        lines = list.each_with_index.map { |one, i| line(one, i, list.find { |other| other.id == given[i] }) }
        { "share" => given == ids ? 1.0 : [(in_order(given, ids) * 2) - 1, 0.0].max * 0.9, "lines" => lines }
      end

      # Part of all pairs that stand in the right order.
      def in_order(given, ids)
        pairs = given.each_index.to_a.combination(2).to_a
        pairs.count { |a, b| ids.index(given[a]) < ids.index(given[b]) } / pairs.size.to_f
      end

      def line(one, place, said)
        { "what" => (place + 1).to_s, "said" => said.label, "is" => one.label, "right" => said.id == one.id }
      end

      # --- the missing link

      def steps(call, load) = trace(call).loop_of(load).best_feeder

      def broken(call, load, random)
        branch = steps(call, load).map(&:branch).select { |one| breakable?(one) }.sample(random: random)
        { "kind" => branch.switching? ? "stuck_open" : "open", "at" => branch.id }
      end

      def breakable?(branch) =
        branch.switching? ? branch.kind != :fuse : @rig.cables.any? { |cable| branch.id.start_with?("#{cable.id}.") }

      # C to each point of the way out, as a meter of low impedance has it.
      def readings(ask)
        trace = trace(ask["call"], [ask["fault"]])
        nodes = [Assembly::HOT, *steps(ask["call"], ask["load"]).map(&:to)].uniq.select { |node| told?(trace, node) }
        nodes.map do |node|
          expected, = trace.reading(Assembly::HOME, node, "low_impedance")
          { "label" => trace.netlist.label(node), "volts_ac" => expected.volts_ac&.round(1) }
        end
      end

      def told?(trace, node) = trace.netlist.node?(node) && trace.netlist.labels.key?(node)

      def links(ask)
        steps(ask["call"], ask["load"])
          .map(&:branch)
          .select { |one| breakable?(one) }
          .to_h { |one| [one.id, one.label] }
      end

      def missing(ask, given)
        known = links(ask)
        wrong("/link", "has to be one of #{known.keys.join(", ")}") unless known.key?(given)

        is = ask["fault"]["at"]
        why = Catalogue.words("practice.missing_why", link: known.fetch(is))
        right = given == is
        lines = [
          {
            "what" => Catalogue.wording.fetch("practice.missing"),
            "said" => known[given],
            "is" => known[is],
            "right" => right,
            "why" => why
          }
        ]
        { "share" => right ? 1.0 : 0.0, "lines" => lines }
      end
    end
  end
end
