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
        next json(Present.task(find_tasks.signatures(row)), 202) unless answer
        next json(answer.merge(task: Present.task(find_tasks.signatures(row)))) if answer[:first_look]

        find_marks.keep(row[:id], answer[:mark], state)
        json(answer)
      end

      # The tests from here on, to take along where no device goes; drawn by a task, once the signatures are there.
      post "/api/visits/:id/road-map" do
        row = visits.alone(params[:id])
        asked = FindRequest.parse(body_json || {})
        next json(Present.task(find_tasks.signatures(row)), 202) unless finders.library(row)

        key = DrawRoadMap.key(row, find_marks.state(row[:id]), asked)
        drawn = computed.get(key)
        drawn ? json(drawn) : json(Present.task(find_tasks.road_map(key, row, asked, viewer)), 202)
      end

      private

      def find_marks = FindMarks.new(db, viewer)
      def finders = Finders.new(computed, readings)
      def find_tasks = FindTasks.new(tasks, computed, readings)
    end
  end
end
