# frozen_string_literal: true

module Gorvant
  module Server
    # From the complaint and what was read to why, and what to measure next.
    class FindResource < Resource
      # The answer where the unit's signatures are there; else 202 and the task that works them out.
      post "/api/visits/:id/find" do
        row = visits.alone(params[:id])
        input = FindRequest.parse(body_json || {})
        library = library(row) or return json(Present.task(ask(row)), 202)
        words = Desks::Find::Words.new(finder(row, library, input))
        answer = words.to_h
        answer[:about] = words.about(input[:about]) if input[:about]
        json answer
      end

      # The tests from here on, to take along where no device goes.
      post "/api/visits/:id/road-map" do
        row = visits.alone(params[:id])
        input = FindRequest.parse(body_json || {})
        library = library(row) or return json(Present.task(ask(row)), 202)
        words = Desks::Find::Words.new(finder(row, library, input))
        json(Warm.dear { words.road_map { |clues| finder(row, library, input.merge(further: clues)) } })
      end

      private

      def situation(row)
        rig = Warm.rig(row)
        Desks::Find.situation(rig, AsFound.parse(row[:desks].as_found, rig), row[:outdoor_degrees_f])
      end

      # The signatures of the unit as this visit has it, laid out; nil while they are not there.
      def library(row)
        situation = situation(row)
        key = Signatures.key(row[:digest], situation)
        Warm.library([key, row[:outdoor_degrees_f]]) do
          kept = computed.get(key)
          kept && Diagnosis::Library.new(situation, JSON.parse(kept))
        end
      end

      # A newer unit, wiring or weather makes the visit's older task idle.
      def ask(row)
        tasks.ask_anew(
          Signatures::KIND,
          Signatures.key(row[:digest], situation(row)),
          row[:id],
          {
            "rig" => Formats::RigJson.dump(Warm.rig(row)),
            "as_found" => row[:desks].as_found,
            "outdoor_degrees_f" => row[:outdoor_degrees_f]
          }
        )
      end

      def finder(row, library, asked)
        Desks::Find.finder(
          library,
          symptoms: row[:symptoms].to_a,
          reads: readings.of_standing(row[:id]).map { |reading| read(reading) },
          told: Desks::Find.told(VisitRecords.of(row, kept: row[:desks].kept)),
          **asked.slice(:stands, :call, :mode, :skip, :further)
        )
      end

      def read(row)
        Desks::Find::Read.new(
          id: row[:id],
          observation: Readings.observation(row),
          condition: Condition.parse(row[:condition].to_h),
          minutes: row[:moment].to_h["compressor_stopped_minutes"],
          at: row[:taken_at].iso8601,
          age_minutes: [(Time.now - row[:taken_at]) / 60.0, 0.0].max
        )
      end
    end
  end
end
