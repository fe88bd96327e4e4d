# frozen_string_literal: true

require "open3"
require "rbconfig"

module Gorvant
  module Server
    # Photos as they are kept: read by their content, shrunk, turned upright, written anew as JPEG, so that nothing of
    # the camera's own data (place, time, device) is kept. The work is done by pictures/shrinker.rb in a process of its
    # own.
    module Pictures
      SHRINKER = File.join(ROOT, "server", "pictures", "shrinker.rb")
      MOST_MEMORY_BYTES = 1024 * 1024 * 1024
      MOST_SECONDS = 10 # of the processor
      AT_ONCE = 2
      # What the first bytes of a picture may be.
      KINDS = {
        "JPEG" => /\A\xFF\xD8\xFF/n,
        "PNG" => /\A\x89PNG\r\n\x1A\n/n,
        "WebP" => /\ARIFF....WEBP/mn,
        "HEIC" => /\A....ftyp(?:hei[cxms]|hevc|mif1|msf1)/mn
      }.freeze

      @turns = SizedQueue.new(AT_ONCE)

      class << self
        # { content:, small:, width:, height: } of the bytes of a picture. Raises BadPhoto.
        def shrink(bytes)
          refuse("is empty; send the picture's bytes") if bytes.nil? || bytes.empty?
          kind = KINDS.find { |_name, start| start.match?(bytes.b) }&.first
          refuse("is no JPEG, PNG, WebP or HEIC picture, whatever its name says") unless kind
          head, rest = shrunk(bytes)
          refuse(heic_words) if kind == "HEIC" && (head.nil? || head["problem"])
          refuse("takes more memory or time to read than a photo should; send it smaller") unless head
          refuse(head["problem"]) if head["problem"]

          {
            content: rest.byteslice(0, head["content"]),
            small: rest.byteslice(head["content"], head["small"]),
            width: head["width"],
            height: head["height"]
          }
        end

        private

        def refuse(problem) = raise(BadPhoto.new(field: "/", problem: problem))
        def heic_words =
          "is a HEIC picture that cannot be read here; set the phone's camera to the most compatible format (JPEG), " \
            "or share the photo as JPEG"

        # [head, bytes of the pictures]; head nil where the process was ended.
        def shrunk(bytes)
          @turns << true
          output, status =
            Open3.capture2(
              { "VIPS_CONCURRENCY" => "1" },
              RbConfig.ruby,
              SHRINKER,
              stdin_data: bytes,
              binmode: true,
              err: File::NULL,
              rlimit_as: MOST_MEMORY_BYTES,
              rlimit_cpu: MOST_SECONDS
            )
          head, rest = output.split("\n", 2)
          status.success? && rest ? [JSON.parse(head), rest] : [nil, nil]
        ensure
          @turns.pop
        end
      end
    end
  end
end
