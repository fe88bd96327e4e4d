# frozen_string_literal: true

require "ipaddr"

module Gorvant
  module Server
    # From where somebody asks. What a request says of itself counts only where one of the proxies named in
    # GORVANT_PROXIES (addresses or nets, with commas) has passed it on; then the last place before them.
    module Caller
      class << self
        def address(env, proxies: self.proxies)
          last = env["REMOTE_ADDR"].to_s
          return last unless among?(proxies, last)

          passed = env["HTTP_X_FORWARDED_FOR"].to_s.split(",").map(&:strip).reject(&:empty?)
          passed.reverse.find { |one| !among?(proxies, one) } || last
        end

        # Whether somebody at this machine asks, and no proxy for them.
        def here?(env) = env["HTTP_X_FORWARDED_FOR"].nil? && Opening::LOOPBACK.match?(env["REMOTE_ADDR"].to_s)

        def proxies = @proxies ||= ENV.fetch("GORVANT_PROXIES", "").split(",").map { |one| IPAddr.new(one.strip) }

        private

        def among?(proxies, address)
          proxies.any? { |one| one.include?(IPAddr.new(address)) }
        rescue IPAddr::Error
          false
        end
      end
    end
  end
end
