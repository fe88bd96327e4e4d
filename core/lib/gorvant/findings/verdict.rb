# frozen_string_literal: true

module Gorvant
  # What a check says: with what it was seen by, what was assumed, and what it does not prove. verdict: "right",
  # "wrong", "as_designed" or "undetermined". Words stand in core/data/verdicts.yml under the code.
  Verdict =
    Value.define(:code, :verdict, :title, :says, :evidence, :assumed, :not_proved, :next_step, :cautions, :look_first)

  class Verdict
    # evidence and assumed: sentences; fields fill the templates.
    def self.of(code, evidence:, assumed: [], look_first: false, **fields)
      words = Catalogue.verdicts.fetch(code)
      none = [Catalogue.words("verdict.nothing_assumed")]
      new(
        code: code,
        verdict: words.fetch("verdict"),
        title: format(words.fetch("title"), fields),
        says: format(words.fetch("says"), fields),
        evidence: evidence,
        assumed: assumed.empty? ? none : assumed,
        not_proved: words.fetch("not_proved").map { |line| format(line, fields) },
        next_step: format(words.fetch("next_step"), fields),
        cautions: words.fetch("cautions", []),
        look_first: look_first
      )
    end

    def wrong? = verdict == "wrong"
  end
end
