# frozen_string_literal: true

require "sinatra/base"

module Gorvant
  module Server
    # One noun of the API. A route is four sentences: read, load, compute, present.
    class Resource < Sinatra::Base
      # What people wrote themselves, and get back as they wrote it.
      OWN_WORDS = %w[complaint note name rig_name site content desks labels as_found text own handover].freeze

      set :show_exceptions, false
      set :raise_errors, false
      set :dump_errors, false # Journal writes them, without what people typed
      set :protection, false # App has its own, in front of everything
      set :host_authorization, {}
      set :logging, false
      set :static, false

      error(Gorvant::Error) { halt(*Problem.response(env["sinatra.error"], env)) }

      error(*Database::ERRORS) { Database.away?(env["sinatra.error"]).then { |how| how ? away(how) : broke } }

      error { broke }

      # The questions that a circuit answers, whether it is reached by a rig or by a visit: `rows` names the repository
      # whose row carries the rig's content and digest.
      def self.circuit_routes(prefix, rows)
        {
          "trace" => :answer_trace,
          "expected" => :answer_expected,
          "measurement" => :answer_measurement,
          "spice" => :answer_spice,
          "alike" => :answer_alike,
          "drawing" => :answer_drawing,
          "svg" => :answer_svg,
          "legend" => :answer_legend,
          "way" => :answer_way,
          "timeline" => :answer_timeline,
          "why" => :answer_why,
          "vcd" => :answer_vcd,
          "events" => :answer_events
        }.each { |question, answer| post("#{prefix}/:id/#{question}") { send(answer, send(rows).alone(params[:id])) } }
        get("#{prefix}/:id/faults") { answer_faults(send(rows).alone(params[:id])) }
      end

      private

      def broke
        Journal.broke(env["sinatra.error"], env)
        halt(
          *Problem.plain(
            500,
            "Server error",
            "Something went wrong here, and it was written down. What you sent is still with you; " \
              "nothing of it was kept unless you see it here."
          )
        )
      end

      # A connection that was never there wrote nothing; one that broke may have.
      def away(how)
        reads = %w[GET HEAD].include?(env["REQUEST_METHOD"])
        halt(*Problem.unavailable(reads || how == :refused ? "nothing" : "unknown", env))
      end

      def db = settings.db
      def door = settings.door
      def audit = AuditTrail.new(db)
      def viewer = env.fetch(Access::VIEWER)
      def body_json = env[Guard::PARSED]
      def rigs = Rigs.new(db, viewer)
      def visits = Visits.new(db, viewer)
      def visit_desks = VisitDesks.new(db, viewer)
      def readings = Readings.new(db, viewer)
      def sites = Sites.new(db, viewer)
      def units = Units.new(db, viewer)
      def photos = Photos.new(db, viewer)
      def profiles = SettingProfiles.new(db, viewer)
      def sensor_tables = SensorTables.new(db, viewer)
      def logs = Logs.new(db, viewer)
      def drills = Drills.new(db, viewer)
      def drill_tries = DrillTries.new(db, viewer)
      def courses = Courses.new(db, viewer)
      def computed = Computed.new(db)
      def tasks = Tasks.new(db, viewer)
      def closings = Closings.new(db, viewer)

      def json(content, code = 200)
        status code
        content_type "application/json"
        return in_degrees(content).to_json if env["HTTP_X_DEGREES"] == "C"

        (content.is_a?(String) ? content : JSON.generate(content)).delete(Degrees::MARK)
      end

      # Parsed JSON with the temperatures that it speaks of in the unit that was asked for.
      def in_degrees(content)
        Degrees.all(
          JSON.parse(content.is_a?(String) ? content : JSON.generate(content)),
          env["HTTP_X_DEGREES"] == "C" ? "C" : "F",
          own: OWN_WORDS
        )
      end

      def created(content, first_time) = json(content, first_time ? 201 : 200)

      # Keys as they came in JSON, from a parsed condition. row: a rig's, or a visit's, whose weather holds where the
      # condition says none. What the rig does not follow is left out, so that answers which are the same are worked out
      # once.
      def condition(hash, row)
        given = deep_strings(hash)
        weather =
          (
            if row[:outdoor_degrees_f] && given.is_a?(Hash) && !given.key?("outdoor_degrees_f")
              { "outdoor_degrees_f" => row[:outdoor_degrees_f] }
            else
              {}
            end
          )
        Condition.parse(weather.empty? ? given : given.merge(weather)).for_rig(Warm.rig(row))
      end

      def deep_strings(value)
        case value
        when Hash
          value.to_h { |key, inner| [key.to_s, deep_strings(inner)] }
        when Array
          value.map { |inner| deep_strings(inner) }
        else
          value
        end
      end

      # What is live, worked out once for each rig revision and condition; with a drawing of it where one is asked for.
      def answer_trace(row)
        input = TraceRequest.parse(body_json)
        condition = condition(input[:condition], row)
        trace =
          computed.recall("trace", row[:digest], condition.to_json_hash) do
            JSON.generate(TracePresenter.new(Warm.trace(row, condition)).to_h)
          end
        return json(trace) unless input[:drawing]

        json("#{trace.delete_suffix("}")},\"scene\":#{drawing(row, condition, input[:drawing])}}")
      end

      # The table of what an instrument should show, point to point.
      def answer_expected(row)
        input = ExpectedRequest.parse(body_json)
        condition = condition(input[:condition], row)
        json(
          computed.recall("expected", row[:digest], condition.to_json_hash, input[:instrument]) do
            JSON.generate(TracePresenter.new(Warm.trace(row, condition)).expected(input[:instrument]))
          end
        )
      end

      # What the meter should show between two points: volts, or ohms with the power off.
      def answer_measurement(row)
        input = MeasurementRequest.parse(body_json)
        trace = Warm.trace(row, condition(input[:condition], row))
        points = input.values_at(:from_node, :to_node)
        if input[:function] == "ohms"
          return json(Present.ohms(trace.ohms(*points, isolated: input.fetch(:isolated, false))))
        end

        json Present.expected(*trace.reading(*points, input[:instrument]))
      end

      # One view of the circuit as a Scene.
      def answer_drawing(row)
        input = DrawingRequest.parse(body_json)
        json drawing(row, condition(input[:condition], row), input.except(:condition))
      end

      # A drawing as text. asked: view and options.
      def drawing(row, condition, asked)
        options = asked.except(:view).merge(taken_for(row, asked[:view], condition))
        computed.recall("drawing", row[:digest], condition.to_json_hash, asked[:view], options) do
          JSON.generate(ScenePresenter.new(Views.scene(asked[:view], Warm.trace(row, condition), options)).to_h)
        end
      end

      # The same as an SVG file.
      def answer_svg(row)
        input = DrawingRequest.parse(body_json)
        condition = condition(input[:condition], row)
        trace = Warm.trace(row, condition)
        options = input.except(:condition, :view).merge(taken_for(row, input[:view], condition))
        content_type "image/svg+xml"
        Formats::Svg.dump(Views.scene(input[:view], trace, options), state: Views.state_words(trace))
      end

      # Readings that stand in this call, by the points they were taken between: only a visit has any.
      def taken_for(_row, _view, _condition) = {}

      # Codes, symbols and line styles of the rig in hand, as they stand.
      def answer_legend(row)
        input = ConditionRequest.parse(body_json)
        condition = condition(input[:condition], row)
        json(
          computed.recall("legend", row[:digest], condition.to_json_hash) do
            JSON.generate(Present.legend(Warm.trace(row, condition)))
          end
        )
      end

      # What happens over time, thinned to what a width can show.
      def answer_timeline(row)
        input = TimelineRequest.parse(body_json)
        json(
          computed.recall("timeline", row[:digest], input) do
            timeline = timeline(row, input)
            JSON.generate(
              TimelinePresenter.new(
                timeline,
                from: input.fetch(:from_seconds, 0.0),
                to: [input.fetch(:to_seconds, Float::INFINITY), timeline.duration_seconds].min,
                width: input.fetch(:width, 1200)
              ).to_h
            )
          end
        )
      end

      # Why something is on or off at a time, and when it will be otherwise.
      def answer_why(row)
        input = WhyRequest.parse(body_json)
        timeline = timeline(row, input)
        json Present.why(
               Chain.new(timeline, input[:signal], [input[:at_seconds], timeline.duration_seconds].min),
               input[:at_seconds]
             )
      end

      def answer_vcd(row) = text(Formats::Vcd.dump(timeline(row, TimelineRequest.parse(body_json))), "text/plain")
      def answer_events(row) =
        text(Formats::TimelineCsv.dump(timeline(row, TimelineRequest.parse(body_json))), "text/csv")

      def timeline(row, input)
        script = Script.parse(deep_strings(input[:script]), input[:duration_seconds])
        Warm.timeline(row, script)
      end

      def text(content, type)
        content_type type
        content
      end

      # The shortest way for 24 V to a point, or what lies between two.
      def answer_way(row)
        input = WayRequest.parse(body_json)
        json Present.way(
               Way.new(Warm.trace(row, condition(input[:condition], row)), input[:to_node], input[:from_node])
             )
      end

      # Every single fault that the rig can have, with its words.
      def answer_faults(row)
        json(computed.recall("faults", row[:digest]) { JSON.generate(faults: Present.faults(Warm.rig(row))) })
      end

      # Which faults no voltage tells apart: the answer if it is known, else 202 and the task that works it out.
      def answer_alike(row)
        key = Alike.key(row[:digest])
        known = computed.get(key)
        return json(known) if known

        json(Present.task(tasks.ask(Alike::KIND, key, { "rig" => Formats::RigJson.dump(Warm.rig(row)) })), 202)
      end

      # The circuit under a condition as a SPICE deck.
      def answer_spice(row)
        input = ConditionRequest.parse(body_json)
        trace = Warm.trace(row, condition(input[:condition], row))
        content_type "text/plain"
        Formats::Spice.dump(
          trace.netlist,
          closed: trace.solution.closed,
          open: trace.solution.open,
          couplings: true,
          title: "#{trace.rig.name}: #{trace.condition.call}"
        )
      end
    end
  end
end
