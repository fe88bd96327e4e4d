# frozen_string_literal: true

module Gorvant
  module Practice
    # Drills that ask, one thing after another, and show after each why it is so.
    module Quiz
      FORMS = { "predict" => Predict, "trace" => Stations, "panel" => Panel, "timing" => Timing }.freeze

      class << self
        # Drill of a form on a rig, whose thermostat is set right.
        def drill(form, subject, level, seed, rig)
          rig = Target.rig(rig)
          asks = FORMS.fetch(form).new(rig).asks(level, Random.new(seed))
          Drill.new(form: form, subject: subject, level: level, seed: seed, rig: rig, asks: asks)
        end

        # What a learner sees of the ask with this number.
        def shown(drill, number) = form(drill).shown(ask(drill, number))

        # { "share", "lines" } of an answer. Raises BadAct.
        def judge(drill, number, given) = form(drill).judge(ask(drill, number), given)

        # Of a hundred.
        def marks(shares) = shares.empty? ? 0 : (shares.sum / shares.size * 100).round

        private

        def form(drill) = FORMS.fetch(drill.form).new(drill.rig)

        def ask(drill, number)
          drill.asks[number] || raise(BadAct.new(field: "/number", problem: "has #{drill.asks.size} questions"))
        end
      end
    end
  end
end
