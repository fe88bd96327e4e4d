# frozen_string_literal: true

source "https://rubygems.org"

ruby ">= 3.1"

gem "argon2", "~> 2.3"
gem "aws-sdk-s3", "~> 1.239", require: false # where photos and records lie outside the database
gem "dry-schema", "~> 1.13.0" # 1.14 uses block syntax that Ruby 3.1.2 does not read
gem "dry-validation", "~> 1.10.0"
gem "json", "~> 2.15" # openapi_first reads bodies through multi_json, which json 3 breaks
gem "json_schemer", "~> 2.5"
gem "pg", "~> 1.6"
gem "prometheus-client", "~> 4.2"
gem "puma", "~> 8.0"
gem "rack", "~> 3.2"
gem "rack-attack", "~> 6.7"
gem "rack-protection", "~> 4.2"
gem "rackup", "~> 2.3"
gem "roda", "~> 3.109"
gem "rodauth", "~> 2.49"
gem "rotp", "~> 6.3" # one-time codes
gem "rqrcode", "~> 2.2" # the picture of a one-time secret
gem "ruby-vips", "~> 2.2" # shrinks photos and leaves their metadata behind
gem "sequel", "~> 5.110"
gem "sinatra", "~> 4.2"
gem "tzinfo", "~> 2.0" # what a logger's clock follows
gem "tzinfo-data", "~> 1.2025"
gem "webauthn", "~> 3.4" # passkeys

group :test do
  gem "capybara", "~> 3.40"
  gem "openapi_first", "~> 1.4"
  gem "parallel_tests", "~> 4.10"
  gem "rack-test", "~> 2.3"
  gem "rspec", "~> 3.13"
  gem "selenium-webdriver", "~> 4.32"
end

group :lint do
  gem "brakeman", "~> 7.1", require: false
  gem "rubocop", "~> 1.80", require: false
  gem "rubocop-rspec", "~> 3.6", require: false
  gem "syntax_tree", "~> 6.2", require: false # one way to set out Ruby, at most 120 columns
end

gem "prawn", "~> 2.5"
gem "prawn-svg", "~> 0.40.4"

gem "rubyzip", "~> 2.4"
gem "zip_kit", "~> 6.3" # a zip that is sent while it is made
