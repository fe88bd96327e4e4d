# frozen_string_literal: true

module Gorvant
  module Server
    # Rigs and their netlists by digest, kept by each process for itself: reading and assembling one takes longer than
    # answering. Values are frozen and follow from their digest alone, so no process needs another's.
    module Warm
      MOST = 64
      MOST_TIMELINES = 12
      MOST_TRACES = 12
      MOST_LIBRARIES = 6 # with first looks at them
      MOST_SITUATIONS = 24
      TURNS = Turns.new
      @lock = Mutex.new
      @rigs = {}
      @netlists = {}
      @assumed = {}
      @timelines = {}
      @traces = {}
      @moments = {}
      @libraries = {}
      @situations = {}
      @found = {}
      @fitted = {}

      class << self
        # The Rig of a row that carries digest and content.
        def rig(row) = keep(@rigs, row[:digest]) { Formats::RigJson.read(row[:content].to_hash) }
        # Keys of the facts that nobody has read.
        def assumed(row) = keep(@assumed, row[:digest]) { rig(row).assumed }
        # How what is fitted stands: a list of visits asks for it again and again.
        def fitted_mark(row, &block) = keep(@fitted, row[:digest], &block)
        # A rig run under a script: asked about again and again while a tape is looked at.
        def timeline(row, script) =
          keep(@timelines, [row[:digest], script], MOST_TIMELINES) do
            dear { worked("timeline") { Run.of(rig(row), script) } }
          end
        # The same for one instant: drawing, table and ways of one condition are asked for one after another.
        def trace(row, condition) =
          keep(@traces, [row[:digest], condition], MOST_TRACES) { worked("trace") { Trace.new(rig(row), condition) } }
        # The instants of a defrost that this rig has: runs of their own, the same whatever the condition.
        def moments(row) = keep(@moments, row[:digest]) { worked("timeline") { Moments.of(rig(row)) } }
        # The unit that is looked into, by the digest of its rig, what was found and the weather.
        def situation(key, &block) = keep(@situations, key, MOST_SITUATIONS, &block)
        # Signatures laid out for asking; nothing is held of what is not there yet.
        def library(key)
          held = @lock.synchronize { @libraries[key] }
          held || yield&.then { |library| keep(@libraries, key, MOST_LIBRARIES) { library } }
        end
        # What takes long to work out, in its turn.
        def dear(&block) = OneEach.serve { TURNS.serve(&block) }
        # What a record of findings comes to: asked again whenever a visit is kept.
        def found(made_from, &block) = keep(@found, made_from, &block)
        def netlist(row) = keep(@netlists, row[:digest]) { Assembly.netlist(rig(row)) }

        private

        def worked(what, &block) = Metrics.solving(what, &block)

        def keep(store, digest, most = MOST)
          @lock.synchronize { store[digest] } ||
            yield.tap do |value|
              @lock.synchronize do
                store.shift if store.size >= most
                store[digest] = value
              end
            end
        end
      end
    end
  end
end
