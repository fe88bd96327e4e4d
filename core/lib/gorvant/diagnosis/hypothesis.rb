# frozen_string_literal: true

module Gorvant
  # From what was read to why: what could be so, what each would show, and what to measure next.
  module Diagnosis
    # What Find weighs: core/data/diagnosis.yml.
    def self.numbers = Catalogue.diagnosis

    # { code => { share, behind, port } } of switches that open for a reason of their own.
    def self.opened = Options.opens.merge(numbers.fetch("opened"))

    # [fact] that some hypothesis has otherwise where nobody read it.
    def self.doubted_facts =
      numbers.fetch("rig_facts") +
        numbers.fetch("hidden").values.filter_map { |about| about["fact"] if about["assumed"] }

    # [code] of the switches whose reason a gauge tells at this port.
    def self.guarded(port) = opened.select { |_code, about| about["port"] == port }.keys

    # Ports at which a gauge tells why a switch opened.
    def self.ports = opened.values.filter_map { |about| about["port"] }.uniq

    # Whether a rig has the facts that an entry of core/data/diagnosis.yml needs: of several that are named any.
    def self.fitted?(rig, about) =
      about.fetch("needs", {}).all? { |fact, value| Array(value).include?(rig[fact.to_sym]) }

    # One thing that could be so. kind: of faults.yml, or "opened", "hidden", "rig", "as_designed", "none". faults: as
    # Fault reads them, on top of what the visit found; facts: { fact => value } that is otherwise than noted; turns,
    # senses, explains: as core/data/diagnosis.yml has them; at: the branch that it is about, or nil; part_ok: a part
    # that is sound though its circuit looks otherwise; share: of all cases, before anything is known; steady: the id
    # of the hypothesis that this one is the intermittent case of.
    Hypothesis =
      Value.define(
        :id,
        :kind,
        :title,
        :faults,
        :facts,
        :turns,
        :senses,
        :explains,
        :at,
        :part_ok,
        :share,
        :shows,
        :proof,
        :licensed,
        :steady,
        defaults: {
          faults: [].freeze,
          facts: {}.freeze,
          turns: {}.freeze,
          senses: {}.freeze,
          explains: {}.freeze,
          at: nil,
          part_ok: nil,
          shows: nil,
          proof: nil,
          licensed: false,
          steady: nil
        }
      )

    class Hypothesis
      # What is as it was meant to be.
      def as_designed? = kind == "as_designed"
      def none_of_these? = kind == "none"
      # Whether it says that a part or a wire is bad.
      def condemns? = !as_designed? && !none_of_these? && !%w[rig set_up opened found].include?(kind)
    end
  end
end
