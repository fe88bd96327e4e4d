# frozen_string_literal: true

require "digest"

module Gorvant
  module Server
    # Ids that follow from what they are of, so that the same thing made twice is one.
    module Ids
      UUID = /\A\h{8}-\h{4}-\h{4}-\h{4}-\h{12}\z/

      # A UUID of any text.
      def self.of(text)
        hex = Digest::SHA256.hexdigest(text)
        [hex[0, 8], hex[8, 4], "5#{hex[13, 3]}", "8#{hex[17, 3]}", hex[20, 12]].join("-")
      end
    end
  end
end
