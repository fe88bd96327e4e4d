# frozen_string_literal: true

module Gorvant
  module Server
    class NotFound < Error
      says "there is no %<thing>s '%<id>s'"
    end

    # The same id came before with another body.
    class IdTaken < Error
      says "id '%<id>s' is already used for something else; make a new one"
    end

    # Somebody else changed the row first; both values are told.
    class Stale < Error
      says "this %<thing>s was changed meanwhile (version %<current_version>s); compare, then save again"
    end

    # A closed visit is read only.
    class Closed < Error
      says "this visit is closed (no. %<number>s); open it again to change it"
    end

    # What is missing before a visit can be closed: [{ "field", "problem" }].
    class NotReady < Error
      says "%<count>s thing(s) missing before this visit can be closed; first: %<first>s"
      attr_reader :problems

      def initialize(problems)
        @problems = problems
        super(count: problems.size, first: problems.first["problem"])
      end
    end

    # The rig went on while somebody changed an older revision of it: theirs, mine, and both together where they do not
    # touch.
    class RigMoved < Stale
      says "this rig was changed meanwhile (revision %<current_version>s); take both, or decide whose word stands"
    end

    # The request's content makes no sense as a whole.
    class Refused < Error
      says "%<field>s: %<problem>s"
    end

    # Several fields of one request are wrong: [{ "field", "problem" }].
    class Invalid < Error
      says "%<first>s"
      attr_reader :problems

      def initialize(problems)
        @problems = problems
        super(first: problems.map { |one| "#{one["field"]} #{one["problem"]}" }.first)
      end
    end

    # Nobody is signed in here.
    class NotSignedIn < Error
      says "sign in first"
    end

    # One sentence for a wrong name, a wrong password and a wrong code: it tells a stranger nothing.
    class NotLetIn < Error
      says "this name and password do not fit together"
    end

    # As little told to who comes by a passkey.
    class PasskeyNotKnown < Error
      says "this passkey opens nothing here; sign in by name and password"
    end

    # The password was right, and this account asks for a one-time code too.
    class CodeWanted < Error
      says "give the code that your device shows now, or one of your recovery codes"
    end

    class TooManyTries < Error
      says "too many tries; the next one in %<seconds>s s"
    end

    # The page that asks was opened by one person, and another has signed in in this browser since.
    class SomebodyElse < Error
      says "somebody else is signed in in this browser by now; nothing was kept under their name: load the page anew"
    end

    # A write without the token of its session, or with that of an earlier one.
    class OldToken < Error
      says "this page began in another session; it is asked again by itself, else load the page anew"
    end

    # More than limits.yml lets one caller ask for.
    class TooOften < Error
      says "that is asked more than %<most>s times a minute; the next in %<seconds>s s"
    end

    # One account has one dear answer at a time.
    class OneByOne < Error
      says "another long answer of yours is worked out just now; this one is asked again by itself"
    end

    # Signed in, and not allowed to do this.
    class NotAllowed < Error
      says "%<problem>s"
    end

    # Too many ask for dear answers at once.
    class Busy < Error
      says "others are having long answers worked out just now; it is asked again by itself"
    end

    # An address that no browser would send.
    class BadAddress < Error
      says "the %<part>s of the address %<problem>s"
    end

    class NotJson < Error
      says "the body is not JSON that can be read: %<reason>s"
    end

    class WrongMedia < Error
      says "the body has to be sent as application/json, not %<given>s"
    end

    # A picture that cannot be read as one.
    class BadPhoto < Error
      says "%<problem>s"
    end

    class TooLarge < Error
      says "the body is over %<limit>s bytes"
    end
  end
end
