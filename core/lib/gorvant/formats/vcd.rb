# frozen_string_literal: true

module Gorvant
  module Formats
    # A timeline as a value change dump (IEEE 1364): one wire a signal, words as strings of bits, temperatures as reals.
    # A time unit is a millisecond.
    module Vcd
      OF_RUN = { path: "vcd", type: "text/plain" }.freeze
      FIRST = 33 # printable identifiers from "!" on
      COUNT = 94

      class << self
        def dump(timeline)
          marks = (timeline.signals + timeline.curves).each_with_index.to_h { |one, i| [one.id, identifier(i)] }
          [
            *head(timeline),
            *timeline.signals.map { |one| declare(one, marks[one.id]) },
            *timeline.curves.map { |one| "$var real 64 #{marks[one.id]} #{name(one.id)} $end" },
            "$upscope $end",
            "$enddefinitions $end",
            *changes(timeline, marks),
            "##{milliseconds(timeline.duration_seconds)}",
            ""
          ].join("\n")
        end

        private

        def head(timeline)
          [
            "$comment #{timeline.rig.name.gsub(/[^ -~]/, "?").gsub("$", "")} $end",
            "$version Gorvant $end",
            "$timescale 1ms $end",
            "$scope module rig $end"
          ]
        end

        def declare(signal, mark) =
          if words?(signal)
            "$var real 64 #{mark} #{name(signal.id)} $end"
          else
            "$var wire 1 #{mark} #{name(signal.id)} $end"
          end
        def words?(signal) = signal.steps.any? { |_at, value| value.is_a?(String) || value.is_a?(Numeric) }
        def name(id) = id.gsub(/[^A-Za-z0-9_]/, "_")
        def milliseconds(seconds) = (seconds * 1000).round

        def identifier(index)
          index < COUNT ? (FIRST + index).chr : identifier((index / COUNT) - 1) + (FIRST + (index % COUNT)).chr
        end

        # Words have no place in the format: a word becomes its number among those that occur.
        def changes(timeline, marks)
          all =
            timeline.signals.flat_map { |signal| steps(signal, marks[signal.id]) } +
              timeline.curves.flat_map { |curve| points(curve, marks[curve.id]) }
          all.group_by(&:first).sort.flat_map { |at, lines| ["##{at}", *lines.map(&:last)] }
        end

        def steps(signal, mark)
          words = signal.steps.map(&:last).uniq
          signal.steps.map do |at, value|
            [
              milliseconds(at),
              (
                if [true, false].include?(value)
                  "#{value ? 1 : 0}#{mark}"
                else
                  "r#{value.is_a?(Numeric) ? value : words.index(value)} #{mark}"
                end
              )
            ]
          end
        end

        def points(curve, mark) = curve.points.map { |at, value| [milliseconds(at), "r#{value} #{mark}"] }
      end
    end
  end
end
