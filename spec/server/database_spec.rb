# frozen_string_literal: true

require_relative "../support/server"

# One connection for all that a request asks, and what becomes of one that breaks meanwhile.
RSpec.describe Gorvant::Server::Database, :server do
  def backend = db.get(Sequel.function(:pg_backend_pid))

  # The server lets the connection in hand go, as one that starts anew would.
  def cut(pid)
    other = described_class.connect
    other.get(Sequel.function(:pg_terminate_backend, pid))
  ensure
    described_class.forget(other)
  end

  it "is one and the same for all of a block, and nobody else's meanwhile" do
    one, same, others = described_class.hold(db) { [backend, backend, Thread.new { backend }.value] }
    expect(same).to eq(one)
    expect(others).not_to eq(one)
  end

  it "lets an answer stand that was found in spite of a broken connection, and gives that to nobody else" do
    answer =
      described_class.hold(db) do
        cut(backend)
        expect { backend }.to raise_error(Sequel::DatabaseDisconnectError)
        "kept on the device"
      end
    expect(answer).to eq("kept on the device")
    expect(backend).to be_positive
  end

  it "tells of one that broke where nobody made an answer of it" do
    broken = -> do
      described_class.hold(db) do
        cut(backend)
        backend
      end
    end
    expect(&broken).to raise_error(Sequel::DatabaseDisconnectError)
    expect(backend).to be_positive
  end

  it "is one for a request, whatever it asks, and one for who it is that asks" do
    asked, taken = "/api/visits/#{visit_id}", Hash.new(0)
    { web: ServerBench.web, door: ServerBench.door }.each do |name, database|
      counting = Module.new { define_method(:checkin_connection) { |one| super(one.tap { taken[name] += 1 }) } }
      database.pool.singleton_class.prepend(counting)
    end
    fetch(asked)
    expect([last_response.status, taken]).to eq([200, { web: 1, door: 1 }])
  end
end
