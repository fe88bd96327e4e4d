# frozen_string_literal: true

# Where the answers run on a device without signal: what stands there in the place of the server's own surroundings.
# Everything else is the same files.
module Gorvant
  # Rig files were looked at when the server took them.
  Formats::RigJson.singleton_class.class_eval { alias_method :read, :known }

  module Server
    # One question at a time is asked there.
    class Turns
      def serve = yield
    end

    module OneEach
      def self.serve = yield
    end

    module Metrics
      def self.solving(_what) = yield
    end

    # Named by what they are of; a device never works them out.
    module Signatures
      def self.key(digest, situation) = Answers::Along.name(digest, situation)
      # A first look at them is never taken along.
      def self.first_key(digest, situation, look) = [key(digest, situation), *look.states].join
    end
  end
end
