# frozen_string_literal: true

module Gorvant
  # A record of what was found that cannot be; problems: [{ "field" => JSON pointer, "problem" => words }].
  class BadAsFound < Error
    says "%<count>d thing(s) wrong with what was found; first: %<first>s"
    attr_reader :problems

    def initialize(problems)
      @problems = problems
      super(count: problems.size, first: "#{problems.first["field"]}: #{problems.first["problem"]}")
    end
  end
end
