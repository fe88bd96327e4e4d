# frozen_string_literal: true

module Gorvant
  # A netlist that cannot be: the message names the branch or node.
  class BadNetlist < Error
  end

  class UnknownNode < BadNetlist
    says "unknown point '%<node>s'%<nearest>s"

    def self.of(node, known) =
      new(
        node: Nearest.quoted(node),
        nearest: Nearest.closest(node, known)&.then { |near| "; the nearest known is '#{near}'" }
      )
  end

  class UnknownBranch < BadNetlist
    says "unknown branch '%<branch>s'%<nearest>s"

    def self.of(branch, known) =
      new(
        branch: Nearest.quoted(branch),
        nearest: Nearest.closest(branch, known)&.then { |near| "; the nearest known is '#{near}'" }
      )
  end

  class DuplicateBranch < BadNetlist
    says "two branches are called '%<branch>s'; each needs a name of its own"
  end

  class BranchToItself < BadNetlist
    says "branch '%<branch>s' starts and ends at '%<node>s'; it has to join two different points"
  end

  class BadValue < BadNetlist
    says "%<name>s of '%<branch>s' is %<given>s; it has to be %<wanted>s"
  end

  class NoSource < BadNetlist
    says "this circuit has no source: nothing in it can be live"
  end
end
