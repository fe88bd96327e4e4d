# frozen_string_literal: true

module Gorvant
  # How a defrost stands now: what it waits for, condition by condition; when the next is due and under which
  # assumptions; and what to read at the board, with what each reading should be.
  class DefrostOutlook
    # What a technician knows of the moment. call: a heating call or another; coil_degrees_f nil: not measured;
    # switches: { code => state }; faults: as the condition takes them; counted_minutes: run time on the clock, nil for
    # unknown; humidity_percent: of the air outdoors, nil for unknown.
    Moment =
      Value.define(
        :call,
        :outdoor_degrees_f,
        :coil_degrees_f,
        :counted_minutes,
        :humidity_percent,
        :switches,
        :faults,
        defaults: {
          coil_degrees_f: nil,
          counted_minutes: nil,
          humidity_percent: nil,
          switches: {}.freeze,
          faults: [].freeze
        }
      )
    # on: true, false, or nil where nobody can know. waits_for: words, nil when it is on.
    Lamp = Value.define(:id, :title, :on, :waits_for)
    # in_seconds: nil where it does not come within HORIZON; because: the rule that starts it, or the links that say why
    # it does not; course: [Sight], what there is to see once it has begun.
    Next = Value.define(:in_seconds, :says, :because, :assumed, :course, defaults: { course: [].freeze })
    # after_seconds: since the defrost began.
    Sight = Value.define(:after_seconds, :says)
    # One thing to read. condition: how the unit has to stand; expected_volts_ac nil where it cannot be said.
    Line =
      Value.define(
        :id,
        :title,
        :from_node,
        :to_node,
        :condition,
        :expected_volts_ac,
        :low_volts_ac,
        :high_volts_ac,
        :says,
        :cautions
      )

    HORIZON = 6 * 3600.0
    # After its end, until everything is back: the sequencer's contact is last.
    AFTERWARDS = 180.0
    # What can be seen or heard at the unit; the rest is for the tape.
    SIGHTS = %w[defrost COMP OFM valve HGS HTR GAS].freeze
    HEAT = "heat"
    DEFROST = "defrost"

    attr_reader :rig, :moment, :profile

    def initialize(rig, moment)
      @rig = rig
      @moment = moment
      @profile = ClockProfile.of(rig)
      @switch = CoilSwitch.of(rig)
    end

    # [Lamp], in the order in which the board asks them: those alone that the board in hand has.
    def lamps
      [
        lamp("power", trace.works?("BOARD")),
        (lamp("call", heating?) unless profile.in_cooling),
        lamp("y", live?("outdoor.Y")),
        (lamp("t1", trace.works?("T1_IN")) if asks_t1?),
        sensors,
        cold,
        frost,
        air_pressure,
        count
      ].compact
    end

    # What this board's count is called, and whether anything was measured that the answer leans on.
    def counts = Catalogue.words("defrost.counts_#{profile.school}")
    def measured? = !moment.coil_degrees_f.nil? || moment.switches.any?

    # The next defrost, run on the tape from here on.
    def following
      if profile.auto && profile.school != "demand"
        return Next.new(in_seconds: nil, says: Catalogue.words("defrost.auto_unknown"), because: [], assumed: assumed)
      end

      event = timeline.events.find { |one| one.signal == "defrost" && one.value == true }
      return due(event) if event

      Next.new(
        in_seconds: nil,
        says: Catalogue.words("defrost.next_not", hours: (HORIZON / 3600).round),
        because: why_not,
        assumed: assumed
      )
    rescue BadScript, ZeroTimeLoop => e
      Next.new(in_seconds: nil, says: Catalogue.words("defrost.next_unknown"), because: [e.message], assumed: assumed)
    end

    # [Line]: initiation first, then what a defrost puts out.
    def checklist = (initiation + termination).map { |line| expected(*line) }.compact

    private

    def trace = @trace ||= Trace.new(rig, condition)
    def asks_t1? = profile.counts_on == "T1" || %w[free clock_motor].include?(profile.school)
    def live?(node) = trace.state(node) == "live"
    def heating? =
      Catalogue.calls.fetch(moment.call)["mode"] == "heating" &&
        live?("outdoor.#{rig.changeover}") == (rig.changeover == "B")

    # The coil switch stands by the coil's temperature where that decides it.
    def condition(call = moment.call) =
      Condition.new(call: call, switches: by_coil.merge(moment.switches), faults: moment.faults)

    def by_coil
      return {} unless rig[:sensing] == "coil_switch" && moment.coil_degrees_f

      state = @switch.at(moment.coil_degrees_f)
      state == "undetermined" ? {} : { "DFT" => state }
    end

    def lamp(id, on, **fields) =
      Lamp.new(
        id: id,
        title: Catalogue.words("defrost.lamp_#{id}"),
        on: on,
        waits_for: on ? nil : Catalogue.words("defrost.waits_#{id}", **fields)
      )

    def cold
      return nil if profile.school == "time_only" || profile.school == "demand" || rig[:sensing] != "coil_switch"
      if moment.switches.key?("DFT") || by_coil.any?
        return lamp("cold", trace.works?("DFT_IN"), closes: degrees(@switch.closes_degrees_f))
      end

      Lamp.new(id: "cold", title: Catalogue.words("defrost.lamp_cold"), on: nil, waits_for: unknown_coil)
    end

    def unknown_coil
      key = moment.coil_degrees_f ? "defrost.waits_cold_between" : "defrost.waits_cold_unknown"
      Catalogue.words(key, closes: degrees(@switch.closes_degrees_f), opens: degrees(@switch.opens_degrees_f))
    end

    # A demand board asks the coil against the air.
    def frost
      return nil unless (rig[:sensing] == "thermistors" && profile.school != "time_only") || profile.school == "demand"

      sensed = self.sensed
      return nil if sensed.failed? && moment.coil_degrees_f

      point =
        (
          if profile.school == "demand"
            DefrostClock.new(profile).demand_point(sensed.air_degrees_f || moment.outdoor_degrees_f)
          else
            profile.starts_degrees_f
          end
        )
      on = moment.coil_degrees_f && sensed.coil_degrees_f <= point
      Lamp.new(
        id: "frost",
        title: Catalogue.words("defrost.lamp_frost"),
        on: on,
        waits_for: on ? nil : Catalogue.words("defrost.waits_frost", point: degrees(point.round(1)))
      )
    end

    # As the board's own sensors have them.
    def sensed =
      Sensed.through(
        moment.faults,
        coil: moment.coil_degrees_f || moment.outdoor_degrees_f,
        air: moment.outdoor_degrees_f
      )
    def sensors = rig[:sensing] == "thermistors" ? lamp("sensors", !sensed.failed?) : nil

    def air_pressure
      return nil unless Options.fitted?(rig, "APS")
      return lamp("air_pressure", trace.works?("APS_IN")) if moment.switches.key?("APS")

      Lamp.new(
        id: "air_pressure",
        title: Catalogue.words("defrost.lamp_air_pressure"),
        on: nil,
        waits_for: Catalogue.words("defrost.waits_air_pressure_unknown")
      )
    end

    def count
      full = profile.full_seconds / 60
      counted = moment.counted_minutes
      on = counted.nil? ? nil : counted >= full
      Lamp.new(
        id: "count",
        title:
          Catalogue.words("defrost.lamp_count", counted: counted ? degrees(counted.round) : "?", full: degrees(full)),
        on: on,
        waits_for:
          (
            if on
              nil
            else
              Catalogue.words(
                counted.nil? ? "defrost.waits_count_unknown" : "defrost.waits_count",
                left: degrees((full - counted.to_f).round(1))
              )
            end
          )
      )
    end

    def degrees(value) = format("%g", value)
    def words(seconds) =
      if seconds >= 3600
        "#{(seconds / 3600).floor} h #{((seconds % 3600) / 60).round} min"
      else
        "#{(seconds / 60).round} min"
      end

    def due(event)
      sights = course(event.seconds)
      rises = moment.coil_degrees_f ? [Catalogue.words("defrost.assumed_coil_rises", humidity: humidity)] : []
      Next.new(
        in_seconds: event.seconds,
        says: Catalogue.words("defrost.next", in: words(event.seconds)),
        because: [event.rule_says, (Catalogue.words("defrost.waste") if thaws_nothing?(event))].compact,
        course: sights,
        assumed: assumed + rises
      )
    end

    # In and out at the very same moment: the coil is warm already.
    def thaws_nothing?(event) =
      timeline.events.any? do |one|
        one.signal == "defrost" && one.value == false && one.seconds - event.seconds < 1 && one.id > event.id
      end

    # --- the tape

    def timeline = @timeline ||= Run.of(rig, Script.parse({ "start" => start, "moves" => moves }, HORIZON))

    # [Sight] of the defrost that begins then. The coil, held where it was measured until now, is left to itself.
    def course(begins)
      freed = moment.coil_degrees_f ? [{ "at_seconds" => begins, "what" => "coil", "value" => Script::FREE }] : []
      until_seconds = begins + (profile.limit_seconds || HORIZON) + AFTERWARDS
      run = Run.of(rig, Script.parse({ "start" => start, "moves" => moves + freed }, until_seconds))
      over = run.next_event("defrost", begins, false)&.seconds || until_seconds
      run
        .events
        .select { |event| SIGHTS.include?(event.signal) && event.seconds.between?(begins, over + AFTERWARDS) }
        .map { |event| sight(event, begins) }
    end

    def sight(event, begins)
      says = [event.says, (event.rule_says if event.signal == "defrost")].compact.join(", ")
      says = Catalogue.words("defrost.sight_modelled", says: says) if event.rule == "defrost_by_temperature"
      Sight.new(after_seconds: event.seconds - begins, says: says)
    end

    def start
      {
        "outdoor_degrees_f" => moment.outdoor_degrees_f,
        "coil_degrees_f" => moment.coil_degrees_f,
        "defrost_counted_minutes" => moment.counted_minutes || 0.0,
        "humidity_percent" => moment.humidity_percent,
        "mode" => "off"
      }.compact
    end

    def moves
      [{ "at_seconds" => 0.0, "what" => "call", "value" => moment.call }] +
        moment.switches.map do |code, state|
          { "at_seconds" => 0.0, "what" => "switch", "of" => code, "value" => state }
        end +
        moment.faults.map { |fault| { "at_seconds" => 0.0, "what" => "fault", "of" => fault, "value" => "begins" } }
    end

    # The first lamp that is out says it best; then what the tape has.
    def why_not
      out = lamps.reject(&:on).map { |lamp| "#{lamp.title}: #{lamp.waits_for}" }
      missed = timeline.standing_reason("defrost", HORIZON - 1)
      rule = missed && Catalogue.sequence.fetch(missed.rule)["says"]
      [
        *out,
        (format(rule, missed.fields) if rule && %w[defrost_missed defrost_waits board_unfed].include?(missed.rule))
      ].compact.uniq
    end

    def assumed
      coil =
        (
          if moment.coil_degrees_f
            Catalogue.words("defrost.assumed_coil_held", degrees: degrees(moment.coil_degrees_f))
          else
            Catalogue.words("defrost.assumed_coil_course", humidity: humidity)
          end
        )
      clock = moment.counted_minutes ? nil : Catalogue.words("defrost.assumed_zero")
      [
        Catalogue.words("defrost.assumed_call"),
        coil,
        clock,
        (Catalogue.words("defrost.assumed_all", titles: profile.assumed_start.join(", ")) if profile.assumed_start.any?)
      ].compact
    end

    # The air that the frost model goes by, in words.
    def humidity
      given = moment.humidity_percent
      percent = degrees(given || Catalogue.frost.dig("air", "humidity_percent"))
      Catalogue.words("defrost.humidity_#{given ? "given" : "assumed"}", percent: percent)
    end

    # --- the checklist

    # [[id, from, to, call, cautions]]
    def initiation
      lines = [
        ["supply", "outdoor.C", "outdoor.R", HEAT, []],
        ["y", "outdoor.C", "outdoor.Y", HEAT, []],
        ["t1", "outdoor.C", "outdoor.board.T1", HEAT, []]
      ]
      if rig[:sensing] == "coil_switch"
        lines << ["coil_switch", "outdoor.board.DFT_1", "outdoor.board.DFT_2", HEAT, []] <<
          ["coil_input", "outdoor.C", "outdoor.board.DFT_2", HEAT, []]
      end
      lines
    end

    def termination
      lines = [["fan", "outdoor.OFM.R", "outdoor.OFM.C", DEFROST, %w[line_voltage starts_by_itself]]]
      lines << ["valve", "outdoor.C", "outdoor.board.RVS", DEFROST, []] if rig[:defrost_method] == "reverse_cycle"
      lines << ["hot_gas", "outdoor.C", "outdoor.board.HGS", DEFROST, []] if rig[:defrost_method] == "hot_gas"
      return lines if rig[:backup] == "none"

      lines +
        [
          ["w2_out", "outdoor.C", "outdoor.W2_out", DEFROST, []],
          ["w", "air_handler.C", "air_handler.W", DEFROST, %w[strips]]
        ]
    end

    def expected(id, from, to, call, cautions)
      stands = call == HEAT ? condition(call) : Condition.new(call: call)
      solved = Trace.new(rig, stands)
      return nil unless solved.netlist.node?(from) && solved.netlist.node?(to)

      reading, reason = solved.reading(from, to)
      unknown = %w[coil_switch coil_input].include?(id) && by_coil.empty? && !moment.switches.key?("DFT")
      Line.new(
        id: id,
        title: Catalogue.words("defrost.check_#{id}"),
        from_node: from,
        to_node: to,
        condition: stands.to_json_hash,
        cautions: cautions,
        expected_volts_ac: unknown ? nil : reading.volts_ac,
        low_volts_ac: unknown ? nil : reading.low_volts_ac,
        high_volts_ac: unknown ? nil : reading.high_volts_ac,
        says: unknown ? Catalogue.words("defrost.check_undetermined") : reason.says
      )
    end
  end
end
