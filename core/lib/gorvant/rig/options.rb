# frozen_string_literal: true

module Gorvant
  # What a unit may have or not, by the entries of options.yml: who draws, names, moves or wires an option asks here.
  module Options
    class << self
      # [code] of the switches that a string may have, in the order of the entries.
      def string(name) = select { |about| about["string"] == name }

      # [code] that a fact of their own says is fitted.
      def own = select { |about| about["fact"] }
      def fact(code) = Catalogue.options.fetch(code).fetch("fact")

      # { fact => [code] } of what panels print whether it is fitted or not, where leaving it out changes nothing else.
      def on_panels = select { |about| about["panel"] }.group_by { |code| fact(code) }

      # [code] at line or at low voltage.
      def line = select { |about| about["line"] }
      def low = select { |about| !about["line"] }

      # [code] of loads that hang between two points, and that is all there is to them.
      def across = select { |about| about["across"] }
      # Their two points: [feed, home].
      def points(code) = Catalogue.options.fetch(code).fetch("across")

      # { code => { share, behind, port } } of switches that open for a reason of their own: every safety does.
      def opens
        Catalogue.options.filter_map { |code, about| [code, opening(about)] if opening(about) }.to_h
      end

      def switches = select { |about| about["component"]["kind"] == "switch" }

      # Whether a rig has it.
      def fitted?(rig, code)
        about = Catalogue.options.fetch(code)
        return rig[about["string"].to_sym].include?(code) if about["string"]

        key = about.fetch("fact")
        ![false, "none", nil].include?(rig[key.to_sym]) && asked?(rig, key)
      end

      private

      def opening(about)
        return about["opens"] if about["opens"] || about["string"] != "safeties"

        { "share" => Catalogue.diagnosis.fetch("opened_share"), "behind" => about["component"].fetch("does") }
      end

      def select = Catalogue.options.filter_map { |code, about| code if yield about }

      # Whether the question makes sense for what else is fitted.
      def asked?(rig, key)
        Catalogue
          .facts
          .fetch(key)
          .fetch("when", {})
          .all? { |other, values| Array(values).map(&:to_s).include?(rig[other.to_sym].to_s) }
      end
    end
  end
end
