# frozen_string_literal: true

module Gorvant
  module Server
    # From the complaint and what was read to why, and what to measure next.
    class FindResource < Resource
      # The answer where the unit's signatures are there; else 202 and the task that works them out, which an early
      # answer has with it.
      post "/api/visits/:id/find" do
        state = find_marks.state(params[:id]) if Repository::UUID.match?(params[:id])
        row = visits.alone(params[:id])
        answer = answers.find(row, FindRequest.parse(body_json || {}))
        next json(Present.task(ask(row)), 202) unless answer
        next json(answer.merge(task: Present.task(ask(row)))) if answer[:first_look]

        find_marks.keep(row[:id], answer[:mark], state)
        json(answer)
      end

      # The tests from here on, to take along where no device goes; drawn by a task, once the signatures are there.
      post "/api/visits/:id/road-map" do
        row = visits.alone(params[:id])
        asked = FindRequest.parse(body_json || {})
        next json(Present.task(ask(row)), 202) unless finders.library(row)

        key = DrawRoadMap.key(row, find_marks.state(row[:id]), asked)
        drawn = computed.get(key)
        drawn ? json(drawn) : json(Present.task(ask_for_map(key, row, asked)), 202)
      end

      private

      def find_marks = FindMarks.new(db, viewer)
      def finders = Finders.new(computed, readings)

      def ask_for_map(key, row, asked)
        whose = { "crew_id" => viewer.crew_id, "user_id" => viewer.user_id }
        tasks.ask_anew(DrawRoadMap::KIND, key, row[:id], { "asked" => asked, **whose })
      end

      # A newer unit, wiring or weather makes the visit's older task idle.
      def ask(row)
        situation = finders.situation(row)
        look = Diagnosis::FirstLook.of(situation, row[:symptoms].to_a)
        tasks.ask_anew(
          Signatures::KIND,
          Signatures.key(row[:digest], situation),
          row[:id],
          {
            "rig" => Formats::RigJson.dump(Warm.rig(row)),
            "as_found" => row[:desks].as_found,
            "outdoor_degrees_f" => row[:outdoor_degrees_f],
            "symptoms" => row[:symptoms].to_a,
            "first_key" => look && Signatures.first_key(row[:digest], situation, look)
          }
        )
      end
    end
  end
end
