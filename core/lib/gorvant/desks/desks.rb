# frozen_string_literal: true

module Gorvant
  # What a desk cannot keep; problems: [{ "field" => JSON pointer, "problem" => words }].
  class BadRecord < BadAsFound
    says "%<count>d thing(s) wrong with what is to be kept; first: %<first>s"
  end

  # A standing reading, as the visit keeps it. minutes: since the compressor stopped, where it was noted; at: when it
  # was taken (ISO 8601); age_minutes: how long ago that was. verdict, held: what came of it, and in words; by:
  # who took it.
  VisitRead =
    Value.define(
      :id,
      :observation,
      :condition,
      :minutes,
      :at,
      :age_minutes,
      :verdict,
      :held,
      :note,
      :by,
      defaults: {
        minutes: nil,
        at: nil,
        age_minutes: 0.0,
        verdict: nil,
        held: nil,
        note: nil,
        by: nil
      }
    )

  # What a visit has on paper, as far as its desks look at it. told: whether a complaint or a symptom was taken down;
  # safety: keys of the points seen to; kept: { desk => what it keeps, as JSON has it };
  # agreeing_calls: ids of calls in which a standing reading agrees; disagreeing: how many standing readings do not;
  # symptoms: keys; reads: [VisitRead], oldest first, none where a visit is only listed; closed_as: the mark of its
  # closing, nil while it is open; carried: what an earlier visit tells (Carried).
  VisitRecord =
    Value.define(
      :rig,
      :told,
      :safety,
      :kept,
      :set_point_degrees_f,
      :agreeing_calls,
      :disagreeing,
      :symptoms,
      :outdoor_degrees_f,
      :reads,
      :closed_as,
      :carried,
      defaults: {
        told: false,
        safety: [].freeze,
        kept: {}.freeze,
        set_point_degrees_f: nil,
        agreeing_calls: [].freeze,
        disagreeing: 0,
        symptoms: [].freeze,
        outdoor_degrees_f: nil,
        reads: [].freeze,
        closed_as: nil,
        carried: {}.freeze
      }
    )

  class VisitRecord
    # The wiring and the settings as found together.
    def as_found = AsFound.parse(Desks.as_found(kept, carried), rig)
    def defrost = kept.fetch("defrost", {})
    def close_out = kept.fetch("close_out", {})

    # Places where somebody was inside, by what was read and looked at there.
    def places
      nodes = reads.flat_map { |read| [read.observation.from_node, read.observation.to_node] }.compact
      ends = as_found.landings.select(&:seen).map(&:place)
      tested = defrost.key?("test") ? ["outdoor"] : []
      rig.layout.fetch("places").keys & (nodes.map { |node| node[/\A[a-z_]+/] } + ends + tested)
    end
  end

  # The pages of a visit: core/data/desks.yml lists them, and each that is built answers here how it stands. A desk
  # knows the mechanism rooms and no other desk.
  module Desks
    class << self
      # { id => a desk, or nil while there is no page } in the order of work.
      def all = Catalogue.desks.to_h { |id, about| [id, about["built"] ? desk(id) : nil] }

      # Ids of desks that keep a record with the visit.
      def keeping = Catalogue.desks.select { |_id, about| about["keeps"] }.keys

      # The desk of that id: answers `standing(VisitRecord)` with a Standing; one that keeps, `keep(given, rig)` with
      # what is to be kept, or raises BadAsFound, BadRecord or what its own parts raise.
      def desk(id) = const_get(id.split("_").map(&:capitalize).join)

      # What a desk is to keep of parsed JSON, looked at against the rig.
      def keep(id, given, rig)
        return desk(id).keep(given, rig) if given.is_a?(Hash)

        raise BadRecord.new([{ "field" => "/", "problem" => "has to be an object" }])
      end

      # What has to be as it was before anybody leaves, of all desks that know of something: [PutBack], each id once.
      def put_back(record)
        all
          .compact
          .values
          .select { |desk| desk.respond_to?(:put_back) }
          .flat_map { |desk| desk.put_back(record) }
          .uniq(&:id)
      end

      # What stands as found, of the desks that each keep a part of it: parsed JSON for AsFound.parse.
      # carried: what an earlier visit tells, which counts where today's records are silent.
      def as_found(kept, carried = {})
        settings = kept.dig("thermostat", "settings").to_h
        today = kept.fetch("wiring", {}).merge(settings.empty? ? {} : { "settings" => settings })
        carried.empty? ? today : Carried.under(today, carried)
      end

      # The mark of one desk; one that is not built is not looked at.
      def mark(id, record) = all.fetch(id)&.standing(record)&.mark || "untouched"

      # { id => mark }, of all or of those named.
      def marks(record, only = Catalogue.desks.keys) = only.to_h { |id| [id, mark(id, record)] }
    end
  end
end
