# frozen_string_literal: true

# A forced test on a unit whose truth is known, since it runs on the tape: with an interval, a count and perhaps a fault
# that the record does not know, and a hand with a stopwatch that marks some of what happens and answers some of what it
# saw.
class TrueTest
  LEAD = 300.0 # seconds in heating before the watch starts
  AHEAD = 20.0 # seconds on the watch when the bridge goes on
  FAULTS = {
    "fan" => {
      "kind" => "stuck_closed",
      "at" => "DFR.fan"
    },
    "valve" => {
      "kind" => "valve_stuck",
      "at" => "RVS"
    },
    "strips" => {
      "kind" => "lifted",
      "at" => "cable_b.white@outdoor"
    }
  }.freeze
  SIGHTS = { "fan_off" => ["OFM", false], "valve_heard" => ["valve", nil], "strips_on" => ["HTR", true] }.freeze
  AFTER = { "fan_back" => ["OFM", true], "strips_off" => ["HTR", false] }.freeze
  PRESSES = {
    "bridge_on" => %w[bridge on],
    "bridge_off" => %w[bridge off],
    "jumper_on" => %w[jumper on],
    "jumper_off" => %w[jumper off]
  }.freeze

  attr_reader :rig, :counted, :fault

  def initialize(rig, random)
    @rig = rig
    @random = random
    @counted = chance(0.4) ? 0 : random.rand(0...rig[:defrost_interval_minutes])
    @fault = chance(0.4) ? FAULTS.keys.sample(random: random) : nil
    @coil = random.rand(15..27)
  end

  # What is written down: [marks by the watch, answers, readings], as ForcedTest.parse takes them.
  def record
    @record ||= {
      "marks" => marks,
      "answers" => answers,
      "counted_minutes" => (@counted if chance(0.5)),
      "fresh" => @counted.zero? && chance(0.5),
      "readings" => readings
    }
  end

  # The rule by which it really ended, nil for not at all.
  def ended_by = over&.rule
  # Whether each output really did its part.
  def did = { "fan" => seen.key?("fan_off"), "valve" => seen.key?("valve_heard"), "strips" => seen.key?("strips_on") }

  private

  def chance(share) = @random.rand < share

  def presses
    @presses ||=
      begin
        left = (rig[:defrost_interval_minutes] - @counted) * 60.0 / rig[:speed_up_factor]
        pins = { "bridge_on" => LEAD, "bridge_off" => LEAD + left + [0.9, 1.5, 8.0].sample(random: @random) }
        if chance(0.6)
          pins.merge("jumper_on" => LEAD - 1, "jumper_off" => LEAD + left + [60, 120, 700].sample(random: @random))
        else
          pins
        end
      end
  end

  def tape
    @tape ||=
      begin
        list = [
          move(0, "call", "heat"),
          move(LEAD, "coil", "free"),
          *presses.map do |mark, at|
            move(at, *PRESSES.fetch(mark), of: mark.start_with?("jumper") ? Gorvant::ForcedTest::ForcedTape::PINS : nil)
          end
        ]
        if presses.key?("jumper_on")
          list << move(presses["jumper_on"], "fault", "begins", of: { "kind" => "stuck_open", "at" => "DFT" })
        end
        list << move(0, "fault", "begins", of: FAULTS.fetch(fault)) if fault
        start = {
          "outdoor_degrees_f" => 34,
          "coil_degrees_f" => @coil,
          "defrost_counted_minutes" => @counted - (LEAD / 60)
        }
        Gorvant::Run.of(
          rig,
          Gorvant::Script.parse(
            { "start" => start, "moves" => list.sort_by.with_index { |one, i| [one["at_seconds"], i] } },
            2400.0
          )
        )
      end
  end

  def move(at, what, value, of: nil) = { "at_seconds" => at, "what" => what, "value" => value, "of" => of }.compact
  def defrosts = @defrosts ||= tape.events.select { |event| event.signal == "defrost" && event.seconds >= LEAD }
  def over = defrosts[1]

  # { mark => second on the tape } of what there is to see of the first defrost.
  def seen
    return {} if defrosts.empty?

    during =
      SIGHTS.transform_values { |sight| first(*sight, defrosts[0].seconds, (over || tape.events.last).seconds) }.compact
    after =
      (
        if over
          AFTER
            .transform_values { |sight| first(*sight, over.seconds, (defrosts[2] || tape.events.last).seconds) }
            .compact
        else
          {}
        end
      )
    during.merge(
      after.select { |mark, _at| during.key?({ "fan_back" => "fan_off", "strips_off" => "strips_on" }.fetch(mark)) }
    )
  end

  def first(signal, value, from, to) =
    tape
      .events
      .find do |event|
        event.signal == signal && (value.nil? || event.value == value) && event.seconds.between?(from, to)
      end
      &.seconds

  def marks
    presses
      .merge(seen.reject { chance(0.35) })
      .transform_values { |at| (at - LEAD + AHEAD + @random.rand(-0.2..0.25)).round(2) }
  end

  def answers = did.merge("went_in" => defrosts.any?).select { chance(0.4) }

  def readings
    return {} unless over && chance(0.5)

    points = tape.curves.find { |curve| curve.id == "coil" }.points
    (from, low), (to, high) = points.each_cons(2).find { |(a, _), (b, _)| over.seconds.between?(a, b) && b > a }
    {
      "coil_at_end_degrees_f" =>
        (low + ((high - low) * (over.seconds - from) / (to - from)) + @random.rand(-2.0..2.0)).round(1)
    }
  end
end
