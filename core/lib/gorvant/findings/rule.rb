# frozen_string_literal: true

module Gorvant
  # One question about a solved circuit, in one file of its subject's rules/ folder. A rule answers `check(solution)`
  # with findings; its title, severity, words and source stand in core/data/findings.yml under `code`.
  class Rule
    class << self
      def all = @all ||= []

      def inherited(rule)
        super
        Rule.all << rule
      end

      def code = name.split("::").last.gsub(/([a-z])([A-Z])/, '\1_\2').downcase

      # The findings of every rule, worst first.
      def check_all(solution)
        all
          .flat_map { |rule| rule.new.check(solution) }
          .sort_by
          .with_index { |finding, i| [Finding::SEVERITIES.index(finding.severity), i] }
      end
    end

    private

    # A finding in the rule's own words.
    def finding(**about) = Finding.of(self.class.code, **about)
  end
end
