# frozen_string_literal: true

module Gorvant
  module Server
    # What is worked out of a visit before Find can answer, or for its road map.
    class FindTasks
      def initialize(tasks, computed, readings)
        @tasks = tasks
        @computed = computed
        @finders = Finders.new(computed, readings)
      end

      # The task that works the signatures out. A newer unit, wiring or weather makes the visit's older task idle. how:
      # Tasks::AHEAD where nobody waits for it yet.
      def signatures(row, how = {})
        situation = @finders.situation(row)
        look = Diagnosis::FirstLook.of(situation, row[:symptoms].to_a)
        @tasks.ask_anew(
          Signatures::KIND,
          Signatures.key(row[:digest], situation),
          row[:id],
          {
            "rig" => Formats::RigJson.dump(Warm.rig(row)),
            "as_found" => row[:desks].as_found,
            "outdoor_degrees_f" => row[:outdoor_degrees_f],
            "symptoms" => row[:symptoms].to_a,
            "first_key" => look && Signatures.first_key(row[:digest], situation, look),
            **how
          }
        )
      end

      # As a visit is begun, so that they are there, or nearly so, when somebody asks why.
      def ahead(row)
        key = Signatures.key(row[:digest], @finders.situation(row))
        signatures(row, { Tasks::AHEAD => true }) unless @computed.get(key)
      rescue Gorvant::Error
        nil # a visit begins all the same; Find says why when it is asked
      end

      # The task that draws the road map; asked: what a FindRequest gives.
      def road_map(key, row, asked, viewer)
        whose = { "crew_id" => viewer.crew_id, "user_id" => viewer.user_id }
        @tasks.ask_anew(DrawRoadMap::KIND, key, row[:id], { "asked" => asked, **whose })
      end
    end
  end
end
