# frozen_string_literal: true

module Gorvant
  module Server
    # Visits, what their rig does under a condition, and what the meter should show there.
    class VisitsResource < Resource
      circuit_routes "/api/visits", :visits

      get "/api/visits" do
        rows, further = visits.page(before: params["before"]&.to_s)
        json(visits: rows.map { |row| Present.visit(row) }, next: further)
      end

      post "/api/visits" do
        input = VisitRequest.parse(body_json)
        row, first_time = db.transaction { visits.create(input[:id], body_json, fields(input)) }
        created Present.visit(row), first_time
      end

      get "/api/visits/:id" do
        json Present.visit(visits.find(params[:id]))
      end

      patch "/api/visits/:id" do
        input = VisitChangeRequest.parse(body_json)
        row = visits.find(params[:id]).merge(input.slice(:set_point_degrees_f))
        changes = input.except(:version)
        changes = changes.merge(remarked(row, Warm.rig(row))) if input.key?(:set_point_degrees_f)
        changes = changes.merge(found(row, input)) if input.key?(:as_found)
        changes = changes.merge(defrost(row, input, changes)) if input.key?(:defrost)
        json Present.visit(visits.change(row[:id], input[:version], changes))
      end

      # The visits to the same unit, newest first, this one among them.
      get "/api/visits/:id/history" do
        json(visits: visits.of_unit(visits.find(params[:id])[:unit_id]).map { |row| Present.visit(row) })
      end

      get "/api/units/:id/visits" do
        json(visits: visits.of_unit(sites.fetch_unit_id(params[:id])).map { |row| Present.visit(row) })
      end

      # The rig file that the visit goes by: its own revision, not the newest.
      get "/api/visits/:id/rig" do
        row = visits.alone(params[:id])
        json(rig_id: row[:rig_id], revision: row[:revision_number], content: Formats::RigJson.dump(Warm.rig(row)))
      end

      # What is fitted, changed at the unit: a new revision of the rig, and the visit goes on with it.
      post "/api/visits/:id/fitted" do
        input = FittedRequest.parse(body_json)
        rig = Formats::RigJson.read(body_json.fetch("rig"))
        Target.refuse!(rig)
        row =
          db.transaction do
            visit = visits.find(params[:id])
            revision = rigs.append(visit[:rig_id], input[:revision], rig)
            visits.change(visit[:id], input[:version], rig_revision_id: revision, **remarked(visit, rig))
          end
        json Present.visit(row), 201
      end

      private

      # Over a point stands what was read there to C, over a device what was read across it.
      def taken_for(row, input)
        return {} unless input[:view] == "focus"

        mine = readings.standing_in(row[:id], condition(input[:condition], row).call)
        {
          taken:
            mine.to_h do |one|
              [
                Present.taken_at(one),
                "#{format("%.1f", one[:value_volts_ac])} #{one[:verdict] == "agrees" ? "=" : "≠"}"
              ]
            end
        }
      end

      def fields(input)
        source = rig_revision(input)
        unit_id =
          (
            if input[:unit_id]
              sites.fetch_unit_id(input[:unit_id])
            else
              sites.unit_id(input[:site_name].strip, input[:unit_name].strip)
            end
          )
        input.slice(:visit_on, :complaint, :symptoms, :outdoor_degrees_f).merge(
          unit_id: unit_id,
          rig_revision_id: source
        )
      end

      def rig_revision(input)
        return rigs.find(input[:rig_id])[:revision_id] if input[:rig_id]
        return visits.find(input[:as_visit_id])[:rig_revision_id] if input[:as_visit_id]

        # A usual kit becomes the unit's own rig; its id follows from the visit's, so that a retry makes no second one.
        where =
          (
            if input[:unit_id]
              sites.title_of_unit(input[:unit_id])
            else
              "#{input[:site_name].strip}, #{input[:unit_name].strip}"
            end
          )
        rig = Composer.compose(name: where[0, 120], facts: Catalogue.kits.fetch(input[:kit]).fetch("facts"))
        content = Formats::RigJson.dump(rig)
        rigs.create(kit_rig_id(input[:id]), content, rig).first[:revision_id]
      end

      def kit_rig_id(visit_id)
        hex = Digest::SHA256.hexdigest("gorvant kit of visit #{visit_id.downcase}")
        [hex[0, 8], hex[8, 4], "5#{hex[13, 3]}", "8#{hex[17, 3]}", hex[20, 12]].join("-")
      end

      # What was found, checked against the visit's rig, with the marks that follow.
      def found(row, input)
        rig = Warm.rig(row)
        as_found = AsFound.parse(deep_strings(input[:as_found]), rig)
        { as_found: as_found.to_json_hash, found_marks: VisitRecords.found_marks(row, rig, as_found) }
      end

      # A forced test is closed only with every jumper accounted for.
      def defrost(row, input, changes)
        record = deep_strings(input[:defrost])
        test = record["test"] && ForcedTest.new(Warm.rig(row), ForcedTest.parse(record["test"]))
        test&.refuse_close!
        Array(record["earlier"]).each { |one| ForcedTest.parse(one) }
        marks = changes.fetch(:found_marks) { row[:found_marks].to_h }
        { defrost: record, found_marks: marks.merge(VisitRecords.defrost_mark(row, Warm.rig(row), record)) }
      end

      # With another rig the same record may find other things; one that no longer fits it is told of, not lost.
      def remarked(visit, rig)
        { found_marks: VisitRecords.found_marks(visit, rig, AsFound.parse(visit[:as_found].to_hash, rig)) }
      end
    end
  end
end
