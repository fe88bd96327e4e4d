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

    def fault? = severity == "fault"
  end
end
