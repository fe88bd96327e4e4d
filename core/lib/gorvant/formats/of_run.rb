# frozen_string_literal: true

module Gorvant
  module Formats
    # Every format that a run is written in: `dump(timeline)` as text. What says OF_RUN, { path: as a question of a rig
    # or a visit, type: of its content }, is one; nobody lists them.
    def self.of_run = constants.map { |name| const_get(name) }.select { |one| one.const_defined?(:OF_RUN, false) }
  end
end
