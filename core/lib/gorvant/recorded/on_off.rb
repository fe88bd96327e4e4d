# frozen_string_literal: true

module Gorvant
  # From which value on a column counts as on, found from its own values: the gap above what idles, or else the cut that
  # leaves most of the variance between two groups. over: nil where the column shows one group only; then always:
  # whether it was on all the time. low, high: middles of the groups. Source: docs/sources.md, two-clusters.
  OnOff = Value.define(:over, :low, :high, :always)

  class OnOff
    # values: a sample, NaN for gaps. unit: "A" or "V" or nil, for what counts as idle.
    def self.of(values, unit: nil)
      numbers = Catalogue.recorded.fetch("on_off")
      sorted = values.reject(&:nan?).sort
      return new(over: nil, low: 0.0, high: 0.0, always: false) if sorted.empty?

      cut = idle_gap(sorted, numbers) || cut(sorted)
      idle = numbers.fetch(unit == "V" && sorted.last > 1.5 ? "idle_volts" : "idle_amps")
      return one_group(sorted, idle) unless cut && two_groups?(cut, numbers) && cut[:high] > idle

      new(over: cut[:over], low: cut[:low], high: cut[:high], always: false)
    end

    # A cut that a person set.
    def self.at(over) = new(over: over.to_f, low: 0.0, high: 0.0, always: false)

    def on?(value) = over ? value > over : always
    def to_json_hash = to_h.transform_keys(&:to_s)

    class << self
      private

      # The widest gap above what idles, however seldom it idles: two speeds, or a defrost's lighter load, part less.
      def idle_gap(sorted, numbers)
        most = sorted.last
        low, high, at =
          sorted
            .each_cons(2)
            .with_index(1)
            .map { |(one, other), i| [one, other, i] }
            .select { |one, _other, i| one <= most * numbers.fetch("idle_share") && i >= 3 && sorted.size - i >= 3 }
            .max_by { |one, other, _i| other - one }
        return nil unless low && high - low >= most * numbers.fetch("least_apart")

        { share: 1.0, over: (low + high) / 2, low: sorted[at / 2], high: sorted[(at + sorted.size) / 2] }
      end

      def one_group(sorted, idle)
        middle = sorted[sorted.size / 2]
        new(over: nil, low: middle, high: middle, always: middle > idle)
      end

      def two_groups?(cut, numbers)
        cut[:share] >= numbers.fetch("between_share") &&
          cut[:high] - cut[:low] >= numbers.fetch("least_apart") * cut[:high].abs
      end

      # Every cut between two values, by running sums.
      def cut(sorted)
        total, count = sorted.sum, sorted.size
        variance = sorted.sum { |value| (value - (total / count))**2 }
        return nil if variance < 1e-9

        best = nil
        below = 0.0
        sorted
          .each_cons(2)
          .with_index(1) do |(value, after), i|
            below += value
            next if after - value < 1e-9

            low, high = below / i, (total - below) / (count - i)
            between = i * (count - i) / count.to_f * ((high - low)**2) / variance
            best = { share: between, over: (low + high) / 2, low: low, high: high } if best.nil? ||
              between > best[:share]
          end
        best
      end
    end
  end
end
