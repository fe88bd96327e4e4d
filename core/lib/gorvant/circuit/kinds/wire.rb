# frozen_string_literal: true

module Gorvant
  module Kinds
    # A conductor, joint, jumper or board trace. props: ohms.
    class Wire < Kind
      register :wire
      def siemens(branch) = 1.0 / branch[:ohms]
    end

    # Capacitance between two conductors of one cable. props: farads. It carries microamps: it only makes ghosts.
    class Coupling < Kind
      register :coupling
      def stamped? = false
    end
  end
end
