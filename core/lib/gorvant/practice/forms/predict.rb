# frozen_string_literal: true

module Gorvant
  module Practice
    # Predict first: which loads a call runs, what a meter reads between two points; then what the circuit says.
    class Predict
      CLASSES = %w[about_0 about_24 between ghost line].freeze
      LINE = %w[about_120 about_208 about_240].freeze

      # rig: Rig as drawn.
      def initialize(rig) = @rig = rig

      # [{ "call", "supposed", "loads", "points" }]: what is asked, call after call.
      def asks(level, random)
        calls = (Outputs.calls(@rig) - %w[off]).sample(Practice.numbers.dig("quiz", "calls"), random: random)
        calls.map do |call|
          supposed = level >= 3 ? supposed(call, random) : []
          { "call" => call, "supposed" => supposed, "points" => points(trace(call, supposed), random) }
        end
      end

      # What a learner sees of one ask.
      def shown(ask)
        trace = trace(ask["call"], ask["supposed"])
        call = Catalogue.calls.fetch(ask["call"])
        {
          "call" => ask["call"],
          "title" => call.fetch("title"),
          "supposed" => trace.fault_titles,
          "loads" => loads(trace).map { |code| { "code" => code, "title" => Naming.component(code) } },
          "points" =>
            ask["points"].map do |from, to|
              { "from" => from, "to" => to, "says" => "#{trace.netlist.label(from)} – #{trace.netlist.label(to)}" }
            end,
          "answers" => CLASSES.map { |id| { "id" => id, "title" => Catalogue.wording.fetch("practice.class_#{id}") } }
        }
      end

      # given: { "loads" => { code => true or false }, "points" => [class] }. Raises BadAct. Returns { "share" => 0..1,
      # "lines" => [{ "what", "said", "is", "right", "why", "trap" }] }.
      def judge(ask, given)
        trace = trace(ask["call"], ask["supposed"])
        said = check(given, loads(trace), ask["points"].size)
        lines =
          loads(trace).map { |code| load_line(trace, code, said["loads"].fetch(code)) } +
            ask["points"].zip(said["points"]).map { |pair, klass| points_line(trace, pair, klass) }
        { "share" => lines.count { |line| line["right"] }.to_f / lines.size, "lines" => lines }
      end

      private

      def trace(call, supposed) = Trace.new(@rig, Condition.new(call: call, faults: supposed))
      def loads(trace) = trace.load_codes

      # An open link of the call, told to the learner: what it stops has to be seen.
      def supposed(call, random)
        plain = trace(call, [])
        links = plain.load_codes.select { |code| plain.works?(code) && plain.low_voltage?(plain.netlist[code].from) }
        steps = links.flat_map { |code| plain.loop_of(code).best_feeder.to_a }.map(&:branch)
        branch = steps.select { |one| one.switching? && one.kind == :switch }.sample(random: random)
        branch ? [{ "kind" => "stuck_open", "at" => branch.id }] : []
      end

      # Pairs of which no two are alike: to common, across a link, along a wire.
      def points(trace, random)
        nodes = trace.netlist.nodes.select { |node| trace.low_voltage?(node) && terminal?(node) }
        to_common =
          nodes
            .reject { |node| node.end_with?(".C") }
            .map { |node| ["#{node.split(".").first}.C", node] }
            .select { |ends| ends.all? { |node| trace.netlist.node?(node) } }
        across =
          trace
            .netlist
            .branches
            .select { |one| one.kind == :switch && trace.low_voltage?(one.from) && one[:closed] }
            .map { [_1.from, _1.to] }
        count = Practice.numbers.dig("quiz", "points")
        (to_common.sample(count - 1, random: random) + across.sample(1, random: random)).first(count)
      end

      def terminal?(node) = node.count(".") == 1 && !node.end_with?(".chassis")

      def check(given, codes, count)
        wrong("", "has to hold loads and points") unless given.is_a?(Hash)
        loads = given["loads"]
        points = given["points"]
        unless loads.is_a?(Hash) && told?(loads, codes)
          wrong("/loads", "has to say true or false of #{codes.join(", ")}")
        end
        unless points.is_a?(Array) && points.size == count && (points - CLASSES).empty?
          wrong("/points", "has to be #{count} of #{CLASSES.join(", ")}")
        end

        given
      end

      def told?(loads, codes) = codes.all? { |code| [true, false].include?(loads[code]) } && (loads.keys - codes).empty?

      def wrong(field, problem) = raise(BadAct.new(field: "/answer#{field}", problem: problem))

      def load_line(trace, code, said)
        on = trace.works?(code)
        line = { "what" => Naming.component(code), "code" => code, "said" => on_off(said), "is" => on_off(on) }
        judged(line, said == on, trace.load_state(code).why) { Traps.load(code, trace.condition.call, said) }
      end

      def points_line(trace, pair, said)
        expected, reason = trace.reading(*pair)
        is = klass(expected)
        what = pair.map { |node| trace.netlist.label(node) }.join(" – ")
        line = { "what" => what, "nodes" => pair, "said" => class_words(said), "is" => shown_volts(expected) }
        # Where nobody has read what the answer hangs on, either is right.
        judged(line, said == is || is.nil?, reason.says) { Traps.points(said, is) }
      end

      def judged(line, right, why) = line.merge("right" => right, "why" => why, "trap" => right ? nil : yield).compact

      def klass(expected)
        return "line" if LINE.include?(expected.klass)

        CLASSES.include?(expected.klass) ? expected.klass : { "unsteady" => "between" }[expected.klass]
      end

      def shown_volts(expected)
        volts = expected.volts_ac
        if volts
          "#{format("%.1f", volts)} V, #{class_words(klass(expected))}"
        else
          Catalogue.wording.fetch("practice.either")
        end
      end

      def class_words(id) = Catalogue.wording.fetch("practice.class_#{id}")
      def on_off(flag) = Catalogue.wording.fetch(flag ? "practice.runs" : "practice.stands")
    end
  end
end
