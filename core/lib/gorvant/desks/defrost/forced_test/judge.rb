# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # Who judges a part of a forced test.
    class Judge
      include Telling

      attr_reader :rig, :record, :profile

      def initialize(rig, record, profile)
        @rig = rig
        @record = record
        @profile = profile
        @numbers = Catalogue.profile.fetch("defrost")
      end
    end
  end
end
