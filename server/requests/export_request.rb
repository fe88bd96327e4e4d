# frozen_string_literal: true

module Gorvant
  module Server
    class ExportRequest < Request
      json { required(:id).filled(:string, format?: UUID) }
    end
  end
end
