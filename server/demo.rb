# frozen_string_literal: true

require "yaml"

module Gorvant
  module Server
    # Made-up data to try the product with: the village of Larkmere. Loaded once on the first start, removed and brought
    # back by one action each. What a user made is never touched.
    class Demo
      FILES = File.join(ROOT, "db", "demo")
      LOADED = "demo_loaded"

      # records: whether with the loggers' records, which keep a worker at it for a while.
      def initialize(db, viewer, records: true)
        @records = records
        @db = db
        @viewer = viewer.with(client: Events::QUIET)
      end

      # A drill that asks follows from its seed and rig; a process that loads the demo again makes it once.
      def self.made(about, row)
        (@made ||= {})[[about, row[:digest]]] ||= Practice::Quiz.drill(
          *about.values_at("form", "subject", "level", "seed"),
          Warm.rig(row)
        )
      end

      def present? = @db[:visits].where(crew_id: @viewer.crew_id, demo: true).any?

      # On the first start of an installation only: a user who removed it keeps it removed.
      def load_once
        return if @db[:settings].where(name: LOADED).any?

        load
      end

      # Puts in what is missing. How much that is, is known: it is seen through, however slow the machine is.
      def load = Patience.with(nil) { fill }

      # Takes out demo visits, and demo rigs, units and sites that no other visit needs.
      def remove
        @db.transaction do
          mine = { crew_id: @viewer.crew_id, demo: true }
          %i[visits logs courses].each { |table| @db[table].where(mine).delete }
          # Where somebody has been at a drill, what they did stays, and so does the drill.
          untouched = { crew_id: @viewer.crew_id, made_by: "demo" }
          @db[:drills].where(untouched).exclude(id: @db[:drill_tries].select(:drill_id)).delete
          used_by_visits = @db[:rig_revisions].where(id: @db[:visits].select(:rig_revision_id)).select(:rig_id)
          {
            rigs: used_by_visits,
            units: @db[:visits].select(:unit_id),
            sites: @db[:units].select(:site_id)
          }.each { |table, used| @db[table].where(mine).exclude(id: used).delete }
        end
      end

      private

      def fill
        @db.transaction do
          rigs = Dir[File.join(FILES, "rigs", "*.json")].to_h { |path| rig(path) }
          YAML.safe_load_file(File.join(FILES, "visits.yml")).each { |visit| visit(visit, rigs) }
          YAML.safe_load_file(File.join(FILES, "logs.yml")).each { |log| log(log) } if @records
          practice(YAML.safe_load_file(File.join(FILES, "practice.yml")), rigs)
          @db[:settings].insert_conflict.insert(name: LOADED, value: Sequel.pg_jsonb_wrap(true))
        end
      end

      # [file name, id]; ids follow from the names, so that a second load finds the first.
      def rig(path)
        name = File.basename(path, ".json")
        content = JSON.parse(File.read(path, encoding: "UTF-8"))
        id = id_for("rig", name)
        Rigs.new(@db, @viewer).create(id, content, Formats::RigJson.read(content), demo: true) unless there?(:rigs, id)
        [name, id]
      end

      def there?(table, id) = @db[table].where(crew_id: @viewer.crew_id, id: id).any?

      def visit(visit, rigs)
        id = id_for("visit", visit.fetch("site") + visit.fetch("visit_on"))
        return if there?(:visits, id)

        sites = Sites.new(@db, @viewer)
        unit = sites.unit_id(visit.fetch("site"), visit.fetch("unit"), demo: true)
        rig = Rigs.new(@db, @viewer).find(rigs.fetch(visit.fetch("rig")))
        row, =
          Visits.new(@db, @viewer).create(
            id,
            visit,
            unit_id: unit,
            rig_revision_id: rig[:revision_id],
            **taken_down(visit),
            demo: true
          )
        keep(row, kept(visit), Warm.rig(rig))
        visit.fetch("readings", []).each_with_index { |reading, i| reading(row, reading, i) }
        told(unit, visit)
        close(row, visit["close_out"]) if visit["close_out"]
      end

      def taken_down(visit)
        {
          visit_on: visit.fetch("visit_on"),
          complaint: visit.fetch("complaint"),
          symptoms: visit.fetch("symptoms"),
          outdoor_degrees_f: visit["outdoor_degrees_f"],
          set_point_degrees_f: visit["set_point_degrees_f"],
          room_degrees_f: visit["room_degrees_f"],
          safety: visit.fetch("safety", [])
        }
      end

      # A made-up record of a unit: the stand-in logger's, which the worker reads as any other.
      def log(log)
        id = id_for("log", log.fetch("name"))
        return if there?(:logs, id)

        unit = Sites.new(@db, @viewer).unit_id(log.fetch("site"), log.fetch("unit"), demo: true)
        Logs.new(@db, @viewer).create(id, log, unit_id: unit, name: log.fetch("name"), demo: true)
        @db[:logs].where(id: id).update(state: "reading")
        made_up = log.slice("rig", "actual", "log", "zone")
        Tasks.new(@db, @viewer).ask(ReadLog::KIND, id, { "log_id" => id, "made_up" => made_up })
      end

      # Drills that ask are made at once, benches by the worker; a course hands the first out.
      def practice(given, rigs)
        ids = given.fetch("asked").map { |about| asked(about, rigs.fetch(about.fetch("rig"))) }
        course = id_for("course", given.fetch("course"))
        unless there?(:courses, course)
          Courses.new(@db, @viewer).make(
            course,
            given,
            name: given.fetch("course"),
            drill_ids: ids,
            learner_ids: [],
            demo: true
          )
        end
        given.fetch("benches").each { |about| bench(about, rigs.fetch(about.fetch("rig"))) } if @records
      end

      def asked(about, rig_id)
        id = id_for("drill", about.to_s)
        return id if there?(:drills, id)

        row = Rigs.new(@db, @viewer).find(rig_id)
        drill = self.class.made(about, row)
        Drills.new(@db, @viewer).keep(id, about, drill, row, made_by: "demo").first[:id]
      end

      def bench(about, rig_id)
        id = id_for("drill", about.to_s)
        return if there?(:drills, id)

        who = { "drill_id" => id, "rig_id" => rig_id, "crew_id" => @viewer.crew_id, "user_id" => @viewer.user_id }
        asked = about.slice("subject", "level").merge(who, "made_up" => true)
        Tasks.new(@db, @viewer).ask(MakeDrill::KIND, Computed.key(MakeDrill::KIND, id), asked)
      end

      # What a visit knows of its unit, where nothing is known yet.
      def told(unit, visit)
        notes, year = visit.values_at("notes", "installed_year")
        @db[:units].where(id: unit, notes: "").update(notes: notes) if notes
        @db[:units].where(id: unit, installed_year: nil).update(installed_year: year) if year
      end

      # Closed as a technician would: every call as expected but for those that are named, all put back.
      def close(row, close_out)
        closer = Closer.new(@db, @viewer)
        visits = Visits.new(@db, @viewer)
        record = closer.record(visits.find(row[:id]))
        calls = Outputs.calls(record.rig).to_h { |id| [id, { "how" => "run", "as" => "expected" }] }
        lines = Desks.put_back(record.with(kept: record.kept.merge("close_out" => close_out)))
        content = {
          **close_out,
          "calls" => calls.merge(close_out.fetch("calls", {})),
          "put_back" => lines.to_h { |line| [line.id, "back"] }.merge(close_out.fetch("put_back", {}))
        }
        keep(row, record.kept.merge("close_out" => content), record.rig)
        closer.close(visits.find(row[:id]), id_for("closing", row[:id]), close_out, after: 0)
      end

      # What the made-up visit found, as a technician would enter it: { desk => what it keeps }.
      def kept(visit)
        as_found = visit.fetch("as_found", {})
        {
          "wiring" => as_found.except("settings"),
          "thermostat" => {
            "settings" => as_found["settings"],
            "bench" => visit["bench"],
            "labels" => visit["setting_labels"]
          }.compact,
          "defrost" => visit.fetch("defrost", {})
        }.reject { |_desk, content| content.empty? }
      end

      def keep(row, kept, rig)
        desks = VisitDesks.new(@db, @viewer)
        kept = kept.to_h { |desk, content| [desk, Desks.keep(desk, content, rig)] }
        held = VisitDesks::Rows.new(@db, row[:id]).versions
        kept.each { |desk, content| desks.keep(row[:id], desk, held.fetch(desk), content) unless held[desk].positive? }
        desks.remark(row[:id], *VisitRecords.marks(row, rig, kept)) if kept.any?
      end

      def reading(visit, reading, index)
        condition = Condition.parse(reading.fetch("condition"))
        trace = Trace.new(Visits.new(@db, @viewer).rig(visit), condition)
        observation = Observation.parse(given(reading), trace)
        judged = Held.against(trace, observation)
        Readings.new(@db, @viewer).create(
          id_for("reading", "#{visit[:id]}#{index}"),
          reading,
          visit_id: visit[:id],
          rig_revision_id: visit[:rig_revision_id],
          condition: condition.to_json_hash,
          **ReadingRow.columns(observation, judged, Present.judged(judged)),
          taken_at: Time.iso8601(reading.fetch("at")),
          received_at: Time.iso8601(reading.fetch("at")),
          demo: true
        )
      end

      # A reading as visits.yml has it, as a page would send it.
      def given(reading)
        return reading.except("condition", "at") unless reading["volts"]

        {
          "function" => "volts_ac",
          "from_node" => reading["from"],
          "to_node" => reading["to"],
          "value" => reading["volts"],
          "instrument" => "high_impedance"
        }
      end

      def id_for(kind, name) = Ids.of("gorvant demo #{@viewer.crew_id} #{kind} #{name}")
    end
  end
end
