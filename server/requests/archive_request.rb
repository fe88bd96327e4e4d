# frozen_string_literal: true

module Gorvant
  module Server
    class ArchiveImportRequest < Request
      json { required(:parts).filled(:integer, gteq?: 1, lteq?: ArchiveParts::MOST) }
    end
  end
end
