# frozen_string_literal: true

module Gorvant
  # A script that cannot be run. `field` is the JSON pointer of what is wrong.
  class BadScript < Error
    says "%<field>s: %<problem>s"
  end

  # Controllers that undo each other without any time passing.
  class ZeroTimeLoop < Error
    says "at %<at>s s these undo each other without any time passing: %<members>s"
  end
end
