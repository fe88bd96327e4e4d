# frozen_string_literal: true

require "zlib"
require "stringio"

module Gorvant
  module Server
    # Reads a logger's files into packed hours, part by part. Whatever had been read of the record before goes first, so
    # that a worker that takes over a killed one's task begins again and ends the same. A record with lines that cannot
    # be read is refused whole, with the first of them.
    class ReadLog
      KIND = "log"

      # input: { "log_id", "parts" => [parts of each file] } or, for demo data, { "log_id", "made_up" => … }.
      def initialize(input, db)
        @id = input.fetch("log_id")
        @kept = LogHours.new(db, @id)
        @parts = input["parts"].to_a.each_with_index.flat_map { |count, i| (1..count).map { |number| [i + 1, number] } }
        @made_up = input["made_up"]
        @unpacked = 0
      end

      def resumes? = false
      def total = (@made_up ? MadeUp::STEPS : @parts.size) + 1

      def step(index)
        return 0 if @refused || @kept.gone?

        start if index.zero?
        index == total - 1 ? finish : read(index)
        1
      rescue Formats::BadFieldLog => e
        refuse(e.problems)
        0
      end

      def answer(_pieces) = { "log_id" => @id }

      private

      def limit(name) = Logs::LIMITS.fetch(name)

      def start
        @kept.clear
        return made_up if @made_up

        given = @kept.row[:mapping].to_hash
        @mapping = Formats::FieldLogMapping.parse(given, given["names"].size)
        @reader = Formats::FieldLogReader.new(@mapping) { |hour| @kept.keep(hour) }
        order
      end

      def made_up
        @source = MadeUp.new(@made_up)
        head = Formats::FieldLogHead.guess(@source.text(0))
        @mapping = Formats::FieldLogMapping.guess(head, zone: @made_up.fetch("zone", "UTC"))
        @reader = Formats::FieldLogReader.new(@mapping) { |hour| @kept.keep(hour) }
        @reader.file(1, head)
      end

      # Files as they follow each other in time, whatever order they were chosen in.
      def order
        heads = @parts.map(&:first).uniq.to_h { |file| [file, Formats::FieldLogHead.guess(unpacked(file, 1))] }
        starts = heads.transform_values { |head| head.rows.filter_map { |row| time(row) }.first || Float::INFINITY }
        @heads = heads
        @parts = @parts.sort_by { |file, number| [starts.fetch(file), file, number] }
      end

      def time(row)
        clock = Formats::FieldLogClock.new(**@mapping.to_h.slice(:order, :zone, :daylight_saving, :start))
        clock.read(@mapping.time.map { |at| row[at] }.join(" "), nil)
      end

      def read(index)
        return @reader << @source.text(index) if @made_up

        file, number = @parts[index]
        if number == 1
          @reader.end_file unless index.zero?
          @reader.file(file, @heads.fetch(file))
        end
        @reader << unpacked(file, number)
      end

      # Bytes of a part; a bomb in it is stopped.
      def unpacked(file, number)
        bytes = @kept.part(file, number)
        bad("part #{number} of file #{file} has not arrived") if bytes.empty?
        most = limit("most_bytes") - @unpacked
        text = Zlib::GzipReader.new(StringIO.new(bytes)).read(most + 1)
        bad("is over #{limit("most_bytes") / 1_048_576} MB unpacked") if text.to_s.bytesize > most
        @unpacked += text.to_s.bytesize
        text.to_s
      rescue Zlib::Error
        bad("part #{number} of file #{file} is not gzip")
      end

      def bad(problem) = raise(Formats::BadFieldLog.new([{ "field" => "/file", "problem" => problem }]))

      def finish
        @reader.end_file
        @kept.finish(@mapping, @reader.finish, @reader.on_off)
      end

      def refuse(problems)
        @refused = true
        @kept.refuse(problems)
      end

      # A demo record: the stand-in logger, a day a step.
      class MadeUp
        STEPS = 14

        def initialize(given)
          rig =
            Formats::RigJson.read(
              JSON.parse(File.read(File.join(Demo::FILES, "rigs", "#{given.fetch("rig")}.json"), encoding: "UTF-8"))
            )
          actual = rig.set(given.fetch("actual", {}), "measured")
          @log =
            Formats::MadeUpLog.new(
              profile: ClockProfile.of(actual),
              changeover: rig.changeover,
              **given.fetch("log").transform_keys(&:to_sym)
            )
        end

        # The next day of it, the heading before the first.
        def text(index)
          day = @log.lines(86_400).to_a
          day.shift if index.positive?
          "#{day.join("\n")}\n"
        end
      end
    end
  end
end
