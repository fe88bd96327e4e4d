# frozen_string_literal: true

module Gorvant
  module Server
    # A drill that is asked for: of which rig, form, subject and level. fresh: one that nobody has, to hand out.
    class DrillRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:rig_id).filled(:string, format?: UUID)
        required(:form).filled(:string, included_in?: Catalogue.practice["forms"].keys)
        required(:subject).filled(:string, included_in?: Catalogue.practice["subjects"].keys)
        required(:level).filled(:integer, included_in?: Catalogue.practice["levels"].keys)
        optional(:fresh).filled(:bool)
      end
    end

    class TryRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:drill_id).filled(:string, format?: UUID)
        optional(:course_id).maybe(:string, format?: UUID)
      end
    end

    # One act at a bench; what it holds is the core's to look at.
    class ActRequest < Request
      json do
        required(:version).filled(:integer, gt?: 0, lteq?: VERSIONS)
        required(:act).filled(:hash)
      end
    end

    class ProbesRequest < Request
      json { required(:probes).value(:array, size?: 2).each(:string, max_size?: 120) }
    end

    class AnswerRequest < Request
      json do
        required(:version).filled(:integer, gt?: 0, lteq?: VERSIONS)
        required(:number).filled(:integer, gteq?: 0, lteq?: 50)
        required(:answer).filled(:hash)
      end
    end

    # What it is: one thing, or two.
    class DecisionRequest < Request
      json do
        required(:version).filled(:integer, gt?: 0, lteq?: VERSIONS)
        required(:decision).value(:array, min_size?: 1, max_size?: 2).each(:hash)
      end
    end

    class PanelDrawingRequest < Request
      json { required(:view).filled(:string, included_in?: %w[loops ladder connections]) }
    end

    class DrillCourseRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:name).filled(:string, max_size?: LINE)
        required(:drill_ids).value(:array, min_size?: 1, max_size?: Courses::MOST_DRILLS).each(:string, format?: UUID)
        optional(:learner_ids).value(:array, max_size?: People::MOST).each(:string, format?: UUID)
      end
      rule(:name).validate(:named, :plain_text)
    end

    # Words that seal a file. Long enough that guessing takes for ever.
    class PassphraseRequest < Request
      SHORTEST = 12
      json { required(:passphrase).filled(:string, min_size?: SHORTEST, max_size?: LINE) }
    end

    class DrillFileRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:passphrase).filled(:string, max_size?: LINE)
        required(:file).filled(:hash)
      end
    end
  end
end
