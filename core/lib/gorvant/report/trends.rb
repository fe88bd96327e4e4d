# frozen_string_literal: true

module Gorvant
  # What has moved at a unit from visit to visit: each point with the interval that its meter, or what was looked at,
  # leaves open. It draws no conclusion: weather and load differ from day to day.
  class Trends
    # points: [{ on:, low:, value:, high: }], oldest first; value nil where only the interval is known.
    # difference: whether degrees are of a difference, which turns without an offset.
    Series = Value.define(:id, :title, :unit, :points, :difference, defaults: { difference: false })
    Visit = Value.define(:on, :record)

    # visits: [Visit], oldest first. tables: [ThermistorTable] by which sensors are read.
    def initialize(visits, tables: ThermistorTable.all)
      @visits = visits
      @tables = tables.to_h { |table| [table.id, table] }
    end

    # [Series] of which there is anything to show.
    def all = [*supply, drop, coil_switch, sensor, defrost].reject { |series| series.points.empty? }

    private

    def words(key) = Catalogue.words("trend.#{key}")

    # R to C at each place, as last read on the day.
    def supply
      places = @visits.flat_map { |visit| visit.record.rig.layout.fetch("places").keys }.uniq
      places.map do |place|
        series("supply_#{place}", "#{words("supply")}, #{title(place)}", "V") { |record| supply_at(record, place) }
      end
    end

    def title(place) = Naming.place(@visits.last.record.rig, place)

    def supply_at(record, place)
      read =
        record.reads.reverse.find do |one|
          [one.observation.from_node, one.observation.to_node].compact.sort == ["#{place}.C", "#{place}.R"] &&
            one.observation.function == "volts_ac" && one.observation.amount
        end
      read && interval(read.observation)
    end

    # What the meter leaves open about what was read.
    def interval(observation)
      meter =
        Catalogue.profile.dig("instruments", observation.instrument) ||
          Catalogue.profile.dig("instruments", "high_impedance")
      amount = observation.amount
      off = (amount.high * meter.fetch("accuracy_fraction")) + meter.fetch("accuracy_volts")
      [amount.low - off, (amount.low + amount.high) / 2.0, amount.high + off]
    end

    # What is lost between the transformer and the outdoor unit, of the same day.
    def drop
      series("drop", words("drop"), "V") do |record|
        near, far = supply_at(record, "air_handler"), supply_at(record, "outdoor")
        near && far && [near[0] - far[2], near[1] - far[1], near[2] - far[0]]
      end
    end

    # Where the coil switch opens: above the warmest at which it was seen closed, at or below the coldest at which it
    # was seen open after it.
    def coil_switch
      series("coil_switch", words("coil_switch"), "°F") do |record|
        points = record.defrost.dig("coil_switch", "points").to_a
        closed = points.select { |point| point["state"] == "closed" }.map { |point| point["degrees_f"].to_f }.max
        open = points.select { |point| point["state"] == "open" }.map { |point| point["degrees_f"].to_f }.min
        closed && open && closed < open ? [closed, nil, open] : nil
      end
    end

    # By how much the thermistor read worst was off its table, as far as the table's tolerance leaves it.
    def sensor
      found =
        series("sensor_error", words("sensor_error"), "°F") do |record|
          table = @tables[record.defrost.dig("thermistor", "table_id")]
          errors =
            table ? record.defrost.dig("thermistor", "points").to_a.filter_map { |point| error(table, point) } : []
          worst = errors.max_by(&:abs)
          worst && [worst - table.tolerance_degrees_f, worst, worst + table.tolerance_degrees_f]
        end
      found.with(difference: true)
    end

    def error(table, point)
      return nil unless point["ohms"].is_a?(Numeric)

      table.error_degrees_f(ThermistorTable::Point.new(degrees_f: point["degrees_f"].to_f, ohms: point["ohms"].to_f))
    end

    # How long a forced defrost lasted, from the fan's stop to its return.
    def defrost
      reaction = Catalogue.profile.dig("defrost", "reaction_seconds")
      series("defrost", words("defrost"), "s") do |record|
        marks = record.defrost.dig("test", "marks").to_h
        off, back = marks.values_at("fan_off", "fan_back")
        off && back && [back - off - (2 * reaction), back - off, back - off + (2 * reaction)]
      end
    end

    def series(id, title, unit)
      points =
        @visits.filter_map do |visit|
          low, value, high = yield(visit.record)
          low && { on: visit.on, low: low.round(2), value: value&.round(2), high: high.round(2) }
        end
      Series.new(id: id, title: title, unit: unit, points: points)
    end
  end
end
