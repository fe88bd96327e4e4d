# frozen_string_literal: true

# Looks at a database that a backup was put back into: does the application answer over it, and what does it hold?
require "json"
require "rack/mock_request"
require_relative "../../server/boot"

module Gorvant
  # The drill.
  module Server
    db = Database.connect
    web, door = %i[web door].map { |role| Database.connect(as: role) }
    health = Health.new(nil, { web: web, door: door })
    ready = health.call(Rack::MockRequest.env_for("/health/ready")).first
    abort("error: not ready") unless ready == 200

    # Each crew's visits as that crew sees them, through the rules that keep crews apart; each rig read by the core.
    seen =
      db[:crews]
        .select_map(:id)
        .sum do |crew|
          Crew.as(crew) do
            web[:rig_revisions].select(:digest, :content).each { |row| Warm.rig(row) }
            web[:visits].count
          end
        end
    abort("error: #{db[:visits].count} visits are there, crews see #{seen}") unless seen == db[:visits].count

    newest = db[:readings].max(:received_at)
    counts = %i[crews users sites units visits readings photos].to_h { |table| [table, db[table].count] }
    puts "came back: #{counts.map { |table, count| "#{count} #{table}" }.join(", ")}"
    puts "newest reading: #{newest ? newest.utc.strftime("%F %T UTC") : "none"}"
  end
end
