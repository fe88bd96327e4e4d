# frozen_string_literal: true

require "vips"

module Gorvant
  module Server
    # Photos as they are kept: read by their content, shrunk, turned upright, written anew as JPEG, so that nothing of the camera's
    # own data (place, time, device) is kept.
    module Pictures
      LONGEST = 1600
      SMALL = 320
      MOST_PIXELS = 120_000_000
      # What the first bytes of a picture may be.
      KINDS = { "JPEG" => "\xFF\xD8\xFF".b, "PNG" => "\x89PNG\r\n\x1A\n".b }.freeze
      WEBP = /\ARIFF....WEBP/mn

      class << self
        # { content:, small:, width:, height: } of the bytes of a picture. Raises BadPhoto.
        def shrink(bytes)
          raise BadPhoto.new(field: "/", problem: "is empty; send the picture's bytes") if bytes.nil? || bytes.empty?
          raise BadPhoto.new(field: "/", problem: "is no JPEG, PNG or WebP picture, whatever its name says") unless known?(bytes)

          size(bytes)
          content = written(bytes, LONGEST, 82)
          image = Vips::Image.new_from_buffer(content, "")
          { content: content, small: written(bytes, SMALL, 74), width: image.width, height: image.height }
        rescue Vips::Error
          raise BadPhoto.new(field: "/", problem: "begins like a picture and cannot be read to its end")
        end

        private

        def known?(bytes) = KINDS.values.any? { |start| bytes.b.start_with?(start) } || WEBP.match?(bytes.b)

        def size(bytes)
          image = Vips::Image.new_from_buffer(bytes, "")
          raise BadPhoto.new(field: "/", problem: "is #{image.width} × #{image.height} pixels; too large") if image.width * image.height > MOST_PIXELS
        end

        def written(bytes, longest, quality)
          image = Vips::Image.thumbnail_buffer(bytes, longest, height: longest, size: :down, fail_on: :error)
          image = image.flatten(background: 255) if image.has_alpha?
          image.colourspace(:srgb).jpegsave_buffer(Q: quality, strip: true)
        end
      end
    end
  end
end
