# frozen_string_literal: true

module Gorvant
  module Practice
    # When a learner should meet a subject again. days: until then; ease, streak: as the schedule keeps them; grade: of
    # the last drill, 0 to 5.
    # Source: docs/sources.md, spaced-repetition (SM-2).
    Repetition = Value.define(:days, :ease, :streak, :grade)

    class Repetition
      class << self
        def numbers = Practice.numbers.fetch("repetition")
        def fresh = new(days: 0, ease: numbers["start_ease"], streak: 0, grade: nil)

        # After drills with these marks, the oldest first.
        def after(all_marks) = all_marks.inject(fresh) { |so_far, marks| so_far.met(grade_of(marks)) }

        def grade_of(marks) = numbers.fetch("grades").find { |least, _grade| marks >= least }.last
      end

      # After one more drill: a grade under 3 begins anew tomorrow, and makes no interval longer.
      def met(now)
        numbers = self.class.numbers
        eased = [ease + (0.1 - ((5 - now) * (0.08 + ((5 - now) * 0.02)))), numbers["least_ease"]].max
        return with(days: numbers["first_days"], ease: eased, streak: 0, grade: now) if now < numbers["shaky_below"]

        next_days = [numbers["first_days"], numbers["second_days"]][streak] || (days * eased).round
        with(days: [next_days, numbers["most_days"]].min, ease: eased, streak: streak + 1, grade: now)
      end

      # "new", "shaky" or "sure".
      def standing
        return "new" if grade.nil?

        grade < self.class.numbers["shaky_below"] || streak.zero? ? "shaky" : "sure"
      end
    end
  end
end
