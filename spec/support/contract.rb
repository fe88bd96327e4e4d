# frozen_string_literal: true

require_relative "server"

API_CONTRACT = OpenapiFirst.load(File.join(Gorvant::Server::ROOT, "server/openapi.yml"))

# Checks the last request and response of every example against the OpenAPI document.
RSpec.shared_context "with the API's contract" do
  after do
    request = Rack::Request.new(last_request.env.merge("rack.input" => StringIO.new(@sent)))
    checked =
      API_CONTRACT.validate_response(
        request,
        Rack::Response[last_response.status, last_response.headers.to_h, [last_response.body]]
      )
    expect(faults(checked)).to eq([])
    expect(faults(API_CONTRACT.validate_request(request))).to eq([]) if last_response.successful? && @sent != ""
  end

  # What the document has against a request or response, in short.
  def faults(checked)
    if checked.valid?
      []
    else
      [
        checked.error.error_type,
        checked.error.message,
        *Array(checked.error.errors).map { |error| error.message.to_s[0, 120] }
      ].compact
    end
  end
end
