# frozen_string_literal: true

require_relative "../support/core"
require_relative "../../server/own_buffers"

RSpec.describe Gorvant::Server::OwnBuffers do
  it "lets no thread empty what another one has begun to answer on the same connection" do
    client = Puma::Client.allocate
    handed_on, begun = Queue.new, Queue.new
    first =
      Thread.new do
        client.io_buffer << "the answer before"
        handed_on << true
        begun.pop
        client.io_buffer.reset # as Puma does when it has handed a connection on
      end
    handed_on.pop
    expect(client.io_buffer.length).to eq(0)
    client.io_buffer << "HTTP/1.1 200 OK"
    begun << true
    first.join
    expect(client.io_buffer.to_s).to eq("HTTP/1.1 200 OK")
  end

  it "is what the server runs with" do
    expect(File.read(File.expand_path("../../config/puma.rb", __dir__))).to include("own_buffers")
    expect(Puma::Client.ancestors.first).to be(described_class)
  end
end
