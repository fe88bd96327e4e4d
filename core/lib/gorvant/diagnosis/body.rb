# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # One hypothesis in one state, solved: what a meter reads between two points, and what eye, ear and hand find.
    class Body
      attr_reader :solution, :hypothesis

      # rig: as this hypothesis has it. points: Points of its netlist.
      def initialize(rig, hypothesis, solution, points)
        @rig = rig
        @hypothesis = hypothesis
        @points = points
        @solution = solution
        @netlist = solution.netlist
        @volts = points.volts(solution)
        @sets, @anchored = points.sets(solution)
      end

      # A code of Scale.volts.
      def volts(first, second, scale, drains_ghosts: false)
        i = @points.index[first]
        j = @points.index[second]
        return Scale::UNKNOWN unless i && j
        return Scale::UNSTEADY if @solution.chatter? && shakes?(first, second)
        return held(i, j, scale) if @anchored[@sets[i]] && @anchored[@sets[j]]

        drains_ghosts || @sets[i] == @sets[j] ? scale.code(0.0) : Scale::GHOST
      end

      def works?(code)
        return false if @hypothesis.senses["still"] == code

        [code, "#{code}.start"].all? { |id| !@netlist.branch?(id) || @solution.working?(id) } && @netlist.branch?(code)
      end

      # Fed, and does not run: one winding without the other.
      def hums?(code) = !works?(code) && @solution.working?(code) && @netlist.branch?("#{code}.start")
      # Whether a fuse would go; with a lamp in its place, whether that lights up full.
      def blows? = @solution.blown.any?
      def backup? = %w[HTR HTR2 GAS].any? { |code| works?(code) }
      def compressor? = works?("COMP")
      def blank? = @netlist.branch?("THERMOSTAT") && !@solution.working?("THERMOSTAT")

      # Whether the refrigerant goes round, and not through a valve in mid-stroke.
      def pumps? = compressor? && @hypothesis.senses["pumping"].nil?

      # "heating" or "cooling": where the slide stands.
      def valve
        stuck = @hypothesis.senses["valve"]
        return stuck if stuck

        fed = @solution.working?("RVS") || @solution.working?("RVS_LINE")
        fed == (@rig.changeover == "O") ? "cooling" : "heating"
      end

      # The vapor line to a hand.
      def line
        return "lukewarm" unless pumps?

        valve == "heating" ? "hot" : "cold"
      end

      # What a gauge on either side shows.
      def ports
        return "equal_low" if @hypothesis.senses["pumping"] == "low_charge"

        pumps? ? "apart" : "near_equal"
      end

      # The tube out of the valve against the one into it: telling only while the compressor runs.
      def tubes
        return Scale::UNKNOWN unless compressor?

        @hypothesis.senses["pumping"] == "leaking" ? "warmer" : "alike"
      end

      LOADS_SEEN = {
        "outdoor_fan" => %w[OFM turns stands],
        "blower" => %w[BLOWER blows stands],
        "strips" => %w[HTR on off]
      }.freeze
      private_constant :LOADS_SEEN

      # What eye, ear, hand or gauge finds at a place of evidence.yml, `seen`.
      def look(place)
        case place
        when "vapour_line_by_hand"
          line
        when "ports"
          ports
        when "tubes"
          tubes
        when "compressor"
          compressor_heard
        when "contactor"
          contactor_seen
        when "display"
          blank? ? "blank" : "lit"
        else
          load, on, off = LOADS_SEEN.fetch(place)
          works?(load) ? on : off
        end
      end

      # Whether the board begins a defrost by itself, with this circuit in a heating call on a cold coil.
      def defrosts?
        return false if @hypothesis.senses["defrost"] == "never"
        return @defrosts unless @defrosts.nil?

        profile = ClockProfile.of(@rig)
        @defrosts =
          starts?(DefrostClock.new(profile), [profile.interval_seconds, profile.demand_maximum_seconds].compact.max)
      end

      # A defrost that has gone in, as eye and hand have it.
      def gone_in
        return "goes_in_fan" if works?("OFM")
        return "goes_in_right" unless @rig[:defrost_method] == "reverse_cycle"

        { "cold" => "goes_in_right", "hot" => "goes_in_hot" }.fetch(line, "goes_in_dull")
      end

      # What is there in this call, as symptoms.yml names it.
      def marks
        loads = %w[COMP OFM BLOWER CC].select { |code| works?(code) }
        [
          *loads,
          *("backup" if backup?),
          *("stage_2" if works?("COMP2") || works?("Y2S")),
          "#{line}_line",
          *("blown" if blows?),
          *("chatter" if @solution.chatter?),
          *("blank" if blank?)
        ]
      end

      private

      def compressor_heard
        return "runs" if compressor?

        hums?("COMP") ? "hums" : "silent"
      end

      def contactor_seen
        return "chatters" if @solution.chattering.include?("CC")

        works?("CC") ? "in" : "out"
      end

      def held(i, j, scale)
        @points.sections[i] == @points.sections[j] ? scale.code((@volts[i] - @volts[j]).abs) : Scale::UNKNOWN
      end

      def shakes?(first, second)
        spans = @solution.cycle.map { |state| (state.volts[first] - state.volts[second]).abs }
        spans.max - spans.min > Diagnosis.numbers.dig("volts", "about_0")
      end

      def live?(terminal)
        i = @points.index["outdoor.#{terminal}"]
        !i.nil? && !@anchored[@sets[i]].nil? &&
          @volts[i].abs >= Catalogue.profile.dig("reading_classes", "about_24", "low")
      end

      # Its clock run on, with nothing changing.
      def starts?(clock, longest)
        inputs = clock_inputs
        memory = clock.step(clock.memory(0.0), 0.0, inputs)
        at = 0.0
        4.times do
          return true if memory.defrosting

          at = clock.wake(memory, at)
          return false if at.nil? || at > longest * 2

          memory = clock.step(memory, at, inputs)
        end
        memory.defrosting
      end

      def clock_inputs
        cold = @rig[:sensing] == "thermistors" || @solution.working?("DFT_IN")
        DefrostClock::Inputs.new(
          powered: @solution.working?("BOARD"),
          y: live?("Y"),
          t1: @solution.working?("T1_IN"),
          cold: cold,
          warm: !cold,
          heating: live?(@rig.changeover) == (@rig.changeover == "B"),
          coil: Catalogue.profile.dig("defrost", "demand_coil_at_most_degrees_f") - 10.0,
          air: Catalogue.profile.dig("defrost", "demand_coil_at_most_degrees_f"),
          aps: @rig[:air_pressure_switch] ? true : nil
        )
      end
    end
  end
end
