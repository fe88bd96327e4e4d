# frozen_string_literal: true

module Gorvant
  # A site's weather as bins: how many hours of a month lie about a temperature, and how damp and windy they are.
  # bins: [Bin]; hours add up to what is known of the year.
  Climate = Value.define(:title, :bins, :wind_mph)

  class Climate
    # month: 1 to 12; degrees_f: middle of the bin.
    Bin = Value.define(:month, :degrees_f, :humidity_percent, :hours)

    WIDTH_DEGREES_F = 5.0
    HOURS = [744, 672, 744, 720, 744, 720, 744, 744, 720, 744, 720, 744].freeze

    class << self
      # One of climates.yml; its hours lie about the mean as a bell.
      def shipped(id)
        about = Catalogue.climates.fetch(id)
        bins =
          about
            .fetch("months")
            .each_with_index
            .flat_map do |(mean, spread, humidity), i|
              shares(mean, spread).map do |degrees, share|
                Bin.new(month: i + 1, degrees_f: degrees, humidity_percent: humidity.to_f, hours: HOURS[i] * share)
              end
            end
        new(title: about.fetch("title"), bins: bins, wind_mph: about.fetch("wind_mph").to_f)
      end

      # From hours: [[month, °F, %]], each an hour long.
      def of_hours(hours, title:, wind_mph:)
        groups = hours.group_by { |month, degrees, _humidity| [month, bin(degrees)] }
        bins =
          groups.map do |(month, degrees), all|
            damp = all.sum { |one| one[2] } / all.size
            Bin.new(month: month, degrees_f: degrees, humidity_percent: damp, hours: all.size.to_f)
          end
        new(title: title, bins: bins.sort_by { |one| [one.month, one.degrees_f] }, wind_mph: wind_mph)
      end

      def bin(degrees) = ((degrees / WIDTH_DEGREES_F).floor * WIDTH_DEGREES_F) + (WIDTH_DEGREES_F / 2)

      private

      def shares(mean, spread)
        middles = (-8..8).map { |step| bin(mean + (step * WIDTH_DEGREES_F)) }.uniq
        weights = middles.map { |degrees| Math.exp(-((degrees - mean)**2) / (2.0 * spread * spread)) }
        total = weights.sum
        kept = middles.zip(weights).select { |_degrees, weight| weight / total > 0.002 }
        total = kept.sum(&:last) # the tails go to the rest
        kept.map { |degrees, weight| [degrees, weight / total] }
      end
    end

    def hours = bins.sum(&:hours)

    # The same with other wind or moisture, for how much an answer hangs on them.
    def windier(by) = with(wind_mph: wind_mph + by)

    def damper(by) = with(bins: bins.map { |one| one.with(humidity_percent: [one.humidity_percent + by, 99.0].min) })
  end
end
