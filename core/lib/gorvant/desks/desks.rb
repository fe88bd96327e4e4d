# frozen_string_literal: true

module Gorvant
  # What a visit has on paper, as far as its desks look at it. told: whether a complaint or a symptom was taken down;
  # safety: keys of the points seen to; as_found: AsFound; defrost: what the defrost desk keeps, as JSON has it;
  # agreeing_calls: ids of calls in which a standing reading agrees; disagreeing: how many standing readings do not.
  VisitRecord =
    Value.define(
      :rig,
      :told,
      :safety,
      :as_found,
      :set_point_degrees_f,
      :defrost,
      :agreeing_calls,
      :disagreeing,
      defaults: {
        told: false,
        safety: [].freeze,
        as_found: AsFound.new,
        set_point_degrees_f: nil,
        defrost: {}.freeze,
        agreeing_calls: [].freeze,
        disagreeing: 0
      }
    )

  # The pages of a visit: core/data/desks.yml lists them, and each that is built answers here how it stands. A desk
  # knows the mechanism rooms and no other desk.
  module Desks
    class << self
      # { id => a desk, or nil while there is no page } in the order of work.
      def all = Catalogue.desks.to_h { |id, about| [id, about["built"] ? desk(id) : nil] }

      # The desk of that id: answers `standing(VisitRecord)` with a Standing.
      def desk(id) = const_get(id.split("_").map(&:capitalize).join)

      # The mark of one desk; one that is not built is not looked at.
      def mark(id, record) = all.fetch(id)&.standing(record)&.mark || "untouched"

      # { id => mark }, of all or of those named.
      def marks(record, only = Catalogue.desks.keys) = only.to_h { |id| [id, mark(id, record)] }
    end
  end
end
