# frozen_string_literal: true

module Gorvant
  # A rig that cannot be read or built. `field` is the JSON pointer of what is wrong.
  class BadRig < Error
    says "%<field>s: %<problem>s"
  end

  # Several things wrong with one rig, each with its own pointer.
  class BadRigFile < Error
    says "%<count>s thing(s) wrong with this rig file; first: %<first>s"

    # problems: [{ "field" => pointer, "problem" => sentence }]
    def initialize(problems)
      @problems = problems.freeze
      super(count: problems.size, first: "#{problems.first.fetch("field")}: #{problems.first.fetch("problem")}")
    end

    attr_reader :problems

    def field = problems.first.fetch("field")
  end

  # A condition that makes no sense for this rig.
  class BadCondition < Error
    says "%<field>s: %<problem>s"
  end

  # Rungs that cannot be read or built, each problem with the word to blame.
  class BadNotation < Error
    says "line %<line>s: %<first>s"

    # problems: [{ "line", "column", "length", "word", "problem", "suggestion" }], counted from 1; suggestion: a known
    # word or nil.
    def initialize(problems)
      @problems = problems.freeze
      first = problems.first
      super(line: first.fetch("line"), first: "'#{first.fetch("word")}' #{first.fetch("problem")}")
    end

    attr_reader :problems
  end
end
