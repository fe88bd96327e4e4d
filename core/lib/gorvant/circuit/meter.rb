# frozen_string_literal: true

module Gorvant
  # What a meter should show. volts_ac as expected, low/high as tolerances and the meter allow, klass one of
  # Meter::CLASSES, floating: whether a probe is on a conductor that nothing holds. alternatives: [Expected], all that
  # it may be where nobody knows which; then volts_ac is nil.
  Expected =
    Value.define(
      :volts_ac,
      :low_volts_ac,
      :high_volts_ac,
      :klass,
      :floating,
      :alternatives,
      defaults: {
        alternatives: [].freeze
      }
    )

  class Expected
    # One of several, by how things stand that nobody has read.
    def self.either(all)
      new(
        volts_ac: nil,
        low_volts_ac: all.map(&:low_volts_ac).min,
        high_volts_ac: all.map(&:high_volts_ac).max,
        klass: "undetermined",
        floating: false,
        alternatives: all.freeze
      )
    end
  end

  # V AC between any two nodes of a solution, by an instrument of known input resistance.
  class Meter
    CLASSES = %w[about_0 about_24 about_120 about_208 about_240 between ghost unsteady undetermined].freeze

    def self.instruments = Catalogue.profile.fetch("instruments")

    # The class of a value read between points that are held.
    # Source: DOMAIN.md 6; edges in profile.yml, reading_classes.
    def self.klass(volts)
      found =
        Catalogue
          .profile
          .fetch("reading_classes")
          .find { |_name, edges| volts.between?(edges.fetch("low"), edges.fetch("high")) }
      found ? found.first : "between"
    end

    attr_reader :solution

    # instrument: a key of Meter.instruments.
    def initialize(solution, instrument = "high_impedance")
      @solution = solution
      @instrument = self.class.instruments.fetch(instrument)
      @input_ohms = @instrument.fetch("input_ohms")
      @tolerance = Tolerance.new(solution)
      @section_of =
        solution
          .netlist
          .sections
          .each_with_object({}) { |section, of| section.nodes.each { |node| of[node] = section } }
      @ghosts = Ghosts.new(solution)
      @columns = {}
    end

    # Expected between two nodes (order does not matter to the value).
    def read(first, second)
      [first, second].each { |node| solution.netlist.fetch_node(node) }
      return unsteady(first, second) if solution.chatter? && classes_in_cycle(first, second).size > 1

      floats = [first, second].map { |node| solution.floating?(node) }
      if floats.any?
        floating(first, second, floats)
      elsif @section_of[first].equal?(@section_of[second])
        held(first, second)
      else
        apart(first, second)
      end
    end

    private

    def held(first, second)
      share = (@input_ohms / (@input_ohms + source_ohms(first, second))).abs
      volts = (solution.volts[first] - solution.volts[second]).abs * share
      expected(volts, @tolerance.volts_between(first, second).map { |value| value * share })
    end

    UNDETERMINED =
      Expected.new(volts_ac: nil, low_volts_ac: nil, high_volts_ac: nil, klass: "undetermined", floating: false)
    private_constant :UNDETERMINED

    # Points of two supplies can be told only where both are tied to ground.
    def apart(first, second)
      tie = tie_of([first, second]) or return UNDETERMINED
      to_ground = [first, second].map { |node| tie.find { |ground| together?(ground, node) } }
      volts = [first, second].zip(to_ground).map { |node, ground| solution.volts[node] - solution.volts[ground] }
      difference = (volts[0] - volts[1]).abs
      spread =
        [first, second].zip(to_ground)
          .sum { |node, ground| @tolerance.volts_between(node, ground).then { |low, high| (high - low) / 2 } }
      expected(difference, [difference - spread, difference + spread])
    end

    # The two points, one of each supply, that are tied to one another.
    def tie_of(nodes) =
      solution.netlist.ties.find do |ends|
        ends.all? do |tied|
          @section_of[tied] && nodes.any? { |node| together?(node, tied) } && !solution.floating?(tied)
        end
      end

    def together?(first, second) = @section_of[first].equal?(@section_of[second])

    def expected(volts, span)
      error = accuracy(volts)
      Expected.new(
        volts_ac: volts,
        low_volts_ac: [span[0] - error, 0.0].max,
        high_volts_ac: span[1] + error,
        klass: self.class.klass(volts),
        floating: false
      )
    end

    # Accuracy of the instrument at a reading, volts.
    def accuracy(volts) = (volts * @instrument.fetch("accuracy_fraction")) + @instrument.fetch("accuracy_volts")

    # Thévenin resistance between two nodes of one section.
    def source_ohms(first, second)
      from_first = column(first)
      from_second = column(second)
      (from_first[first] || 0.0) + (from_second[second] || 0.0) - (from_first[second] || 0.0) -
        (from_second[first] || 0.0)
    end

    def column(node)
      @columns[node] ||= @section_of[node].inverse_columns([node], solution.closed, open: solution.open).fetch(node)
    end

    def floating(first, second, floats)
      same = solution.islands.same?(first, second)
      volts =
        [first, second].zip(floats).map { |node, floats_here| floats_here ? @ghosts.volts(node) : solution.volts[node] }
      reactance = same ? 0.0 : @ghosts.reactance_ohms(floats[0] ? first : nil, floats[1] ? second : nil)
      reading = same ? 0.0 : (volts[0] - volts[1]).abs * @input_ohms / Math.sqrt((@input_ohms**2) + (reactance**2))
      limit = same ? 0.0 : ghost_limit
      Expected.new(
        volts_ac: reading,
        low_volts_ac: 0.0,
        high_volts_ac: limit + accuracy(limit),
        klass: same ? "about_0" : "ghost",
        floating: true
      )
    end

    # A ghost may be anything up to where a feed begins; on low impedance it falls away.
    def ghost_limit
      edges = Catalogue.profile.fetch("reading_classes")
      @instrument.fetch("drains_ghosts") ? edges.fetch("about_0").fetch("high") : edges.fetch("about_24").fetch("low")
    end

    def classes_in_cycle(first, second)
      solution.cycle.map { |state| self.class.klass((state.volts[first] - state.volts[second]).abs) }.uniq
    end

    def unsteady(first, second)
      span = solution.cycle.map { |state| (state.volts[first] - state.volts[second]).abs }.minmax
      Expected.new(
        volts_ac: span.sum / 2,
        low_volts_ac: span[0],
        high_volts_ac: span[1],
        klass: "unsteady",
        floating: false
      )
    end
  end
end
