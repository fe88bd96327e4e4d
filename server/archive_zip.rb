# frozen_string_literal: true

require "zip"

module Gorvant
  module Server
    # The zip that an archive is. Names, number and size of what is in it are looked at before anything is unpacked, and
    # again while it is: a zip may say of itself what it likes.
    module ArchiveZip
      MOST_ENTRIES = 2_000
      MOST_BYTES = 256 * 1024 * 1024
      MOST_FILE_BYTES = 32 * 1024 * 1024

      class << self
        def dump(files)
          Zip::OutputStream
            .write_buffer do |zip|
              files.each do |name, bytes|
                zip.put_next_entry(name, nil, nil, name.end_with?(".jpg") ? Zip::Entry::STORED : Zip::Entry::DEFLATED)
                zip.write(bytes)
              end
            end
            .string
        end

        # { name => bytes }. Raises BadArchive.
        def read(bytes)
          entries = Zip::File.open_buffer(StringIO.new(bytes)).entries
          refuse("the zip", "holds #{entries.size} files; at most #{MOST_ENTRIES}") if entries.size > MOST_ENTRIES
          entries.each { |entry| check(entry) }
          total = entries.sum(&:size)
          refuse("the zip", "would unpack to #{total} bytes; at most #{MOST_BYTES}") if total > MOST_BYTES
          unpacked(entries)
        rescue BadArchive
          raise
        rescue StandardError => e # whatever the library stumbles over in a broken one
          refuse("the zip", "cannot be read: #{e.class.name.split("::").last}")
        end

        private

        def check(entry)
          name = entry.name.dup.force_encoding(Encoding::UTF_8)
          known = name.valid_encoding? && Formats::Archive::NAMES.match?(name)
          refuse(name.scrub[0, 80], "is no name that an archive has") unless known
          refuse(name, "is over #{MOST_FILE_BYTES} bytes") if entry.size > MOST_FILE_BYTES
        end

        def unpacked(entries)
          twice = entries.map(&:name).tally.find { |_name, count| count > 1 }
          refuse(twice.first, "is there twice") if twice
          left = MOST_BYTES
          entries.to_h do |entry|
            bytes = entry.get_input_stream.read([MOST_FILE_BYTES, left].min + 1).to_s
            left -= bytes.bytesize
            refuse(entry.name, "unpacks to more than it says") if left.negative? || bytes.bytesize > entry.size
            [entry.name, bytes]
          end
        end

        def refuse(field, problem) = raise(BadArchive.new([{ "field" => field, "problem" => problem }]))
      end
    end
  end
end
