# frozen_string_literal: true

module Gorvant
  module Server
    # A year of weather under each setting of a board; a day of one kind of weather a step.
    class Plan
      KIND = "planner"

      # input: { "rig" => rig file, "climate" => as the request has it, "scale" => {} }
      def initialize(input, _db = nil)
        rig = Formats::RigJson.read(input.fetch("rig"))
        climate = Formats::ClimateCsv.climate(input.fetch("climate"))
        house = rig[:backup] == "none" ? { "strips_kw" => 0.0 } : {}
        @desk =
          Desks::Defrost::YearPlan.new(ClockProfile.of(rig), climate, scale: input.fetch("scale", {}), house: house)
      end

      def resumes? = true
      def total = @desk.days.size
      def step(index) = @desk.day(@desk.days[index])
      def answer(pieces) = @desk.answer(pieces)
    end
  end
end
