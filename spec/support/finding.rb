# frozen_string_literal: true

# Find for specs: a unit whose signatures are made once, and evidence in short words.
class Finding
  class << self
    # The Library of a rig; made once for all examples.
    def library(name, rig, outdoor_degrees_f)
      (@libraries ||= {})[name] ||= Gorvant::Diagnosis::Library.of(
        Gorvant::Diagnosis::Situation.new(rig, outdoor_degrees_f: outdoor_degrees_f)
      )
    end
  end

  attr_reader :library

  def initialize(library)
    @library = library
    @clues = Gorvant::Diagnosis::Clues.new(library)
  end

  def rig = library.situation.rig

  # told: [[call, function, where, value, more]]; where: two points of a reading, or a place.
  def finder(symptoms = [], *told, **more)
    evidence = told.filter_map { |call, *rest| clue(call, *rest) }
    Gorvant::Diagnosis::Finder.new(library, symptoms: symptoms, evidence: evidence, **more)
  end

  def clue(call, function, where, value, more = {})
    more = more.dup
    minutes = more.delete(:minutes)
    condition = more.delete(:condition) || {}
    at = more.delete(:at)
    given = shape(function, where, value).merge(more.transform_keys(&:to_s))
    condition = Gorvant::Condition.parse({ "call" => call }.merge(condition))
    trace = Gorvant::Trace.new(rig, condition)
    @clues.of(Gorvant::Observation.parse(given, trace), condition, minutes: minutes, at: at)
  end

  # { title of a suspect => belief }, of those that weigh.
  def beliefs(finder) = finder.suspects(12).to_h { |suspect| [first(suspect).id, suspect.belief] }
  def first(suspect) = library.hypotheses[suspect.indexes.first]
  def top(finder) = first(finder.top).id

  private

  def shape(function, where, value)
    case function
    when "volts_ac", "ohms"
      {
        "function" => function,
        "from_node" => where[0],
        "to_node" => where[1],
        "value" => value,
        "instrument" => function == "ohms" ? "ohmmeter" : "high_impedance"
      }
    when "seen", "did", "looked_up"
      { "function" => function, "place" => where, "choice" => value }
    else
      { "function" => function, "place" => where, "value" => value }
    end
  end
end
