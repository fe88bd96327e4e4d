# frozen_string_literal: true

module Gorvant
  # The electrical face of a component between two nodes. `from` is the side that a hot feed arrives at.
  # props holds what its kind needs, units in the names.
  Branch = Value.define(:id, :kind, :from, :to, :component, :props, defaults: { component: nil, props: {} })

  class Branch
    def behavior = Kind.fetch(kind)
    def [](name) = props[name]
    # What a person calls it; the assembly gives it.
    def label = props[:label] || component || id
    def other_end(node) = node == from ? to : from
    def load? = behavior.load?
    def switching? = behavior.switching?
  end

  # What each kind of branch knows of itself. The solver knows only laws; adding a file here adds a kind.
  class Kind
    REGISTRY = {} # rubocop:disable Style/MutableConstant -- each kind adds itself
    class << self
      def register(name)
        Kind.registry[name] = new.freeze
      end

      def registry = REGISTRY
      def fetch(name) = REGISTRY.fetch(name)
    end

    # Conductance in siemens of a branch that conducts.
    def siemens(_branch) = 0.0
    # Whether contact states decide if it conducts.
    def switching? = false
    # Whether it conducts, given { coil id => energized } and where somebody set it, nil for nobody (only asked of
    # switching kinds).
    def closed?(_branch, _energized, _position) = true
    # Id of the load that moves it, nil for none (only asked of switching kinds).
    def follows(_branch) = nil
    # Whether current through it does work: a path ends here.
    def load? = false
    # Whether it drives current of its own.
    def source? = false
    # Whether the solver stamps it: coupling capacitance matters to ghosts alone.
    def stamped? = true
    # Volts between its ends above which a load works; nil for others.
    def works_above_volts_ac(_branch, _working) = nil

    # Raises BadValue unless the numbers are usable.
    def check(branch)
      ohms = branch[:ohms]
      return if ohms.nil? || (ohms.is_a?(Numeric) && ohms.positive? && ohms.finite?)

      raise BadValue.new(
              name: "resistance",
              branch: branch.id,
              given: ohms.inspect,
              wanted: "a positive number of ohms"
            )
    end
  end
end
