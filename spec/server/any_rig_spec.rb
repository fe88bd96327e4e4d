# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/random_rigs"
require_relative "../support/rig_questions"

# Whatever is fitted, broken, called and asked about: an answer, or a refusal that names a field; never a breakdown, and
# no word that a person cannot read.
RSpec.describe "Any rig", :server do
  # A field, or what of the unit a run cannot get past.
  def says_where? = answer["errors"].any? || answer["detail"].match?(/undo each other without any time passing: \w/)

  seed = Integer(ENV.fetch("FUZZ_SEED", 7))
  Integer(ENV.fetch("FUZZ_TIMES", 9)).times do |i|
    it "is answered in words, drawn from seed #{seed + i}" do
      random = Random.new(seed + i)
      fitted = RandomRigs.rig((seed + i) * 1000)
      id = uuid
      send_json(:post, "/api/rigs", id: id, rig: Gorvant::Formats::RigJson.dump(fitted))
      expect(last_response.status).to eq(201)
      wrong =
        RigQuestions
          .new(fitted, random)
          .all
          .filter_map do |route, body|
            send_json(:post, "/api/rigs/#{id}/#{route}", body)
            fine = last_response.status == 200 || (last_response.status == 422 && says_where?)
            readable = !last_response.body.match?(/NaN|%<\w|#<[A-Z]/)
            unless fine && readable
              "#{route} #{JSON.generate(body)}: #{last_response.status} #{last_response.body[0, 200]}"
            end
          end
      expect(wrong).to eq([])
    end
  end
end
