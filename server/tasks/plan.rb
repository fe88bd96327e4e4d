# frozen_string_literal: true

module Gorvant
  module Server
    # A year of weather under each setting of a board; a day of one kind of weather a step. With a record of the unit
    # the coil is fitted to it first.
    class Plan
      KIND = "planner"
      ANSWER_ALONE = true

      # input: { "rig" => rig file, "climate" => as the request has it, "record" => { "log_id", "name", "story_key" } or
      # nil }
      def initialize(input, db = nil)
        rig = Formats::RigJson.read(input.fetch("rig"))
        climate = Formats::ClimateCsv.climate(input.fetch("climate"))
        fitted = input["record"] ? fit(db, input["record"]) : {}
        @plan = Desks::Defrost::YearPlan.new(ClockProfile.of(rig), climate, backup: rig[:backup], **fitted)
      end

      def resumes? = true
      def total = @plan.days.size
      def step(index) = @plan.day(@plan.days[index])
      def answer(pieces) = @plan.answer(pieces)

      private

      def fit(db, record)
        story = RecordedStory.from(JSON.parse(Computed.new(db).get(record.fetch("story_key"))))
        kept = LogHours.new(db, record.fetch("log_id"))
        fit = FrostFit.of(kept.numbers.lazy.map { |number| kept.hour(number) }, story)
        { scale: fit.scale, coil: fit.says(record.fetch("name")) }
      end
    end
  end
end
