# frozen_string_literal: true

module Gorvant
  module Server
    class NotationRequest < Request
      json do
        required(:text).value(:string, max_size?: 40_000)
        required(:name).filled(:string, max_size?: 120)
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
        optional(:view).filled(:string, included_in?: %w[loops ladder connections])
        optional(:panel).filled(:bool)
        optional(:against).maybe(:string, max_size?: 40)
      end
    end

    class RigRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:rig).value(:hash)
      end

      rule(:rig).validate(:named_rig)
    end

    class RevisionRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:rig).value(:hash)
      end

      rule(:rig).validate(:named_rig)
    end

    class CompositionRequest < Request
      json do
        required(:name).filled(:string, max_size?: 120)
        required(:facts).value(:hash)
        optional(:base).maybe(:hash)
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
      end

      rule(:name).validate(:plain_text, :named)
    end
  end
end
