# frozen_string_literal: true

require_relative "core"

# A controller alone, fed by hand: what works, what is live, how warm it is; no circuit and no run behind it.
class FedByHand
  attr_reader :answer, :controller

  def initialize(controller)
    @controller = controller
    @memory = controller.memory
    @outputs = {}
  end

  # Asks it at a time. works, live: ids; quantities: { name => degrees or Quantity }; inputs: of the script; outputs: of
  # its fellows.
  def at(now, works: [], live: [], inputs: {}, outputs: {}, **quantities)
    values =
      quantities.to_h do |name, value|
        [name.to_s, value.is_a?(Gorvant::Quantity) ? value : Gorvant::Quantity.still(value)]
      end
    seen =
      Gorvant::Seen.new(
        now.to_f,
        { faults: [] }.merge(inputs),
        @outputs.merge(outputs),
        works: ->(id) { works.include?(id) },
        live: lambda { |node| live.include?(node) },
        quantities: values
      )
    @answer = controller.step(@memory, seen)
    @memory = @answer.memory
    @outputs = @outputs.merge(@answer.outputs)
    @answer
  end

  def out(id) = @outputs[id]
  def why(id) = answer.reasons[id]&.rule
  def until_seconds(id) = answer.reasons[id]&.until_seconds
end
