# frozen_string_literal: true

require_relative "../support/server"

# What is refused at the door stands in no operation's answers, so no contract is asked here.
RSpec.describe "A stand-in's token", :server do
  after { ServerBench.alone }

  it "reads nothing" do
    devices = Gorvant::Server::Devices.new(ServerBench.door)
    token = devices.make(uuid, ServerBench.viewer, name: "Bench meter", scope: "stand_in").last
    clear_cookies
    header("Authorization", "Bearer #{token}")
    ["/api/stream", "/api/visits/#{visit_id}", "/api/rigs", "/api/practice", "/api/visits"].each do |path|
      get(path, {}, "HTTP_HOST" => "127.0.0.1")
      expect(last_response.status).to eq(401), path
    end
  end
end
