# frozen_string_literal: true

module Gorvant
  module Practice
    # Read the panel: a diagram shows what may be fitted; the plate says what is. Strike out the rest, then name codes
    # and wires.
    class Panel
      def initialize(rig) = @rig = rig

      # [{ "part" => "strike", "names" or "wires", … }]
      def asks(_level, random)
        offered = Practice.numbers.dig("quiz", "offered_codes")
        [
          { "part" => "strike", "facts" => options.keys.sample(offered, random: random) },
          { "part" => "names", "codes" => named.sample(offered, random: random), "seed" => random.rand(1_000_000) },
          { "part" => "wires", "cable" => @rig.cables.first.id, "seed" => random.rand(1_000_000) }
        ]
      end

      def shown(ask)
        case ask["part"]
        when "strike"
          { "part" => "strike", "plate" => plate(ask), "codes" => codes(ask).map { |code| code_row(code) } }
        when "names"
          titles = ask["codes"].map { |code| Naming.component(code) }.shuffle(random: Random.new(ask["seed"]))
          { "part" => "names", "codes" => ask["codes"].map { |code| { "code" => code } }, "titles" => titles }
        else
          colors = wires(ask).values.uniq.shuffle(random: Random.new(ask["seed"]))
          { "part" => "wires", "terminals" => wires(ask).keys, "colors" => colors, "cable" => ask["cable"] }
        end
      end

      # given: { "struck" => [code] }, { "names" => { code => title } } or { "wires" => { terminal => color } }.
      def judge(ask, given)
        wrong("", "has to be an object") unless given.is_a?(Hash)
        lines =
          case ask["part"]
          when "strike"
            strike(ask, given["struck"])
          when "names"
            match(ask["codes"].to_h { |code| [code, Naming.component(code)] }, given["names"], "names")
          else
            match(wires(ask), given["wires"], "wires")
          end
        { "share" => lines.count { |line| line["right"] }.to_f / lines.size, "lines" => lines }
      end

      # The rig as the panel's diagram shows it: with all that these options bring, fitted or not.
      def diagram(asks)
        facts = asks.find { |ask| ask["part"] == "strike" }.fetch("facts")
        @rig.set(facts.to_h { |key| [key.to_sym, true] })
      end

      private

      def wrong(field, problem) = raise(BadAct.new(field: "/answer#{field}", problem: problem))

      # { fact => [codes it brings] } of what may be fitted or not.
      def options
        @options ||=
          Catalogue
            .facts
            .select { |key, about| about["kind"] == "flag" && @rig.asks?(key) }
            .keys
            .to_h { |key| [key, brought(key)] }
            .reject { |_key, codes| codes.empty? }
      end

      def brought(key)
        without, with = [false, true].map { |fitted| components(@rig.set(key.to_sym => fitted)) }
        (with - without).select { |code| Catalogue.components.key?(code) }
      rescue BadRig, UnknownNode, UnknownBranch
        []
      end

      def components(rig) = Assembly.netlist(rig).branches.filter_map { |branch| branch.component&.to_s }.uniq
      def fitted = @fitted ||= components(@rig)
      def named = fitted.select { |code| Catalogue.components.key?(code) }

      def plate(ask) =
        ask["facts"].map do |key|
          { "says" => Catalogue.facts.fetch(key).fetch("title"), "fitted" => @rig[key.to_sym] == true }
        end

      # What the diagram shows: all that these options bring, and some that is always there.
      def codes(ask) =
        (
          ask["facts"].flat_map { |key| options.fetch(key) } +
            %w[CC COMP OFM RVS].select { |code| fitted.include?(code) }
        ).uniq.sort
      def code_row(code) = { "code" => code, "title" => Naming.component(code) }

      def strike(ask, struck)
        known = codes(ask)
        unless struck.is_a?(Array) && (struck - known).empty?
          wrong("/struck", "has to be a list of #{known.join(", ")}")
        end

        known.map do |code|
          said = struck.include?(code) ? "practice.struck" : "practice.fitted"
          is = fitted.include?(code) ? "practice.fitted" : "practice.struck"
          { "what" => code, "said" => words(said), "is" => words(is), "right" => said == is }
        end
      end

      def words(key) = Catalogue.wording.fetch(key)

      # { terminal => color } of a cable at its lower end, where one wire lands.
      def wires(ask)
        cable = @rig.cables.find { |one| one.id == ask["cable"] }
        cable
          .conductors
          .reject(&:spare)
          .group_by(&:to)
          .select { |_terminal, all| all.one? }
          .to_h { |terminal, all| [terminal, Catalogue.colors.dig(all.first.color, "title") || all.first.color] }
      end

      def match(right, given, field)
        unless given.is_a?(Hash) && given.keys.sort == right.keys.sort && given.values.all?(String)
          wrong("/#{field}", "has to name each of #{right.keys.join(", ")}")
        end

        right.map do |key, is|
          { "what" => key, "said" => given.fetch(key), "is" => is, "right" => given.fetch(key) == is }
        end
      end
    end
  end
end
