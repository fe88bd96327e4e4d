# frozen_string_literal: true

module Gorvant
  module Server
    # What loggers wrote down of a unit, how it is judged, and what another setting would cost.
    class RecordedResource < Resource
      get "/api/visits/:id/logs" do
        row = visits.alone(params[:id])
        json(logs: logs.of_unit(row[:unit_id]).map { |log| Present.log(log) })
      end

      post "/api/visits/:id/logs" do
        row = visits.alone(params[:id])
        input = NewLogRequest.parse(body_json)
        zone = input[:live] && input[:live][:zone]
        Formats::FieldLogClock.zone(zone) if zone
        log, first_time =
          logs.create(input[:id], body_json, unit_id: row[:unit_id], name: input[:name].strip, zone: zone)
        created(Present.log(log), first_time)
      end

      get "/api/logs/:id" do
        json Present.log(logs.find(params[:id]))
      end

      get "/api/logs/:id/parts" do
        json(files: logs.parts(params[:id]).map { |file, numbers| { file: file, numbers: numbers } })
      end

      post "/api/logs/:id/files/:file/parts/:number" do
        logs.keep_part(params[:id], params[:file].to_i, params[:number].to_i, body_json.to_s)
        json({ kept: params[:number].to_i }, 201)
      end

      # What the first part of the first file looks like, and how its columns would be read.
      post "/api/logs/:id/look" do
        input = LookAtLogRequest.parse(body_json || {})
        head = Formats::FieldLogHead.guess(first_bytes(logs.find(params[:id])))
        mapping = Formats::FieldLogMapping.guess(head, zone: input.fetch(:zone, "UTC"))
        json Present.log_head(head, mapping, logs.type(head.names))
      end

      # Reads the parts that have come by a mapping; a task.
      post "/api/logs/:id/reading" do
        row = logs.find(params[:id])
        input = ReadLogRequest.parse(body_json)
        head = Formats::FieldLogHead.guess(first_bytes(row))
        given = deep_strings(input[:mapping]).merge("names" => head.names, "encoding" => head.encoding)
        mapping = Formats::FieldLogMapping.parse(given, head.names.size)
        logs.check_whole(row[:id], input[:parts])
        task =
          db.transaction do
            read = logs.begin_reading(row[:id], mapping)
            tasks.ask(
              ReadLog::KIND,
              Computed.key(ReadLog::KIND, read[:id], read[:version]),
              { "log_id" => read[:id], "parts" => input[:parts] }
            )
          end
        json(Present.task(task), 202)
      end

      # A record of live rows listens no more; a task reads it as a whole.
      post "/api/logs/:id/closing" do
        task =
          db.transaction do
            row = LiveLogs.new(db, viewer).close(params[:id])
            tasks.ask(ReadLive::KIND, Computed.key(ReadLive::KIND, row[:id], row[:version]), { "log_id" => row[:id] })
          end
        json(Present.task(task), 202)
      end

      post "/api/logs/:id/deletion" do
        logs.delete(params[:id])
        json(deleted: params[:id])
      end

      # Least and most of every pixel.
      post "/api/logs/:id/picture" do
        row = read_log(params[:id], %w[read live])
        input = LogPictureRequest.parse(body_json)
        raise Refused.new(field: "/to", problem: "has to be after “from”") unless input[:to] > input[:from]

        json logs.picture(row, input[:columns], input[:from].to_f, input[:to].to_f, input[:width])
      end

      # Run cycles, defrosts and what they say of this unit's board; 202 and the task while they are being found.
      post "/api/visits/:id/logs/:log/judgement" do
        row = visits.alone(params[:id])
        log = log_of(row, params[:log])
        rig = Warm.rig(row)
        profile = ClockProfile.of(rig)
        story = computed.get(ReadStory.key(log, profile)) or return json(Present.task(ask_story(log, profile)), 202)
        json(
          computed.recall("judgement", log[:id], log[:version], row[:digest]) do
            JSON.generate(Present.judgement(log, RecordedStory.from(JSON.parse(story)), rig))
          end
        )
      end

      # A year under every setting; 202 and the task while it is being worked out.
      post "/api/visits/:id/planner" do
        row = visits.alone(params[:id])
        input = PlannerRequest.parse(body_json || {})
        climate = deep_strings(input.fetch(:climate, { "kind" => "lake_village" }))
        Formats::ClimateCsv.climate(climate) # said now, not by the task
        record = input[:log_id] ? record_of(row, input[:log_id]) : nil
        return json(Present.task(record), 202) if record && record[:state] # its runs are being found first

        key = Computed.key(Plan::KIND, row[:digest], climate, record)
        answer = computed.get(key) or return json(Present.task(ask_plan(row, key, climate, record)), 202)
        json(answer)
      end

      private

      def ask_plan(row, key, climate, record)
        rig = Formats::RigJson.dump(Warm.rig(row))
        tasks.ask_anew(Plan::KIND, key, row[:id], { "rig" => rig, "climate" => climate, "record" => record })
      end

      # What a plan needs of a record of the visit's unit, or the task that makes it.
      def record_of(row, log_id)
        log = log_of(row, log_id)
        profile = ClockProfile.of(Warm.rig(row))
        key = ReadStory.key(log, profile)
        computed.get(key) ? { "log_id" => log[:id], "name" => log[:name], "story_key" => key } : ask_story(log, profile)
      end

      def log_of(row, id)
        log = read_log(id)
        raise NotFound.new(thing: "record", id: id) unless log[:unit_id] == row[:unit_id]

        log
      end

      def read_log(id, states = ["read"])
        row = logs.find(id)
        good = states.include?(row[:state]) && row[:told]
        raise Refused.new(field: "/state", problem: "this record has not been read yet") unless good

        row
      end

      def first_bytes(row)
        bytes = logs.part(row[:id], 1, 1) or
          raise Refused.new(field: "/parts", problem: "part 1 of file 1 has not arrived; send it again")
        text = Zlib::GzipReader.new(StringIO.new(bytes)).read(HEAD_BYTES).to_s
        text.empty? ? text : text[0..(text.rindex("\n") || -1)]
      rescue Zlib::Error
        raise Refused.new(field: "/file", problem: "part 1 of file 1 is not gzip")
      end

      HEAD_BYTES = 200_000
      private_constant :HEAD_BYTES

      def ask_story(log, profile)
        closes, opens = ReadStory.points(profile)
        tasks.ask(
          ReadStory::KIND,
          ReadStory.key(log, profile),
          { "log_id" => log[:id], "closes" => closes, "opens" => opens }
        )
      end
    end
  end
end
