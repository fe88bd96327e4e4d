# frozen_string_literal: true

module Gorvant
  # What decides something over time: a delay, a board, a thermostat, a valve. A controller is pure: `step` sees how
  # things stand (Seen) and its own memory, and answers with a new memory, what it puts out, why, and when it wants to
  # be asked again.
  class Controller
    # outputs: { output id => value }; reasons: { output id => Reason }; wake_at: seconds or nil.
    Answer =
      Value.define(
        :memory,
        :outputs,
        :reasons,
        :wake_at,
        :findings,
        defaults: {
          reasons: {}.freeze,
          wake_at: nil,
          findings: [].freeze
        }
      )
    # rule: key of sequence.yml; fields: for its words; from: id of the signal that led to it, nil for none;
    # until_seconds: when it is over by itself, nil where nobody knows.
    Reason =
      Value.define(
        :rule,
        :fields,
        :from,
        :until_seconds,
        defaults: {
          fields: {}.freeze,
          from: nil,
          until_seconds: nil
        }
      )

    def id = raise(NotImplementedError)
    # What it remembers at the beginning.
    def memory = {}.freeze
    def step(_memory, _seen) = raise(NotImplementedError)

    private

    def answer(memory, outputs, reasons: {}, wake_at: nil, findings: []) =
      Answer.new(memory: memory, outputs: outputs, reasons: reasons, wake_at: wake_at, findings: findings)
    def because(rule, from: nil, until_seconds: nil, **fields) =
      Reason.new(rule: rule, fields: fields, from: from, until_seconds: until_seconds)
  end

  # How things stand when a controller is asked. inputs: what the script says; outputs: what all controllers put out so
  # far.
  class Seen
    attr_reader :now, :inputs, :outputs

    # works: ->(load id), live: ->(node), quantities: { name => Quantity }.
    def initialize(now, inputs, outputs, works:, live:, quantities:)
      @now = now
      @inputs = inputs
      @outputs = outputs
      @works = works
      @live = live
      @quantities = quantities
    end

    def works?(load) = @works.call(load)
    def live?(node) = @live.call(node)
    def quantity(name) = @quantities.fetch(name)
    def value(name) = quantity(name).at(now)
  end
end
