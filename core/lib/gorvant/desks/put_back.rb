# frozen_string_literal: true

module Gorvant
  # One thing that has to be as it was before anybody leaves, as the visit's own records know of it. id: stays the same
  # while the record does. by_record: in words, how the records themselves show it back; nil where they do not.
  # never_left: closed with neither reason nor tick missing: it is removed, or the unit is left off, locked out and
  # tagged. cautions: keys.
  PutBack =
    Value.define(
      :id,
      :says,
      :by_record,
      :never_left,
      :cautions,
      defaults: {
        by_record: nil,
        never_left: false,
        cautions: [].freeze
      }
    )

  class PutBack
    # "jumper.r_y_at_the_strip"
    def self.id(*parts) = parts.join(".").downcase.gsub(/[^\p{L}\p{N}.]+/, "_")[0, 120]
  end
end
