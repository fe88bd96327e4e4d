# frozen_string_literal: true

module Gorvant
  module Server
    # The defrost desk of a visit: how it stands, schools side by side, the forced test, the sensors.
    class DefrostResource < Resource
      post "/api/visits/:id/defrost/outlook" do
        row = visits.alone(params[:id])
        input = MomentRequest.parse(body_json || {})
        json(
          computed.recall(
            "outlook",
            row[:digest],
            input,
            row[:outdoor_degrees_f],
            input[:as_found] ? row[:desks].as_found : nil
          ) { JSON.generate(Present.outlook(outlook(row, input))) }
        )
      end

      post "/api/visits/:id/defrost/schools" do
        row = visits.alone(params[:id])
        input = SchoolsRequest.parse(body_json)
        history =
          input[:text] ? Formats::RunHistoryCsv.read(input[:text]) : RunHistory.parse(deep_strings(input[:history]))
        profile = ClockProfile.of(Warm.rig(row))
        schools =
          Schools.new(
            history,
            profile,
            seen: input.fetch(:seen, []).map(&:to_f),
            counts_on: deep_strings(input.fetch(:counts_on, {}))
          )
        json Present.schools(history, schools, profile)
      end

      post "/api/visits/:id/defrost/forced_test" do
        row = visits.alone(params[:id])
        input = ForcedTestRequest.parse(body_json)
        record = ForcedTest.parse(deep_strings(input[:test]))
        json(
          computed.recall("forced_test", row[:digest], record.to_h) do
            JSON.generate(Present.forced_test(ForcedTest.new(Warm.rig(row), record)))
          end
        )
      end

      post "/api/visits/:id/defrost/coil_switch" do
        rig = Warm.rig(visits.alone(params[:id]))
        input = CoilSwitchRequest.parse(body_json)
        own = CoilSwitch.of(rig)
        switch =
          CoilSwitch.new(
            closes_degrees_f: input.fetch(:closes_degrees_f, own.closes_degrees_f),
            opens_degrees_f: input.fetch(:opens_degrees_f, own.opens_degrees_f),
            inclusive: own.inclusive
          )
        points =
          input[:points].map do |point|
            CoilSwitch::Noted.new(degrees_f: point["degrees_f"].to_f, state: point["state"])
          end
        json(
          closes_degrees_f: switch.closes_degrees_f,
          opens_degrees_f: switch.opens_degrees_f,
          verdicts: Present.verdicts(switch.check(points, assumed: assumed(rig, input, switch)))
        )
      end

      post "/api/visits/:id/defrost/thermistor" do
        visits.alone(params[:id])
        input = ThermistorRequest.parse(body_json)
        table = sensor_tables.value(input[:table_id])
        points =
          input[:points].map do |point|
            ThermistorTable::Point.new(
              degrees_f: point["degrees_f"].to_f,
              ohms: point["ohms"].is_a?(Numeric) ? point["ohms"].to_f : Float::INFINITY
            )
          end
        verdicts = table.check(points, others: sensor_tables.values)
        verdicts << ThermistorTable.pair(*input[:pair].values_at(:coil_degrees_f, :air_degrees_f)) if input[:pair]
        json(
          verdicts: Present.verdicts(verdicts),
          table: Present.sensor_table(table),
          points: points.map { |point| Present.measured(table, point) }
        )
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

      private

      def outlook(row, input)
        rig = Warm.rig(row)
        faults =
          input[:as_found] ? WiringCheck.new(rig, AsFound.parse(row[:desks].as_found, rig)).faults_on_recorded : []
        switches = Condition.parse("switches" => deep_strings(input.fetch(:switches, {}))).switches
        outdoor =
          input[:outdoor_degrees_f] || row[:outdoor_degrees_f] || Catalogue.profile.dig("bench", "outdoor_degrees_f")
        moment =
          DefrostOutlook::Moment.new(
            call: input.fetch(:call, "heat"),
            outdoor_degrees_f: outdoor,
            coil_degrees_f: input[:coil_degrees_f],
            counted_minutes: input[:counted_minutes],
            switches: switches,
            faults: faults
          )
        DefrostOutlook.new(rig, moment)
      end

      # Points that nobody has read off the switch are the profile's.
      def assumed(rig, input, switch)
        read =
          input.key?(:closes_degrees_f) ||
            %w[coil_switch_closes_degrees_f coil_switch_opens_degrees_f].all? do |key|
              rig.facts[key] && !rig.facts[key].assumed?
            end
        if read
          []
        else
          [
            Catalogue.words(
              "sensor.points_assumed",
              closes: format("%g", switch.closes_degrees_f),
              opens: format("%g", switch.opens_degrees_f)
            )
          ]
        end
      end
    end
  end
end
