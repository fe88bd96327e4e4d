# frozen_string_literal: true

require "sinatra/base"

module Gorvant
  module Server
    # One noun of the API. A route is four sentences: read, load, compute, present.
    class Resource < Sinatra::Base
      set :show_exceptions, false
      set :raise_errors, false
      set :protection, false # App has its own, in front of everything
      set :host_authorization, {}
      set :logging, false
      set :static, false

      error(Gorvant::Error) { halt(*Problem.response(env["sinatra.error"])) }

      error do
        warn env["sinatra.error"].full_message(highlight: false)
        halt(*Problem.plain(500, "Server error", "Something went wrong here. Nothing was kept of this request."))
      end

      private

      def db = settings.db
      def viewer = env["gorvant.viewer"] ||= Viewer.local_owner(db)
      def body_json = env[Guard::PARSED]
      def rigs = Rigs.new(db, viewer)
      def visits = Visits.new(db, viewer)
      def readings = Readings.new(db, viewer)
      def sites = Sites.new(db, viewer)
      def computed = Computed.new(db)
      def tasks = Tasks.new(db, viewer)

      def json(content, code = 200)
        status code
        content_type "application/json"
        content.is_a?(String) ? content : JSON.generate(content)
      end

      def created(content, first_time) = json(content, first_time ? 201 : 200)

      # Keys as they came in JSON, from a parsed condition.
      def condition(hash) = Condition.parse(deep_strings(hash))

      def deep_strings(value)
        case value
        when Hash then value.to_h { |key, inner| [key.to_s, deep_strings(inner)] }
        when Array then value.map { |inner| deep_strings(inner) }
        else value
        end
      end

      # JSON text of a trace, computed once for each rig revision, condition and instrument.
      def trace_text(rig, digest, condition, instrument)
        computed.fetch("trace", digest, condition.to_json_hash, instrument) { JSON.generate(TracePresenter.new(Trace.new(rig, condition), instrument).to_h) }
      end

      def answer_trace(rig, digest)
        input = TraceRequest.parse(body_json)
        json trace_text(rig, digest, condition(input[:condition]), input.fetch(:instrument, "high_impedance"))
      end

      def answer_measurement(rig)
        input = MeasurementRequest.parse(body_json)
        trace = Trace.new(rig, condition(input[:condition]))
        points = input.values_at(:from_node, :to_node)
        return json(Present.ohms(trace.ohms(*points, isolated: input.fetch(:isolated, false)))) if input[:function] == "ohms"

        json Present.expected(*trace.reading(*points, input[:instrument]))
      end

      # Every single fault that the rig can have, with its words.
      def answer_faults(rig, _digest)
        json(computed.fetch("faults") { JSON.generate(faults: Present.faults(rig)) })
      end

      # Which faults no voltage tells apart: the answer if it is known, else 202 and the task that works it out.
      def answer_alike(content, digest)
        known = computed.get(Alike.key(digest))
        return json(known) if known

        json(Present.task(tasks.ask(Alike::KIND, Alike.key(digest), { "rig" => content })), 202)
      end

      # The circuit under a condition as a SPICE deck.
      def answer_spice(rig)
        input = TraceRequest.parse(body_json)
        trace = Trace.new(rig, condition(input[:condition]))
        content_type "text/plain"
        Formats::Spice.dump(trace.netlist, closed: trace.solution.closed, open: trace.solution.open, couplings: true, title: "#{rig.name}: #{trace.condition.call}")
      end
    end
  end
end
