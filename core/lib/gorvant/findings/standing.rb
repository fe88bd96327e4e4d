# frozen_string_literal: true

module Gorvant
  # What a page of a visit comes to. An all-clear names what was looked at and what was taken as drawn or assumed; until
  # all that it leans on is looked at it holds so far, and no further. mark: one of MARKS; says: a sentence; looked_at,
  # taken: what, in words.
  Standing = Value.define(:mark, :says, :looked_at, :taken)

  class Standing
    MARKS = %w[untouched so_far agrees disagrees].freeze
    # Of a page that nobody has begun, where there is nothing to say yet.
    UNTOUCHED = new(mark: "untouched", says: "", looked_at: [].freeze, taken: [].freeze)

    # key: of wording.yml, under "standing.KEY_MARK"; wrong: whether anything is; fields: for the words.
    def self.of(key, wrong:, looked_at:, taken:, **fields)
      mark =
        if wrong
          "disagrees"
        elsif looked_at.empty?
          "untouched"
        else
          taken.any? ? "so_far" : "agrees"
        end
      says =
        Catalogue.words("standing.#{key}_#{mark}", looked_at: looked_at.join(", "), taken: taken.join(", "), **fields)
      new(mark: mark, says: says, looked_at: looked_at, taken: taken)
    end
  end
end
