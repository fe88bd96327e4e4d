# frozen_string_literal: true

module Gorvant
  # The trade's standard symbols as strokes around their center: [{ role, d }]. role: "body" is filled and outlined,
  # "line" only drawn, "pip" filled. Leads end at half of the symbol's width, left and right.
  # Source: docs/sources.md, symbols-of-the-trade.
  module Symbols
    # Half widths and heights of each, for who lays them out.
    HALF = 17
    TALL = 13

    class << self
      def circle(radius, role = "body") =
        [
          {
            role: role,
            d: "M#{-radius} 0a#{radius} #{radius} 0 1 0 #{radius * 2} 0a#{radius} #{radius} 0 1 0 #{-radius * 2} 0z"
          }
        ]
      def terminal(live) = live ? circle(9) + circle(4, "pip") : circle(9)

      # A box with rounded corners: a name stands in it.
      def box(width, height, radius = 2)
        right, foot = width / 2.0, height / 2.0
        r = [radius, foot].min
        left, top, inner_left, inner_top, inner_right, inner_foot =
          [-right, -foot, -right + r, -foot + r, right - r, foot - r].map { |one| n(one) }
        right, foot, r = n(right), n(foot), n(r)
        arc = "A#{r} #{r} 0 0 1"
        [
          {
            role: "body",
            d:
              "M#{inner_left} #{top}H#{inner_right}#{arc} #{right} #{inner_top}" \
                "V#{inner_foot}#{arc} #{inner_right} #{foot}H#{inner_left}#{arc} #{left} #{inner_foot}" \
                "V#{inner_top}#{arc} #{inner_left} #{top}z"
          }
        ]
      end

      # A relay contact: two bars, a slash where it is closed at rest. closed: as it stands now, nil to draw it at rest.
      # One that stands open though it is closed at rest has its slash parted, so that it never looks closed.
      def contact(rest_closed, closed)
        bars = line("M-5 -12V12") + line("M5 -12V12") + line("M#{-HALF} 0H-5") + line("M5 0H#{HALF}")
        bars +=
          (
            if rest_closed && closed == false
              line("M-11 13L-7 8") + line("M7 -8L11 -13")
            else
              line("M-9 11L9 -11")
            end
          ) if rest_closed
        closed ? bars + line("M-5 0H5") : bars
      end

      # A switch: two points and an arm, flat when closed; what moves it hangs below.
      def switch(closed, moved_by = nil)
        arm = closed ? "M-11 0L11 -2" : "M-11 0L10 -11"
        points = [-13, 13].flat_map { |x| [{ role: "dot", d: "M#{x - 2.5} 0a2.5 2.5 0 1 0 5 0a2.5 2.5 0 1 0 -5 0z" }] }
        line("M#{-HALF} 0H-15") + line("M15 0H#{HALF}") + points + line(arm) + mover(moved_by, closed ? -1 : -5)
      end

      def coil(width = 44) = box(width, 28, 14)
      def motor(radius = 17) = circle(radius)
      def fuse = line("M#{-HALF} 0H-12C-6 -12 -4 -8 0 0S6 12 12 0H#{HALF}")
      def capacitor =
        line("M#{-HALF} 0H-4") + line("M-4 -11V11") + line("M10 -11C3 -6 3 6 10 11") + line("M5 0H#{HALF}")
      def resistor = line("M#{-HALF} 0L-13 0L-10.5 -8L-6 8L-2 -8L2 8L6 -8L10.5 8L13 0L#{HALF} 0")
      def thermistor = resistor + line("M-12 12L9 -11L13 -11")
      def transformer =
        line("M-14 -10a4 5 0 0 1 0 10a4 5 0 0 1 0 10") + line("M-3 -13V13") + line("M3 -13V13") +
          line("M14 -10a4 5 0 0 0 0 10a4 5 0 0 0 0 10")
      def ground = line("M0 -12V0M-11 0H11M-7 5H7M-3 10H3")
      def splice = line("M-6 0L0 -6L6 0L0 6z")
      def jumper = line("M-14 4C-8 -10 8 -10 14 4")
      def winding = line("M#{-HALF} 0a5.6 6 0 0 1 11.3 0a5.6 6 0 0 1 11.3 0a5.6 6 0 0 1 11.4 0")

      # The symbol of a branch by what it is: for ladder, legend and focus. closed: nil to draw it at rest.
      def of(branch, closed: nil)
        about = Catalogue.components[branch.component || branch.id] || {}
        case branch.kind
        when :contact
          contact(branch[:rest] == :closed, closed)
        when :fuse
          closed == false ? fuse + line("M-4 -12L4 12") : fuse
        when :capacitor
          capacitor
        when :coil
          coil
        when :secondary
          transformer
        when :switch
          if electronic?(branch)
            contact(branch[:closed], closed)
          else
            switch(closed.nil? ? branch[:closed] : closed, about["moved_by"])
          end
        else
          of_load(branch, about)
        end
      end

      # Whether a switch is an output of electronics: drawn as a contact, since nothing outside moves it.
      def electronic?(branch) = %w[THERMOSTAT BOARD].include?(branch.component)

      private

      def of_load(branch, about)
        return winding if branch.id.end_with?(".start", ".primary")

        { "motor" => motor, "heater" => resistor, "thermistor" => thermistor }.fetch(about["symbol"]) { box(44, 28) }
      end

      # Pressure: a dome on a stem; temperature: the kink of a bimetal; air: a vane; line: nothing.
      def mover(moved_by, arm_y)
        case moved_by
        when "pressure"
          line("M0 #{arm_y}V6M-7 13a7 7 0 0 1 14 0z")
        when "temperature"
          line("M0 #{arm_y}V4H5V8H-5V12H0")
        when "air"
          line("M0 #{arm_y}V6M-8 12L0 6L8 12")
        else
          []
        end
      end

      def line(d) = [{ role: "line", d: d }]
      def n(value) = Geometry.number(value)
    end
  end
end
