# frozen_string_literal: true

# A process of its own for one picture, so that a bad one can take neither memory nor time from the server: bytes on
# standard input; on standard output a line of JSON ({ width, height, content, small } in pixels and bytes, or { problem
# }), then the two pictures. Limits of memory and time are set by who starts it.
require "bundler/setup"
require "json"
require "vips"

LONGEST = 1600
SMALL = 320
MOST_PIXELS = 50_000_000

def answer(head, *parts)
  $stdout.binmode
  $stdout.write("#{JSON.generate(head)}\n", *parts)
  $stdout.flush
  exit!(0)
end

def written(bytes, longest, quality)
  image = Vips::Image.thumbnail_buffer(bytes, longest, height: longest, size: :down, fail_on: :truncated)
  image = image.flatten(background: 255) if image.has_alpha?
  [image.colourspace(:srgb).jpegsave_buffer(Q: quality, strip: true), image]
end

begin
  bytes = $stdin.binmode.read
  whole = Vips::Image.new_from_buffer(bytes, "")
  if whole.width * whole.height > MOST_PIXELS
    answer(
      { problem: "is #{whole.width} × #{whole.height} pixels; at most #{MOST_PIXELS / 1_000_000} million are taken" }
    )
  end

  # Read once to its last line: what shrinks while it reads does not miss an end that is cut off.
  Vips::Image.new_from_buffer(bytes, "", access: :sequential, fail_on: :truncated).avg
  content, image = written(bytes, LONGEST, 82)
  small, = written(content, SMALL, 74)
  answer({ width: image.width, height: image.height, content: content.bytesize, small: small.bytesize }, content, small)
rescue Vips::Error
  answer({ problem: "begins like a picture and cannot be read to its end; take it anew or send it again" })
end
