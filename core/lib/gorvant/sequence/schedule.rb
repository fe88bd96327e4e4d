# frozen_string_literal: true

module Gorvant
  # The future of a run: what is to happen, by time, then priority, then the order in which it was scheduled. Anything
  # scheduled can be cancelled.
  class Schedule
    Item =
      Struct.new(:at_seconds, :priority, :order, :what, :cancelled) do
        def before?(other) =
          ([at_seconds, priority, order] <=> [other.at_seconds, other.priority, other.order]).negative?
      end

    def initialize
      @heap = []
      @count = 0
    end

    # Returns the handle that `cancel` takes.
    def add(at_seconds, what, priority: 0)
      item = Item.new(at_seconds, priority, @count += 1, what, false)
      @heap << item
      rise(@heap.size - 1)
      item
    end

    def cancel(item) = item && item.cancelled = true

    # Seconds of the next item, nil for none.
    def next_at
      drop while @heap.any? && @heap.first.cancelled
      @heap.first&.at_seconds
    end

    # The next item's content, if it is due by then; nil otherwise.
    def take(by:)
      at = next_at
      return nil if at.nil? || at > by

      @heap.first.what.tap { drop }
    end

    private

    def drop
      last = @heap.pop
      return if @heap.empty?

      @heap[0] = last
      sink(0)
    end

    def rise(index)
      while index.positive? && @heap[index].before?(@heap[parent = (index - 1) / 2])
        @heap[index], @heap[parent] = @heap.values_at(parent, index)
        index = parent
      end
    end

    def sink(index)
      loop do
        least =
          [(index * 2) + 1, (index * 2) + 2].select { |child| child < @heap.size }
            .inject(index) { |best, child| @heap[child].before?(@heap[best]) ? child : best }
        return if least == index

        @heap[index], @heap[least] = @heap.values_at(least, index)
        index = least
      end
    end
  end
end
