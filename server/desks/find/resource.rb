# frozen_string_literal: true

module Gorvant
  module Server
    # From the complaint and what was read to why, and what to measure next.
    class FindResource < Resource
      # The answer where the unit's signatures are there; else 202 and the task that works them out.
      post "/api/visits/:id/find" do
        row = visits.alone(params[:id])
        input = FindRequest.parse(body_json || {})
        library = finders.library(row) or return json(Present.task(ask(row)), 202)
        words = Desks::Find::Words.new(finders.finder(row, library, input))
        answer = words.to_h
        answer[:about] = words.about(input[:about]) if input[:about]
        json answer
      end

      # The tests from here on, to take along where no device goes.
      post "/api/visits/:id/road-map" do
        row = visits.alone(params[:id])
        input = FindRequest.parse(body_json || {})
        library = finders.library(row) or return json(Present.task(ask(row)), 202)
        words = Desks::Find::Words.new(finders.finder(row, library, input))
        json(Warm.dear { words.road_map { |clues| finders.finder(row, library, input.merge(further: clues)) } })
      end

      private

      def finders = Finders.new(computed, readings)

      # A newer unit, wiring or weather makes the visit's older task idle.
      def ask(row)
        tasks.ask_anew(
          Signatures::KIND,
          Signatures.key(row[:digest], finders.situation(row)),
          row[:id],
          {
            "rig" => Formats::RigJson.dump(Warm.rig(row)),
            "as_found" => row[:desks].as_found,
            "outdoor_degrees_f" => row[:outdoor_degrees_f]
          }
        )
      end
    end
  end
end
