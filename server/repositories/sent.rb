# frozen_string_literal: true

require "digest"

module Gorvant
  module Server
    # What a client sent, as something to recognize it by when it is sent again: key order, the letter case of an id and
    # 24 for 24.0 make no difference.
    module Sent
      class << self
        def digest(body) = Digest::SHA256.hexdigest(JSON.generate(plain(body)))

        # Whether a body is the one of that digest; digests of before this rule are of the bare text.
        def same?(body, digest) = [digest(body), Digest::SHA256.hexdigest(JSON.generate(body))].include?(digest)

        private

        def plain(value)
          case value
          when Hash
            value.map { |key, inner| [key.to_s, plain(inner)] }.sort_by(&:first).to_h
          when Array
            value.map { |inner| plain(inner) }
          when Integer
            value.abs < 2**53 ? value.to_f : value
          when String
            Repository::UUID.match?(value) ? value.downcase : value
          else
            value
          end
        end
      end
    end
  end
end
