# frozen_string_literal: true

module Gorvant
  module Server
    # What writes by itself: listed, let in, revoked.
    class DevicesResource < Resource
      get "/api/devices" do
        json(devices: devices.of(viewer.crew_id).map { |row| Present.device(row) })
      end

      post "/api/devices" do
        input = DeviceRequest.parse(body_json)
        row, token = devices.make(input[:id], viewer, name: input[:name].strip, scope: input[:scope])
        audit.add(viewer, "device", row[:name])
        json({ device: Present.device(row), token: token }, 201)
      end

      post "/api/devices/:id/revocation" do
        row = devices.revoke(viewer.crew_id, params[:id])
        audit.add(viewer, "device_revoked", row[:name])
        json Present.device(row)
      end

      # A device writes and reads nothing: what comes back says that it was taken, once.
      post "/api/devices/readings" do
        input = SampleRequest.parse(body_json)
        unless viewer.role == "readings"
          raise NotAllowed.new(problem: "this token is for rows of a logger, not for readings")
        end

        sample = Present.sample(input, viewer).transform_keys(&:to_s)
        first_time = Events.new(db).add(viewer, "device_reading", nil, sample, source_id: input[:id])
        created({ taken: input[:id] }, first_time)
      end

      # Rows of a logger, while it measures: onto a record that listens.
      post "/api/devices/rows" do
        input = LiveRowsRequest.parse(body_json)
        raise NotAllowed.new(problem: "this token is for no rows of a logger") unless viewer.role == "log_rows"

        rows = Formats::LiveRows.parse(*body_json.values_at("columns", "rows"), now: Time.now.to_f)
        log, fresh = LiveLogs.new(db, viewer).take(input[:record_id], rows)
        json({ new: fresh, known: rows.rows.size - fresh, rows: log[:told]["rows"] }, fresh.positive? ? 201 : 200)
      end

      # A meter that is not there, at a visit of the demo data: what it would show between the probes that the page has
      # placed is worked out here. It says "now" and learns nothing.
      post "/api/devices/stand-in" do
        input = StandInRequest.parse(body_json)
        raise NotAllowed.new(problem: "this token is for no stand-in of a meter") unless viewer.role == "stand_in"

        visit_id, sample = input[:try_id] ? of_try(input) : of_visit(input)
        first_time = Events.new(db).add(viewer, "device_reading", visit_id, sample, source_id: input[:id]) if sample
        created({ taken: input[:id] }, first_time)
      end

      private

      def of_visit(input)
        visit = visits.alone(input[:visit_id])
        raise NotAllowed.new(problem: "a stand-in measures visits of the demo data alone") unless visit[:demo]

        [visit[:id], StandIn.new(db, visit).sample(input, viewer)]
      end

      # At a drill the probes on two points are a test like any other: it takes its minutes, once for each place.
      def of_try(input)
        try = drill_tries.find(input[:try_id])
        [nil, DrillStandIn.new(db, drill_tries, try, drills.find(try[:drill_id])).sample(input, viewer)]
      end

      def devices = Devices.new(door)
    end
  end
end
