# frozen_string_literal: true

module Gorvant
  # A continuous quantity that goes in a straight line towards a target and stays there: a temperature, a pressure
  # difference. rate: units per second, without sign.
  Quantity = Value.define(:value, :at_seconds, :target, :rate)

  class Quantity
    def self.still(value, at_seconds = 0.0) =
      new(value: value.to_f, at_seconds: at_seconds, target: value.to_f, rate: 0.0)

    # Its value at a time not before its beginning.
    def at(seconds)
      way = target - value
      gone = rate * (seconds - at_seconds)
      gone >= way.abs ? target : value + (way.positive? ? gone : -gone)
    end

    # From its value at a time on towards another target.
    def towards(target, rate, seconds)
      return self if target == self.target && rate == self.rate

      with(value: at(seconds), at_seconds: seconds, target: target.to_f, rate: rate.to_f)
    end

    # [[seconds, value]] of where it came to its target, before a time.
    def corners(before)
      return [] if rate.zero?

      reached = at_seconds + ((target - value).abs / rate)
      reached < before ? [[reached, target]] : []
    end

    # The time after `seconds` at which it reaches a threshold, or nil.
    def reaches(threshold, seconds)
      now = at(seconds)
      return nil if rate.zero? || now == target || threshold == now || !threshold.between?(*[now, target].minmax)

      seconds + ((threshold - now).abs / rate)
    end
  end
end
