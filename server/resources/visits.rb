# frozen_string_literal: true

module Gorvant
  module Server
    # Visits, what their rig does under a condition, and what the meter should show there.
    class VisitsResource < Resource
      circuit_routes "/api/visits", :visits

      # The engine that was packed with the pages, by its name.
      ENGINE =
        File
          .join(ROOT, "web", "dist", "engine", "engine.json")
          .then { |path| File.file?(path) ? JSON.parse(File.read(path))["engine"] : nil }

      get "/api/visits" do
        rows, further = visits.page(before: params["before"]&.to_s)
        json(visits: rows.map { |row| Present.visit(row) }, next: further)
      end

      post "/api/visits" do
        input = VisitRequest.parse(body_json)
        row, first_time = db.transaction { visits.create(input[:id], body_json, fields(input)) }
        FindTasks.new(tasks, computed, readings).ahead(visits.alone(row[:id])) if first_time
        created Present.visit(row), first_time
      end

      get "/api/visits/:id" do
        json Present.visit(visits.find(params[:id]))
      end

      patch "/api/visits/:id" do
        input = VisitChangeRequest.parse(body_json)
        row =
          db.transaction do
            visits.hold(params[:id])
            changed = visits.change(params[:id], input[:version], input.except(:version))
            remark(changed, Warm.rig(changed)) if input.key?(:set_point_degrees_f)
            changed
          end
        json Present.visit(row)
      end

      # What one desk keeps of the visit, on the version of that desk: its conflicts are its own.
      put "/api/visits/:id/desks/:desk" do
        desk = Desks.keeping.find { |id| id == params[:desk] }
        raise NotFound.new(thing: "desk that keeps something", id: params[:desk].to_s[0, 60]) unless desk

        input = DeskRequest.parse(body_json)
        row = visits.find(params[:id])
        content = Desks.keep(desk, deep_strings(input[:content]), Warm.rig(row))
        db.transaction do
          visits.hold(row[:id])
          visit_desks.keep(row[:id], desk, input[:version], content)
          remark(row, Warm.rig(row))
        end
        json Present.visit(visits.find(row[:id]))
      end

      # Where this person is in the visit, for the others who look at it. Not kept beyond the day.
      post "/api/visits/:id/here" do
        input = HereRequest.parse(body_json)
        visit = visits.alone(params[:id])
        Events.new(db).add(viewer, "here", visit[:id], { "user_id" => viewer.user_id, **deep_strings(input) })
        json(told: true)
      end

      post "/api/visits/:id/hands" do
        input = HandsRequest.parse(body_json)
        visit = visits.alone(params[:id])
        Events.new(db).add(viewer, "hands", visit[:id], { "user_id" => viewer.user_id, **deep_strings(input) })
        json(told: true)
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

      # What a device needs of it to answer without signal.
      get "/api/visits/:id/along" do
        row = visits.find(params[:id])
        whose = { by: viewer.name, crew: viewer.crew_name, marked: !People.new(door).mark(viewer.crew_id).nil? }
        json Answers::Along.of(row, computed, sensor_tables.values - ThermistorTable.all, ENGINE, whose)
      end

      # What is fitted, changed at the unit: a new revision of the rig, and the visit goes on with it.
      post "/api/visits/:id/fitted" do
        input = FittedRequest.parse(body_json)
        rig = Formats::RigJson.read(body_json.fetch("rig"))
        Target.refuse!(rig)
        row =
          db.transaction do
            visit = visits.find(params[:id])
            visits.hold(visit[:id])
            revision = rigs.append(visit[:rig_id], input[:revision], rig)
            changed = visits.change(visit[:id], input[:version], rig_revision_id: revision)
            remark(changed, rig)
            changed
          end
        json Present.visit(row), 201
      end

      private

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
          rig_revision_id: source,
          **carried(input, unit_id)
        )
      end

      # What the earlier visit to the same unit hands on, and what all that were closed found.
      def carried(input, unit_id)
        causes = closings.found_at(unit_id, input[:visit_on])
        told = handed_on(input[:as_visit_id], unit_id).merge(causes.empty? ? {} : { "causes" => causes })
        told.empty? ? {} : { carried: told }
      end

      def handed_on(earlier_id, unit_id)
        earlier = earlier_id && visits.find(earlier_id)
        return {} unless earlier && earlier[:unit_id] == unit_id

        record = VisitRecords.of(earlier, kept: earlier[:desks].kept)
        told = Carried.of(record, on: earlier[:visit_on].iso8601)
        told.size > 1 ? told : {}
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

      def kit_rig_id(visit_id) = Ids.of("gorvant kit of visit #{visit_id.downcase}")

      # With another rig or set point, or when one desk keeps another thing, the same records may find other things.
      def remark(visit, rig)
        kept = VisitDesks::Rows.new(db, visit[:id], visit[:carried]).kept
        visit_desks.remark(visit[:id], *VisitRecords.marks(visit, rig, kept)) if kept.any?
      end
    end
  end
end
