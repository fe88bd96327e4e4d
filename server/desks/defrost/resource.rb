# frozen_string_literal: true

module Gorvant
  module Server
    # The defrost desk of a visit: how it stands, schools side by side, the forced test, the sensors.
    class DefrostResource < Resource
      post "/api/visits/:id/defrost/outlook" do
        json answers.outlook(visits.alone(params[:id]), MomentRequest.parse(body_json || {}))
      end

      post "/api/visits/:id/defrost/schools" do
        json answers.schools(visits.alone(params[:id]), SchoolsRequest.parse(body_json))
      end

      post "/api/visits/:id/defrost/forced_test" do
        json answers.forced_test(visits.alone(params[:id]), ForcedTestRequest.parse(body_json))
      end

      post "/api/visits/:id/defrost/coil_switch" do
        json answers.coil_switch(visits.alone(params[:id]), CoilSwitchRequest.parse(body_json))
      end

      post "/api/visits/:id/defrost/thermistor" do
        visits.alone(params[:id])
        input = ThermistorRequest.parse(body_json)
        json answers.thermistor(input, sensor_tables.value(input[:table_id]), sensor_tables.values)
      end

      get "/api/sensor_tables" do
        json(tables: sensor_tables.values.map { |table| Present.sensor_table(table) })
      end

      # Looked at row by row; kept only when asked to, and only whole.
      post "/api/sensor_tables" do
        input = SensorTableRequest.parse(body_json)
        read =
          Formats::SensorTableCsv.read(
            input[:text],
            id: input.fetch(:id, "preview"),
            title: input[:name].strip,
            tolerance_degrees_f: input.fetch(:tolerance_degrees_f, 2.0)
          )
        kept = sensor_tables.create(input[:id], body_json, read.table) if input[:keep] && read.table
        json(
          {
            rows: read.rows,
            refused: read.refused,
            table: read.table && Present.sensor_table(read.table),
            kept: !kept.nil?
          },
          kept&.last ? 201 : 200
        )
      end

      post "/api/sensor_tables/:id/deletion" do
        sensor_tables.delete(params[:id])
        json(deleted: params[:id])
      end
    end
  end
end
