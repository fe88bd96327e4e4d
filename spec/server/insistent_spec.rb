# frozen_string_literal: true

require_relative "../support/server"

# One account's flood: told to come again without a word to the rest of the application, and let through again.
RSpec.describe Gorvant::Server::Insistent, :server do
  let(:at) { [100.0] }
  let(:reached) { [] }
  let(:meanwhile) { [] }
  let(:busy) { [true] }
  let(:inner) do
    ->(env) do
      reached << env["PATH_INFO"]
      meanwhile.shift&.call
      next 200, {}, ["done"] unless busy.first

      Gorvant::Server::Problem.response(Gorvant::Server::OneByOne.new, env)
    end
  end
  let(:door) { described_class.new(inner).tap { |one| allow(one).to receive(:now) { at.first } } }

  def ask(path = "/api/visits/#{"0" * 8}-0000-4000-8000-#{"0" * 12}/timeline", cookie: "a", method: "POST", **more)
    env = { "REQUEST_METHOD" => method, "PATH_INFO" => path, "HTTP_COOKIE" => cookie, **more }.compact
    status, headers, body = door.call(env)
    [status, headers["retry-after"], body.first]
  end

  it "asks in earnest some times, then answers by itself, the same words as before" do
    answers = Array.new(50) { ask }
    expect(reached.size).to eq(described_class::PATIENCE)
    expect(answers.uniq.size).to eq(1)
    expect(answers.first).to match([429, "1", /"code":|one_by_one/])
  end

  it "lets one through when the moment is over, and all of them once that one is answered" do
    5.times { ask }
    at[0] += 1.01
    3.times { ask }
    expect(reached.size).to eq(described_class::PATIENCE + 1)
    at[0] += 1.01
    busy[0] = false
    expect(Array.new(4) { ask.first }).to eq([200] * 4)
  end

  it "keeps the others back while that one is worked out" do
    5.times { ask }
    at[0] += 1.01
    others = []
    meanwhile << -> { 3.times { others << ask.first } }
    ask
    expect([others, reached.size]).to eq([[429] * 3, described_class::PATIENCE + 1])
  end

  it "says nothing to who waits as told, however often" do
    12.times do
      expect(ask.first).to eq(429)
      at[0] += 1.0
    end
    expect(reached.size).to eq(12)
  end

  {
    "another account" => {
      cookie: "b"
    },
    "a meter by its token" => {
      "HTTP_AUTHORIZATION" => "Bearer x"
    },
    "a read" => {
      method: "GET"
    },
    "nobody known" => {
      cookie: nil
    }
  }.each do |name, more|
    it "is nothing to #{name}" do
      20.times { ask }
      before = reached.size
      2.times { ask(**more) }
      expect(reached.size).to eq(before + 2)
    end
  end

  it "is nothing to another question of the same account, and is one for all visits" do
    20.times { ask }
    before = reached.size
    ask("/api/visits/#{"1" * 8}-0000-4000-8000-#{"0" * 12}/timeline")
    expect(reached.size).to eq(before)
    ask("/api/visits/#{"1" * 8}-0000-4000-8000-#{"0" * 12}/readings")
    expect(reached.size).to eq(before + 1)
  end

  it "knows no more than it can hold" do
    20.times { ask }
    described_class::MOST_KNOWN.times { |i| 3.times { ask(cookie: i.to_s) } }
    before = reached.size
    ask # was let go, and is asked in earnest
    expect(reached.size).to eq(before + 1)
  end
end
