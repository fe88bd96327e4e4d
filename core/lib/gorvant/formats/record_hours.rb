# frozen_string_literal: true

require "zlib"

module Gorvant
  module Formats
    # The hours of a record one after the other, as an archive has them. index: [[hour, bytes of its values, of its
    # minutes, of its ten minutes]], hours ascending.
    module RecordHours
      # Unpacked, of one hour: 20 columns ten times a second.
      MOST_HOUR_BYTES = 4 * 21 * 36_000
      HOUR = 0.0..3600.0

      class << self
        # hours: [{ hour:, content:, minutes:, tens: }] as bytes. [index, bytes]
        def join(hours)
          parts = hours.map { |one| one.values_at(:content, :minutes, :tens) }
          [hours.zip(parts).map { |one, bytes| [one[:hour], *bytes.map(&:bytesize)] }, parts.join.b]
        end

        # [{ hour:, content:, minutes:, tens: }] again.
        def split(index, bytes)
          at = 0
          index.map do |hour, *sizes|
            content, minutes, tens = sizes.map { |size| bytes.byteslice(at, size).tap { at += size } }
            { hour: hour, content: content, minutes: minutes, tens: tens }
          end
        end

        # What is wrong with them for columns of these ids; nil for nothing.
        def problem(index, ids, bytes)
          whole = index.sum { |_hour, *sizes| sizes.sum }
          return "holds #{bytes.bytesize} bytes, and its hours are #{whole}" if whole != bytes.bytesize
          return "has hours that do not follow each other" unless index.each_cons(2).all? { |one, two| one[0] < two[0] }

          split(index, bytes).each { |one| hour_problem(one, ids)&.then { |says| return "hour #{one[:hour]} #{says}" } }
          nil
        end

        private

        def hour_problem(one, ids)
          values, minutes, tens = one.values_at(:content, :minutes, :tens).map { |bytes| unpacked(bytes) }
          return "cannot be unpacked" unless values && minutes && tens

          rows, left = values.bytesize.divmod(4 * (ids.size + 1))
          return "does not hold #{ids.size + 1} columns" if left.positive? || rows.zero?
          return "has other minutes than its columns" unless levels?(ids, 60 => minutes, 600 => tens)

          seconds = values.unpack("e#{rows}")
          "has times that do not go on" unless seconds.all? { |at| HOUR.cover?(at) } && seconds == seconds.sort
        end

        def levels?(ids, packed)
          packed.all? { |slot, bytes| bytes.bytesize == RecordHour::LEVELS.fetch(slot) * 2 * 4 * ids.size }
        end

        # At most so much; nil for what is not deflated, or is more.
        def unpacked(bytes)
          text = +"".b
          inflate = Zlib::Inflate.new
          inflate.inflate(bytes) do |chunk|
            text << chunk
            return nil if text.bytesize > MOST_HOUR_BYTES
          end
          inflate.finished? ? text : nil
        rescue Zlib::Error
          nil
        ensure
          inflate&.close
        end
      end
    end
  end
end
