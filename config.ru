# frozen_string_literal: true

require_relative "server/boot"

module Gorvant
  module Server
    db = Database.connect(as: :web)
    door = Database.connect(as: :door)
    opening = Opening.new
    begin
      opening.check!(People.new(door))
    rescue Refused => e
      abort("error: #{e.message}")
    end
    owner = Viewer.local_owner(door)
    Crew.as(owner.crew_id) { Demo.new(db, owner).load_once }
    SERVED = App.build(db, door, opening: opening)
  end
end
run Gorvant::Server::SERVED
