# frozen_string_literal: true

module Gorvant
  module Server
    # The library of rigs: list, show, import, export, and a trace of one without a visit.
    class RigsResource < Resource
      circuit_routes "/api/rigs", :rigs

      get "/api/rigs" do
        json(rigs: rigs.all.map { |row| Present.rig(row) })
      end

      post "/api/rigs" do
        input = RigRequest.parse(body_json)
        rig = Formats::RigJson.read(body_json.fetch("rig"))
        Target.refuse!(rig)
        row, first_time = rigs.create(input[:id], body_json, rig)
        created Present.rig(row), first_time
      end

      get "/api/rigs/:id" do
        row = rigs.find(params[:id])
        json Present.rig(row).merge(content: row[:content].to_hash)
      end

      get "/api/rigs/:id/export" do
        row = rigs.find(params[:id])
        attachment "#{row[:name].downcase.gsub(/[^a-z0-9]+/, "-").slice(0, 60)}.gorvant-rig.json"
        json JSON.pretty_generate(row[:content].to_hash)
      end

      get "/api/rigs/:id/revisions" do
        rows = rigs.revisions(params[:id])
        values = rows.to_h { |row| [row[:number], rigs.value(row)] }
        json(
          revisions:
            rows.map do |row|
              Present.revision(row).merge(differences: differences(values[row[:number] - 1], values[row[:number]]))
            end
        )
      end

      post "/api/rigs/:id/revisions" do
        input = RevisionRequest.parse(body_json)
        rig = Formats::RigJson.read(body_json.fetch("rig"))
        Target.refuse!(rig)
        row = rigs.revise(params[:id], input[:version], rig)
        json Present.rig(row), 201
      end

      # Nothing is kept: the answers become a rig file and its drawing.
      post "/api/compositions" do
        input = CompositionRequest.parse(body_json)
        rig = composed(input[:name], body_json).tap { |asked| Target.crossed(asked) }
        call = Outputs.calls(rig).include?(input[:call]) ? input[:call] : "off"
        trace = Trace.new(rig, Condition.new(call: call))
        json(
          rig: Formats::RigJson.dump(rig),
          asked: Catalogue.facts.keys.select { |key| rig.asks?(key) },
          values: Catalogue.facts.keys.to_h { |key| [key, rig[key]] },
          call: call,
          preview: TracePresenter.new(trace).preview
        )
      end

      private

      def differences(before, after) = before ? Comparison.of(before, after).map(&:to_h) : []

      # Answers go through the rig file's own reader, so that a wrong one is told as in any file.
      def composed(name, body)
        base =
          body["base"] || { "schema" => Formats::RigJson::SCHEMA, "archetype" => "split_heat_pump", "cables" => [] }
        asked =
          Formats::RigJson.read(
            base.merge(
              "name" => name,
              "facts" => body["facts"],
              "cables" => [],
              "jumpers" => [],
              "terminal_names" => {
              }
            )
          )
        start = body["base"] ? Formats::RigJson.read(body["base"]) : asked
        Composer.recompose(start, asked.facts, name: name)
      end
    end
  end
end
