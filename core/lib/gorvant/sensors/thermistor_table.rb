# frozen_string_literal: true

module Gorvant
  # A thermistor's ohms over temperature: falling, interpolated in log-ohm over 1/T, with the two usual fits. Points are
  # [[°F, ohms]], coldest first. Source: docs/sources.md, sensor-practice.
  ThermistorTable = Value.define(:id, :title, :tolerance_degrees_f, :points, defaults: { tolerance_degrees_f: 2.0 })

  class ThermistorTable
    # A measured pair: °F beside the sensor, ohms of the sensor alone.
    Point = Value.define(:degrees_f, :ohms)
    # coefficients: { name => value }; residuals_degrees_f: of each point of the table; worst_degrees_f without sign.
    Fit = Value.define(:kind, :coefficients, :residuals_degrees_f, :worst_degrees_f)
    ZERO = 459.67

    def self.numbers = Catalogue.profile.fetch("sensors")

    class << self
      def all =
        @all ||=
          Catalogue.sensor_tables.map do |id, about|
            new(
              id: id,
              title: about["title"],
              tolerance_degrees_f: about["tolerance_degrees_f"],
              points: about["points"]
            )
          end
    end

    def low_degrees_f = points.first[0]
    def high_degrees_f = points.last[0]

    # Ohms at a temperature, nil outside the table.
    def ohms_at(degrees_f)
      pair = points.each_cons(2).find { |(low, _), (high, _)| degrees_f.between?(low, high) } or return nil
      inverses, logarithms = scales(pair)
      Math.exp(along(inverse(degrees_f), inverses, logarithms))
    end

    # Temperature at these ohms, nil outside the table.
    def degrees_at(ohms)
      return nil unless ohms.positive? && ohms.finite?

      pair = points.each_cons(2).find { |(_, high), (_, low)| ohms.between?(low, high) } or return nil
      inverses, logarithms = scales(pair)
      (1 / along(Math.log(ohms), logarithms, inverses)) - ZERO
    end

    # ln R = a + B / T, least squares over the table.
    def beta_fit
      slope, start = line(points.map { |degrees, ohms| [1 / kelvin(degrees), Math.log(ohms)] })
      at_77 = Math.exp(start + (slope / kelvin(77.0)))
      fitted("beta", { "beta_kelvin" => slope, "ohms_at_77_degrees_f" => at_77 }) do |ohms|
        fahrenheit(slope / (Math.log(ohms) - start))
      end
    end

    # 1/T = a + b ln R + c (ln R)³, least squares over the table.
    def steinhart_hart_fit
      rows = points.map { |degrees, ohms| [1.0, Math.log(ohms), Math.log(ohms)**3, 1 / kelvin(degrees)] }
      a, b, c = least_squares(rows)
      fitted("steinhart_hart", { "a" => a, "b" => b, "c" => c }) do |ohms|
        fahrenheit(1 / (a + (b * Math.log(ohms)) + (c * (Math.log(ohms)**3))))
      end
    end

    # How far the sensor reads from the measured temperature, °F: positive is high. nil outside the table.
    def error_degrees_f(point) = degrees_at(point.ohms)&.-(point.degrees_f)

    # Whether a point lies within the table's tolerance.
    def fits?(point) = (error = error_degrees_f(point)) && error.abs <= tolerance_degrees_f

    # [Verdict]: one a point; with two and more, what they say together. others: tables to compare with.
    def check(measured, others: [])
      each = measured.map { |point| judge(point) }
      return each if measured.size < 2 || each.any? { |one| NO_DEGREES.include?(one.code) }

      each + [judge_all(measured, others)].compact
    end

    NO_DEGREES = %w[thermistor_open thermistor_short thermistor_outside].freeze
    private_constant :NO_DEGREES

    # Coil and ambient sensor against each other, long off and shaded.
    def self.pair(coil_degrees_f, air_degrees_f, tolerance_degrees_f = numbers.fetch("pair_within_degrees_f"))
      off = (coil_degrees_f - air_degrees_f).abs
      evidence = [
        Catalogue.words("sensor.pair", coil: format("%.1f", coil_degrees_f), air: format("%.1f", air_degrees_f))
      ]
      Verdict.of(
        off <= tolerance_degrees_f ? "pair_agrees" : "pair_differs",
        off: format("%.1f", off),
        evidence: evidence,
        assumed: [Catalogue.words("sensor.long_off")]
      )
    end

    private

    # Between two rows the logarithm of the ohms goes straight against the inverse of the temperature.
    def scales(pair) = [pair.map { |degrees, _| inverse(degrees) }, pair.map { |_, ohms| Math.log(ohms) }]

    # Where a value that lies so far along one scale lies on the other.
    def along(value, scale, other)
      share = (value - scale[0]) / (scale[1] - scale[0])
      other[0] + (share * (other[1] - other[0]))
    end

    def inverse(degrees_f) = 1 / (degrees_f + ZERO)
    def kelvin(degrees_f) = (degrees_f + ZERO) / 1.8
    def fahrenheit(kelvin) = (kelvin * 1.8) - ZERO

    def line(pairs)
      count = pairs.size.to_f
      x, y = pairs.transpose.map { |values| values.sum / count }
      slope = pairs.sum { |a, b| (a - x) * (b - y) } / pairs.sum { |a, _b| (a - x)**2 }
      [slope, y - (slope * x)]
    end

    # Solves the normal equations of rows [x1, x2, x3, y], scaled so that the columns are of one size.
    def least_squares(rows)
      scale = (0..2).map { |i| rows.map { |row| row[i].abs }.max }
      scaled = rows.map { |row| [0, 1, 2].map { |i| row[i] / scale[i] } + [row[3]] }
      matrix = (0..2).map { |i| (0..3).map { |j| scaled.sum { |row| row[i] * row[j] } } }
      solve(matrix).each_with_index.map { |value, i| value / scale[i] }
    end

    def solve(matrix)
      3.times do |i|
        pivot = (i..2).max_by { |row| matrix[row][i].abs }
        matrix[i], matrix[pivot] = matrix[pivot], matrix[i]
        (0..2).each do |row|
          next if row == i

          share = matrix[row][i] / matrix[i][i]
          (i..3).each { |column| matrix[row][column] -= share * matrix[i][column] }
        end
      end
      (0..2).map { |i| matrix[i][3] / matrix[i][i] }
    end

    def fitted(kind, coefficients)
      residuals = points.map { |degrees, ohms| yield(ohms) - degrees }
      Fit.new(
        kind: kind,
        coefficients: coefficients,
        residuals_degrees_f: residuals,
        worst_degrees_f: residuals.map(&:abs).max
      )
    end

    def judge(point)
      if point.ohms > points.first[1] * ThermistorTable.numbers.fetch("open_times_largest")
        return verdict("thermistor_open", point)
      end
      if point.ohms < points.last[1] * ThermistorTable.numbers.fetch("short_share_of_smallest")
        return verdict("thermistor_short", point)
      end

      error = error_degrees_f(point)
      unless error
        return(
          verdict("thermistor_outside", point, low: format("%g", low_degrees_f), high: format("%g", high_degrees_f))
        )
      end

      fields = {
        error: format("%+.1f", error),
        off: format("%.1f", error.abs),
        way: error.positive? ? "high" : "low",
        reads: format("%.1f", degrees_at(point.ohms)),
        tolerance: format("%g", tolerance_degrees_f)
      }
      verdict(fits?(point) ? "thermistor_right" : "thermistor_drifted", point, **fields)
    end

    # Where another table fits all points, it is that one; points that are off alike are the sensor's own.
    def judge_all(measured, others)
      errors = measured.map { |point| error_degrees_f(point) }
      return nil if errors.all? { |error| error.abs <= tolerance_degrees_f }

      other = others.reject { |table| table.id == id }.find { |table| measured.all? { |point| table.fits?(point) } }
      if other.nil? && errors.max - errors.min <= tolerance_degrees_f
        offset(measured, errors)
      else
        other_table(measured, errors, other)
      end
    end

    def offset(measured, errors)
      mean = errors.sum / errors.size
      verdict(
        "thermistor_offset",
        measured.last,
        off: format("%.1f", mean.abs),
        way: mean.positive? ? "high" : "low",
        count: measured.size,
        points: measured
      )
    end

    def other_table(measured, errors, other)
      low, high = errors.minmax.map { |error| format("%+.1f", error) }
      verdict(
        other ? "thermistor_other_table" : "thermistor_no_table",
        measured.last,
        other: other&.title,
        low: low,
        high: high,
        tolerance: format("%g", tolerance_degrees_f),
        points: measured
      )
    end

    def verdict(code, point, points: [point], **fields)
      words =
        points.map do |one|
          Catalogue.words("sensor.seen_ohms", ohms: ohms_words(one.ohms), degrees: format("%g", one.degrees_f))
        end
      Verdict.of(
        code,
        evidence: words,
        assumed: [Catalogue.words("sensor.by_table", table: title), Catalogue.words("sensor.beside")],
        ohms: ohms_words(point.ohms),
        degrees: format("%g", point.degrees_f),
        **fields
      )
    end

    def ohms_words(ohms) = ohms.infinite? ? "OL" : format("%g", ohms.round(ohms < 100 ? 1 : 0))
  end
end
