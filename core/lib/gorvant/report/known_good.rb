# frozen_string_literal: true

module Gorvant
  # A unit's readings as they were when all was well, to hold later ones against, at like conditions only: volts of the
  # low-voltage side as shares of R to C at the same place on the same day, since R to C itself follows the house; amps
  # in about the same weather. It names what has moved, and never why.
  module KnownGood
    # says: where, in which call; then, now: [low, high] in `unit`; came: "same", "moved" or "unlike"; why: of unlike.
    Line = Value.define(:says, :unit, :then, :now, :came, :why)
    KEPT = %w[volts_ac amps_ac].freeze

    class << self
      # What is kept of a visit, as JSON has it: { "on", "outdoor_degrees_f", "readings" }; nil where it read nothing
      # that could be held against another day.
      def of(record, on:)
        readings =
          record.reads.select { |read| held?(read) }.to_h { |read| [place_of(read), kept(read, record)] }.values
        readings.empty? ? nil : { "on" => on, "outdoor_degrees_f" => record.outdoor_degrees_f, "readings" => readings }
      end

      # [Line] of what both days have, in the order in which it was read today.
      def compare(kept, record)
        before = kept.fetch("readings").to_h { |one| [one["key"], one] }
        record
          .reads
          .select { |read| held?(read) }
          .reverse
          .uniq { |read| place_of(read) }
          .reverse
          .filter_map { |read| before[place_of(read)]&.then { |one| line(one, kept, read, record) } }
      end

      private

      def numbers = Catalogue.profile.fetch("known_good")

      def held?(read) =
        KEPT.include?(read.observation.function) && read.verdict != "disagrees" && !read.observation.amount&.open

      def place_of(read)
        seen = read.observation
        [seen.function, seen.from_node, seen.to_node, seen.place, seen.instrument, read.condition.call].join("|")
      end

      def kept(read, record)
        low, high = interval(read)
        share = share(read, record)
        { "key" => place_of(read), "low" => low, "high" => high, "share" => share }
      end

      def interval(read)
        seen = read.observation
        if seen.function == "amps_ac"
          off = numbers["amps_fraction"]
          return seen.amount.low * (1 - off), seen.amount.high * (1 + off)
        end

        meter = Catalogue.profile.dig("instruments", seen.instrument)
        off = (seen.amount.high * meter["accuracy_fraction"]) + meter["accuracy_volts"]
        [seen.amount.low - off, seen.amount.high + off]
      end

      # [low, high] of R to C at the place of the reading, nil where that was not read in the same visit, or the reading
      # is R to C itself, or of line voltage.
      def share(read, record)
        place = [read.observation.from_node, read.observation.to_node].compact.map { |node| node[/\A[a-z_]+/] }.uniq
        return nil unless place.size == 1 && low_voltage?(read, record)

        supply = record.reads.reverse.find { |other| supply?(other, place.first) }
        return nil if supply.nil? || supply?(read, place.first)

        under = interval(supply)
        over = interval(read)
        [[over[0], 0.0].max / under[1], over[1] / under[0]]
      end

      def supply?(read, place) =
        read.observation.function == "volts_ac" && read.observation.amount &&
          [read.observation.from_node, read.observation.to_node].compact.sort == ["#{place}.C", "#{place}.R"]

      def low_voltage?(read, record)
        home = Assembly.netlist(record.rig).sections.find { |section| section.reference == Assembly::HOME }
        [read.observation.from_node, read.observation.to_node].all? { |node| home.nodes.include?(node) }
      end

      def line(before, kept, read, record)
        return amps(before, kept, read, record) if read.observation.function == "amps_ac"

        now = share(read, record)
        return unlike(before, read, record, "no_supply") unless now && before["share"]

        told(read, record, "%", *[before["share"], now].map { |pair| pair.map { |part| (part * 100).round(1) } })
      end

      def amps(before, kept, read, record)
        then_, now = kept["outdoor_degrees_f"], record.outdoor_degrees_f
        near = then_ && now && (then_ - now).abs <= numbers["like_degrees_f"]
        return unlike(before, read, record, "weather") unless near

        told(read, record, "A", before.values_at("low", "high"), interval(read))
      end

      def told(read, record, unit, before, now)
        apart = now[0] > before[1] || now[1] < before[0]
        Line.new(says: says(read, record), unit: unit, then: before, now: now, came: apart ? "moved" : "same", why: nil)
      end

      def unlike(before, read, record, why)
        Line.new(
          says: says(read, record),
          unit: read.observation.about["unit"],
          then: before.values_at("low", "high"),
          now: interval(read),
          came: "unlike",
          why: Catalogue.words("known_good.#{why}", degrees: format("%g", numbers["like_degrees_f"]))
        )
      end

      def says(read, record)
        where = read.observation.whereabouts(Assembly.netlist(record.rig))
        "#{where}, #{Catalogue.calls.fetch(read.condition.call)["title"]}"
      end
    end
  end
end
