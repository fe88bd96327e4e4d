# frozen_string_literal: true

module Gorvant
  # A switch that closes on fall and opens on rise, and between its two points stays as it was. Both points count as reached.
  class TemperatureSwitch < Controller
    attr_reader :id

    # quantity: name of the temperature that moves it; rules: { closed:, open: }.
    def initialize(id, quantity:, closes_at:, opens_at:, rules:)
      super()
      @id = id
      @quantity = quantity
      @closes_at = closes_at.to_f
      @opens_at = opens_at.to_f
      @rules = rules
    end

    def memory = { closed: nil }

    def step(memory, seen)
      degrees = seen.value(@quantity)
      closed = position(memory[:closed], degrees)
      threshold = closed ? @opens_at : @closes_at
      answer({ closed: closed }, { id => closed }, wake_at: seen.quantity(@quantity).reaches(threshold, seen.now),
                                                   reasons: { id => because(closed ? @rules[:closed] : @rules[:open], from: @quantity, degrees: format("%.0f", degrees)) })
    end

    private

    def position(closed, degrees)
      return true if degrees <= @closes_at
      return false if degrees >= @opens_at

      closed || false
    end
  end
end
