# frozen_string_literal: true

require "bundler/setup"
require_relative "../core/lib/gorvant"

module Gorvant
  # The HTTP side: reads requests, loads rows, asks the core, presents.
  module Server
    ROOT = File.expand_path("..", __dir__)
  end
end

# Bases first, then whatever stands beside them.
require_relative "errors"
require_relative "ids"
require_relative "steady"
require_relative "even_time"
require_relative "operations"
require_relative "roles"
require_relative "crew"
require_relative "database"
require_relative "metrics"
require_relative "viewer"
require_relative "people/door"
require_relative "people/opening"
require_relative "people/passkey_door"
require_relative "people/sign_in"
require_relative "turns"
require_relative "one_each"
require_relative "warm"
require_relative "pictures"
require_relative "repositories/depot"
require_relative "visit_records"
require_relative "archive_zip"
require_relative "drill_file"
require_relative "stand_in"
require_relative "drill_stand_in"
require_relative "demo"
require_relative "repositories/sent"
require_relative "repositories/repository"
require_relative "requests/request"
require_relative "answers/answers"
require_relative "presenters/problem"
require_relative "resources/resource"
%w[answers repositories reports requests presenters middleware resources desks/*].each do |room|
  Dir[File.join(__dir__, room, "*.rb")].each { |file| require file }
end
Dir[File.join(__dir__, "tasks", "*.rb")].each { |file| require file }
require_relative "stream"
require_relative "app"
