# frozen_string_literal: true

require "sinatra/base"

module Gorvant
  module Server
    # One noun of the API. A route is four sentences: read, load, compute, present.
    class Resource < Sinatra::Base
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
          "why" => :answer_why
        }.each { |question, answer| post("#{prefix}/:id/#{question}") { send(answer, send(rows).alone(params[:id])) } }
        Formats.of_run.each do |format|
          post("#{prefix}/:id/#{format::OF_RUN[:path]}") { answer_run(send(rows).alone(params[:id]), format) }
        end
        get("#{prefix}/:id/faults") { answer_faults(send(rows).alone(params[:id])) }
      end

      private

      def passkeys = Passkeys.new(door)

      def passkey_door
        return PasskeyDoor.new(passkeys, settings.opening) if settings.opening.passkeys?

        raise Refused.new(
                field: "/",
                problem: "passkeys need a server that others reach by a name with TLS (GORVANT_PUBLIC_URL)"
              )
      end

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
      def answers = Answers.new(computed, readings)
      def tasks = Tasks.new(db, viewer)
      def closings = Closings.new(db, viewer)

      def json(content, code = 200)
        status code
        content_type "application/json"
        Answers::Text.of(content, shown_units)
      end

      # Parsed JSON with what it speaks of in the units that were asked for.
      def in_units(content) = Answers::Text.in_units(content, shown_units)

      # Of °C, kPa and meters those that this browser's person chose, as "C kPa m".
      def shown_units = Measures.chosen(env["HTTP_X_UNITS"])

      def created(content, first_time) = json(content, first_time ? 201 : 200)

      def deep_strings(value) = answers.deep_strings(value)

      # The routes of `circuit_routes`: the body is read, Answers answers.
      def answer_trace(row) = json(answers.trace(row, TraceRequest.parse(body_json)))
      def answer_expected(row) = json(answers.expected(row, ExpectedRequest.parse(body_json)))
      def answer_measurement(row) = json(answers.measurement(row, MeasurementRequest.parse(body_json)))
      def answer_drawing(row) = json(answers.drawing(row, DrawingRequest.parse(body_json)))
      def answer_legend(row) = json(answers.legend(row, ConditionRequest.parse(body_json)))
      def answer_timeline(row) = json(answers.timeline(row, TimelineRequest.parse(body_json)))
      def answer_why(row) = json(answers.why(row, WhyRequest.parse(body_json)))
      def answer_way(row) = json(answers.way(row, WayRequest.parse(body_json)))
      def answer_faults(row) = json(answers.faults(row))

      # The same drawing as an SVG file.
      def answer_svg(row)
        scene, state = answers.scene(row, DrawingRequest.parse(body_json))
        text(Formats::Svg.dump(scene, state: state), "image/svg+xml")
      end

      # A run in one of the formats that there are.
      def answer_run(row, format) =
        text(format.dump(answers.run(row, TimelineRequest.parse(body_json))), format::OF_RUN[:type])

      def text(content, type)
        content_type type
        content
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
        trace = Warm.trace(row, answers.condition(input[:condition], row))
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
