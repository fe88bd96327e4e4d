# frozen_string_literal: true

require "zlib"

module Gorvant
  # An hour of a record as it is kept: seconds since the hour began and every column as Float32, deflated together, with
  # least and most of every minute and every ten minutes. NaN is a gap.
  # hour: since 1970, UTC. seconds: [Float] within the hour; columns: { id => [Float] }.
  RecordHour = Value.define(:hour, :seconds, :columns)

  class RecordHour
    LEVELS = { 60 => 60, 600 => 6 }.freeze # seconds of a slot => slots an hour

    # Ids of columns in the order in which they are packed, whatever order they came in.
    def self.order(ids) = Catalogue.recorded.fetch("columns").keys & ids

    def self.unpack(hour, ids, bytes)
      all = Zlib::Inflate.inflate(bytes).unpack("e*")
      size = all.size / (ids.size + 1)
      new(
        hour: hour,
        seconds: all[0, size],
        columns: ids.each_with_index.to_h { |id, i| [id, all[(i + 1) * size, size]] }
      )
    end

    # { id => [[least, most] or nil] } of a level as it was packed.
    def self.unpack_level(ids, slot_seconds, bytes)
      all = Zlib::Inflate.inflate(bytes).unpack("e*")
      slots = LEVELS.fetch(slot_seconds)
      ids.each_with_index.to_h do |id, i|
        pairs = all[i * slots * 2, slots * 2].each_slice(2).map { |least, most| least.nan? ? nil : [least, most] }
        [id, pairs]
      end
    end

    # An hour with nothing in it yet.
    def self.empty(hour, ids) = new(hour: hour, seconds: [], columns: order(ids).to_h { |id| [id, []] })

    SAME_SECONDS = 0.05 # Float32 keeps no more of a time

    def starts_at = hour * 3600

    # With more rows: [[seconds since 1970, value of each of ids]]. A row of a time that is there already is that row
    # sent again, and counts as known. [RecordHour, how many were new]
    def with_rows(ids, rows)
      fresh = fresh_of(rows)
      return self, 0 if fresh.empty?

      at = columns.keys.map { |id| ids.index(id) + 1 }
      added = fresh.map { |row| [row[0] - starts_at, *row.values_at(*at)] }
      all = ([seconds, *columns.values].transpose + added).sort_by.with_index { |row, i| [row[0], i] }
      times, *lists = all.transpose
      [with(seconds: times, columns: columns.keys.zip(lists).to_h), fresh.size]
    end

    def pack = Zlib::Deflate.deflate([seconds, *columns.values].flatten.pack("e*"), 1)

    # Least and most of each slot of so many seconds.
    def pack_level(slot_seconds)
      cuts = cuts(slot_seconds)
      numbers = columns.values.flat_map { |values| cuts.flat_map { |from, to| range(values, from, to) } }
      Zlib::Deflate.deflate(numbers.pack("e*"), 1)
    end

    private

    # Of rows of times that are not there yet, one a time.
    def fresh_of(rows)
      known = seconds.to_h { |second| [slot(second), true] }
      rows.uniq { |row| slot(row[0] - starts_at) }.reject { |row| known[slot(row[0] - starts_at)] }
    end

    NONE = [Float::NAN, Float::NAN].freeze
    private_constant :NONE

    def slot(second) = (second / SAME_SECONDS).round

    # [from, to) of the rows of each slot.
    def cuts(slot_seconds)
      bounds =
        Array.new(LEVELS.fetch(slot_seconds) + 1) do |slot|
          seconds.bsearch_index { |at| at >= slot * slot_seconds } || seconds.size
        end
      bounds.each_cons(2).to_a
    end

    def range(values, from, to)
      return NONE if from == to

      some = values[from...to]
      some = some.reject(&:nan?) if some.sum.nan?
      some.empty? ? NONE : some.minmax
    end
  end
end
