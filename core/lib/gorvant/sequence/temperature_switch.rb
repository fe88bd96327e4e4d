# frozen_string_literal: true

module Gorvant
  # A switch that closes on fall and opens on rise, and between its two points stays as it was. Whether the points
  # themselves count as reached is a field.
  class TemperatureSwitch < Controller
    attr_reader :id

    PAST = 0.001 # seconds: just past a point that has to be passed

    # quantity: name of the temperature that moves it; rules: { closed:, open: }.
    def initialize(id, quantity:, closes_at:, opens_at:, rules:, inclusive: true)
      super()
      @id = id
      @quantity = quantity
      @points = Hysteresis.new(closes_degrees_f: closes_at.to_f, opens_degrees_f: opens_at.to_f, inclusive: inclusive)
      @rules = rules
      @inclusive = inclusive
    end

    def memory = { closed: nil }

    def step(memory, seen)
      degrees = seen.value(@quantity)
      closed = position(memory[:closed], degrees)
      threshold = closed ? @points.opens_degrees_f : @points.closes_degrees_f
      answer(
        { closed: closed },
        { id => closed },
        wake_at: wake(threshold, degrees, seen),
        reasons: {
          id => because(closed ? @rules[:closed] : @rules[:open], from: @quantity, degrees: format("%.0f", degrees))
        }
      )
    end

    private

    def wake(threshold, degrees, seen)
      if !@inclusive && degrees == threshold && seen.quantity(@quantity).at(seen.now + PAST) != degrees
        return seen.now + PAST
      end

      seen.quantity(@quantity).reaches(threshold, seen.now)
    end

    def position(closed, degrees)
      state = @points.at(degrees)
      state == "undetermined" ? closed || false : state == "closed"
    end
  end
end
