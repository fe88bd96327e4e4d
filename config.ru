# frozen_string_literal: true

require_relative "server/boot"

db = Gorvant::Server::Database.connect
Gorvant::Server::Database.migrate(db)
Gorvant::Server::Demo.new(db, Gorvant::Server::Viewer.local_owner(db)).load_once
run Gorvant::Server::App.build(db)
