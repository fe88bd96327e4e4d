# frozen_string_literal: true

module Gorvant
  module Server
    # The library of rigs: list, show, import, export, and a trace of one without a visit.
    class RigsResource < Resource
      get "/api/rigs" do
        json(rigs: rigs.all.map { |row| Present.rig(row) })
      end

      post "/api/rigs" do
        input = RigRequest.parse(body_json)
        rig = Formats::RigJson.read(body_json.fetch("rig"))
        row, first_time = rigs.create(input[:id], body_json, rig)
        created Present.rig(row), first_time
      end

      get "/api/rigs/:id" do
        row = rigs.find(params[:id])
        json Present.rig(row).merge(content: row[:content].to_hash)
      end

      get "/api/rigs/:id/export" do
        row = rigs.find(params[:id])
        attachment "#{row[:name].downcase.gsub(/[^a-z0-9]+/, '-').slice(0, 60)}.gorvant-rig.json"
        json JSON.pretty_generate(row[:content].to_hash)
      end

      post "/api/rigs/:id/trace" do
        row = rigs.find(params[:id])
        answer_trace(rigs.value(row), row[:digest])
      end

      post "/api/rigs/:id/measurement" do
        answer_measurement(rigs.value(rigs.find(params[:id])))
      end
    end
  end
end
