# frozen_string_literal: true

module Gorvant
  # What happened to a rig over time: every change with its cause, signals as steps, temperatures as points, and for
  # every instant the Condition under which all drawings show it.
  class Timeline
    # id: its place in the list; signal: what changed; value: what it became (true, false or a word); says: a sentence;
    # because: id of the event that led to it, or nil; rule: key of sequence.yml, or nil; until_seconds: when it is over
    # by itself.
    Event =
      Value.define(:id, :seconds, :signal, :value, :says, :because, :rule, :rule_says, :as_designed, :until_seconds)
    # id, title; group: call, outputs, board, switches, loads or plant; steps: [[seconds, value]].
    Signal = Value.define(:id, :title, :group, :steps)
    # id, title, unit; points: [[seconds, value]], straight between.
    Curve = Value.define(:id, :title, :unit, :points)
    # A finding at a second.
    Noticed = Value.define(:seconds, :finding)

    attr_reader :rig, :script, :events, :signals, :curves, :instants, :conditions, :findings

    # instants: [[seconds, index into conditions]]; conditions: [Condition]; standing: { output => [[seconds, Reason]]
    # }, why each controller's output stands as it does.
    def initialize(rig:, script:, **recorded)
      @rig = rig
      @script = script
      @events, @signals, @curves, @instants, @conditions, @findings =
        recorded.fetch_values(:events, :signals, :curves, :instants, :conditions, :findings).each(&:freeze)
      @standing = recorded.fetch(:standing)
    end

    def duration_seconds = script.duration_seconds
    def signal(id) =
      signals.find { |one| one.id == id } || raise(UnknownSignal.new(signal: id, known: signals.map(&:id)))
    # The condition that holds at a time.
    def condition_at(seconds) = conditions[instants[index_at(seconds)][1]]
    def value_at(id, seconds) = signal(id).steps.reverse_each.find { |at, _value| at <= seconds }&.last

    # Ids of the signals, and of the curves, that a first look needs.
    def first_lanes = Catalogue.profile.dig("tape", "lanes") & signals.map(&:id)
    def first_curves = Catalogue.profile.dig("tape", asks_frost? ? "frost_curves" : "curves")

    # The Controller::Reason behind an output at a time, or nil.
    def standing_reason(id, seconds) = @standing.fetch(id, []).reverse_each.find { |at, _reason| at <= seconds }&.last

    # The last event of a signal up to a time, or nil.
    def last_event(id, seconds) =
      (@by_signal ||= events.group_by(&:signal)).fetch(id, []).reverse_each.find { |event| event.seconds <= seconds }
    # The next event at which a signal takes a value.
    def next_event(id, seconds, value) =
      (@by_signal ||= events.group_by(&:signal))
        .fetch(id, [])
        .find { |event| event.seconds > seconds && event.value == value }

    private

    def asks_frost? = rig[:defrost_clock] == "demand" || Options.fitted?(rig, "APS")

    def index_at(seconds) = (instants.bsearch_index { |at, _index| at > seconds } || instants.size) - 1
  end

  # A signal that this run does not have.
  class UnknownSignal < Error
    says "unknown signal '%<signal>s': this run has %<known>s"
    def field = "/signal"
  end
end
