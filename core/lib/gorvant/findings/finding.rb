# frozen_string_literal: true

module Gorvant
  # What a rule reports. severity is one of SEVERITIES; evidence is an array of sentences; nodes and branches name
  # where it is; assumed lists the facts leaned on that nobody has confirmed; cautions are keys of Catalogue.cautions.
  Finding =
    Value.define(
      :code,
      :severity,
      :title,
      :says,
      :evidence,
      :next_step,
      :nodes,
      :branches,
      :cautions,
      :assumed,
      defaults: {
        evidence: [],
        next_step: nil,
        nodes: [],
        branches: [],
        cautions: [],
        assumed: []
      }
    )

  class Finding
    SEVERITIES = %w[fault warning note as_designed].freeze

    # A finding in the words that core/data/findings.yml has for its code; fields fill the templates. severity and
    # next_step: where the case at hand says more than the table.
    def self.of(code, severity: nil, next_step: nil, evidence: [], nodes: [], branches: [], assumed: [], **fields)
      words = Catalogue.findings.fetch(code)
      new(
        code: code,
        severity: severity || words.fetch("severity"),
        title: format(words.fetch("title"), fields),
        says: format(words.fetch("says"), fields),
        next_step: next_step || (words["next_step"] && format(words["next_step"], fields)),
        cautions: words.fetch("cautions", []),
        evidence: evidence,
        nodes: nodes,
        branches: branches,
        assumed: assumed
      )
    end

    def fault? = severity == "fault"
  end
end
