# frozen_string_literal: true

module Gorvant
  # Where things are: see connection_view.rb. Here, its measures in pixels.
  class ConnectionView
    ROW = 46
    TAB = 11 # of a box with two tabs on one side, from its middle
    LANE = 11
    FIELD_LANE = 14
    SCREW = 70
    TOP = 66
    NAMES = 50 # room for a conductor's color
    OFF = 9 # from a screw's middle, for a conductor that changes row
    PLACES = %w[wall air_handler outdoor].freeze
  end
end
