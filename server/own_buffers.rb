# frozen_string_literal: true

require "puma"
require "puma/server"

# Puma (to 8.0.2 at least) keeps the head of an answer in a buffer of the connection, and empties it once more after the
# connection has been handed to another thread, which may have begun the next answer by then: a body without its head
# went out, some in a thousand where all threads are busy. With a buffer for each thread nobody empties another's.
module Gorvant
  module Server
    module OwnBuffers
      KEY = :gorvant_puma_buffer

      def io_buffer = Thread.current.thread_variable_get(KEY) || make

      private

      def make = Puma::IOBuffer.new.tap { |buffer| Thread.current.thread_variable_set(KEY, buffer) }
    end
  end
end

Puma::Client.prepend(Gorvant::Server::OwnBuffers)
