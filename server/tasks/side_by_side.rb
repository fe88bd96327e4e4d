# frozen_string_literal: true

require "etc"
require "json"
require "timeout"

module Gorvant
  module Server
    # What somebody waits for, worked out by two: half of it here, half in a process of its own. That one only reckons:
    # it sends back what came of it and ends without a word to anything that it has from this one.
    module SideBySide
      LEAST = 16 # of fewer, a process of its own takes longer than it spares
      MOST_SECONDS = 10 # that it is waited for, once the own half is done

      # [what the block makes of each], in their order; of half of them as JSON has it. What the other does not bring is
      # worked out here.
      def self.map(list, &work)
        return list.map(&work) unless list.size >= LEAST && hands > 1

        near, far = list.partition.with_index { |_one, i| i.even? }
        process, reader = begin_beside(far, &work)
        near = near.map(&work)
        far = sent(reader) || far.map(&work)
        near.zip(far).flatten(1).first(list.size)
      ensure
        leave(process, reader) if process
      end

      # Processors that this may use; where there are no processes, as in a browser, itself alone.
      def self.hands = Process.respond_to?(:fork) ? Etc.nprocessors : 1

      # [process, what it sends]
      def self.begin_beside(list, &work)
        reader, writer = IO.pipe(binmode: true)
        process =
          fork do
            %w[TERM INT].each { |signal| trap(signal) { exit!(1) } }
            reader.close
            writer.write(JSON.generate(list.map(&work)))
            writer.close
          ensure
            exit!(0)
          end
        writer.close
        [process, reader]
      end

      # What it sent, nil where it did not come to its end.
      def self.sent(reader)
        JSON.parse(Timeout.timeout(MOST_SECONDS) { reader.read })
      rescue JSON::ParserError, Timeout::Error # nothing, or cut off in its middle
        nil
      end

      def self.leave(process, reader)
        reader.close
        Process.kill(:KILL, process)
        Process.wait(process)
      rescue Errno::ESRCH, Errno::ECHILD # somebody else has waited for it
        nil
      end
      private_class_method :begin_beside, :sent, :leave
    end
  end
end
