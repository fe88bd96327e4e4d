# frozen_string_literal: true

module Gorvant
  module Server
    # How this server stands to the world. On loopback alone, with one account and no public address, the person at
    # this machine comes in by a link that the start has printed (local mode); whatever else, by name and password.
    # GORVANT_BIND: address to listen at; GORVANT_PUBLIC_URL: what others reach it by; GORVANT_LOCAL_KEY: the start's
    # own secret, never taken from anything that a request says of itself.
    class Opening
      LOOPBACK = /\A(127(\.\d{1,3}){3}|::1|\[::1\]|localhost)\z/

      attr_reader :public_url

      def initialize(bind: ENV.fetch("GORVANT_BIND", "127.0.0.1"), public_url: ENV["GORVANT_PUBLIC_URL"].to_s, key: nil)
        @bind = bind
        @public_url = public_url.chomp("/")
        @key = key || ENV["GORVANT_LOCAL_KEY"].to_s
      end

      def private? = @bind.match?(LOOPBACK) && public_url.empty?
      def https? = public_url.start_with?("https://")

      # A page's origin, as browsers write it; nil where there is no such address.
      def origin =
        public_url.empty? ? nil : URI.parse(public_url).then { |at| "#{at.scheme}://#{at.authority}".downcase }

      # Browsers keep passkeys for a name with TLS, and for no address of numbers.
      def passkeys? = https? && host.match?(/\A(?!-)[a-z\d.-]*[a-z][a-z\d-]*\z/i)

      def host = public_url.empty? ? nil : URI.parse(public_url).host

      # Where others reach a page of this server; nil where there is no such address.
      def public_address(path) = public_url.empty? ? nil : "#{public_url}#{path}"

      # Whether the start's link lets in. people: People.
      def local?(people) = private? && !@key.empty? && people.alone?

      def key?(given) = !@key.empty? && Rack::Utils.secure_compare(@key, given.to_s)

      # Raises Refused where strangers could knock and the owner has no password.
      def check!(people)
        return if private? || people.owner_signs_in?

        raise Refused.new(
                field: public_url.empty? ? "GORVANT_BIND" : "GORVANT_PUBLIC_URL",
                problem:
                  "others could reach this server and its owner has no password yet; set one with bin/owner-reset"
              )
      end
    end
  end
end
