# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # What an earlier visit to the same unit came to. on: ISO date; days: from then to today's visit; id, title: of what
    # Find stood by there, id nil where that is not kept; mended: whether the complaint was answered.
    Past = Value.define(:on, :days, :id, :title, :mended, defaults: { id: nil, mended: true })

    # What was found is found again more often than chance has it: a joint that was tightened, a reason that nobody
    # looked for, a fault that was left. It weighs more then, and is never taken as read.
    class Past
      # [Past] of what a visit carries: [{ "on", "days", "id", "title", "mended" }].
      def self.read(list) =
        list.to_a.map do |one|
          new(
            on: one.fetch("on"),
            days: one.fetch("days"),
            id: one["id"],
            title: one["title"].to_s,
            mended: one.fetch("mended", true)
          )
        end

      # By how much a hypothesis of a library weighs more after all of these: the strongest counts.
      def self.weight(pasts, library, index) = pasts.map { |past| past.weight(library, index) }.max || 1.0

      # The longer ago, the less of it.
      def weight(library, index)
        rate = rate(library, index) or return 1.0
        1.0 + ((numbers.fetch(rate) - 1.0) * (0.5**(days / numbers.fetch("half_life_days").to_f)))
      end

      # Whether it is one of these hypotheses.
      def of?(library, index)
        one = library.hypotheses[index]
        [one.id, one.steady].compact.include?(id) || one.title == title
      end

      # Whether that visit found nothing, or nothing any more.
      def nothing? = id == "nothing"

      private

      def numbers = Diagnosis.numbers.fetch("earlier")

      def rate(library, index)
        one = library.hypotheses[index]
        return nil if one.none_of_these?
        return one.steady ? "not_found" : nil if nothing?
        return one.as_designed? ? "as_designed" : (mended ? "again" : "not_mended") if of?(library, index)

        "same_part" if id && library.id?(id) && library.remedies[index] == library.remedies[library.index(id)]
      end
    end
  end
end
