# frozen_string_literal: true

module Gorvant
  module Kinds
    # A switch whose position the condition gives. props: ohms, closed (its rest position), needs (id of the
    # electronics that must be fed for it to close; nil when purely mechanical).
    class Switch < Kind
      register :switch
      def switching? = true
      def siemens(branch) = 1.0 / branch[:ohms]
      def follows(branch) = branch[:needs]

      def closed?(branch, energized, position)
        return false unless position.nil? ? branch[:closed] : position

        needs = branch[:needs]
        needs.nil? || energized[needs] == true
      end
    end

    # A contact that a coil moves. props: ohms, relay (coil id), rest (:open or :closed).
    class Contact < Kind
      register :contact
      def switching? = true
      def siemens(branch) = 1.0 / branch[:ohms]
      def follows(branch) = branch[:relay]
      def closed?(branch, energized, _position) =
        branch[:rest] == :closed ? !energized[branch[:relay]] : energized[branch[:relay]] == true
    end

    # A fuse. props: ohms, rated_amps. It opens by current, decided by Settling, and stays open.
    class Fuse < Kind
      register :fuse
      def switching? = true
      def siemens(branch) = 1.0 / branch[:ohms]

      # :holds, :opens_in_minutes or :opens_at_once for a steady current.
      # Source: docs/sources.md, fuse-curve.
      def verdict(branch, amps)
        times = amps / branch[:rated_amps]
        curve = Catalogue.profile.fetch("fuse")
        return :opens_at_once if times >= curve.fetch("opens_at_once_times_rating")
        return :opens_in_minutes if times >= curve.fetch("opens_in_minutes_times_rating")

        :holds
      end
    end
  end
end
