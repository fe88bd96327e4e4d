# frozen_string_literal: true

module Gorvant
  # What each setting of a defrost board costs over a year of a site's weather, by the frost model: a day of each kind
  # of weather is run under each setting, and counts as often as the year has it.
  # Source: docs/sources.md, frost-planner.
  class IntervalPlanner
    # One setting over some hours. hours: of the year in which it may heat; defrosts, dry: how many, and how many of
    # them had nothing to melt; worst_frost_kg; defrost_kwh, frost_kwh: lost to defrosting and to running frosted;
    # backup_kwh: heat that strips or gas gave in defrosts; cool_air_minutes; valve_shifts.
    Sums =
      Value.define(:hours, :defrosts, :dry, :worst_frost_kg, :defrost_kwh, :frost_kwh, :backup_kwh, :cool_air_minutes)

    class Sums
      NONE =
        new(
          hours: 0.0,
          defrosts: 0.0,
          dry: 0.0,
          worst_frost_kg: 0.0,
          defrost_kwh: 0.0,
          frost_kwh: 0.0,
          backup_kwh: 0.0,
          cool_air_minutes: 0.0
        )

      def lost_kwh = defrost_kwh + frost_kwh
      def valve_shifts = defrosts * 2
      def defrosts_a_day = hours.positive? ? defrosts * 24 / hours : 0.0

      def +(other) =
        Sums.new(
          **to_h.except(:worst_frost_kg).to_h { |key, value| [key, value + other[key]] },
          worst_frost_kg: [worst_frost_kg, other.worst_frost_kg].max
        )

      # The same weather for so many hours.
      def times(count)
        factor = hours.positive? ? count / hours : 0.0
        Sums.new(
          **to_h.except(:worst_frost_kg).transform_values { |value| value * factor },
          worst_frost_kg: count.positive? ? worst_frost_kg : 0.0
        )
      end
    end

    # id: "30" … or "demand"; profile: ClockProfile.
    Setting = Value.define(:id, :title, :profile, :makers)

    attr_reader :climate, :settings

    # scale: of FrostCoil.numbers, as fitted to the unit. house: of frost.yml.
    def initialize(profile, climate, scale: {}, house: {})
      @profile = profile
      @climate = climate
      @scale = scale
      @house = house
      @numbers = Catalogue.frost.fetch("planner")
      @settings = made_settings
    end

    # Every kind of weather in which the unit heats and may frost: [[°F, %]].
    def kinds
      @kinds ||=
        climate
          .bins
          .select { |bin| bin.degrees_f < @numbers.fetch("no_frost_over_degrees_f") }
          .map { |bin| kind(bin) }
          .uniq
          .sort
    end

    # A day of one kind of weather under one setting; wind in mph.
    def day(setting, kind, wind_mph: climate.wind_mph)
      degrees, humidity = kind
      weather = FrostCoil::Weather.new(degrees_f: degrees, humidity_percent: humidity, wind_mph: wind_mph)
      run = run(setting.profile, weather)
      least = least(weather)
      sums(run, least)
    end

    # { setting id => { "months" => [Sums], "year" => Sums } } from days: { [setting id, kind] => Sums }.
    def year(days)
      settings.to_h do |setting|
        months = (1..12).map { |month| month(days, setting, month) }
        [setting.id, { "months" => months, "year" => months.inject(Sums::NONE, :+) }]
      end
    end

    # Which setting to take: Setting. The maker's where it costs little more than the best; never one that lets more
    # frost grow than the fins bear.
    def best(years)
      fixed = settings.reject { |one| one.id == "demand" }
      bear = fixed.select { |one| years[one.id]["year"].worst_frost_kg <= most_frost }
      bear = [fixed.min_by { |one| years[one.id]["year"].worst_frost_kg }] if bear.empty?
      least = bear.min_by { |one| years[one.id]["year"].lost_kwh }
      makers = bear.find(&:makers)
      return least unless makers

      near = years[least.id]["year"].lost_kwh * (1 + @numbers.fetch("near_share"))
      years[makers.id]["year"].lost_kwh <= near ? makers : least
    end

    # Whether a demand board has fewer defrosts than every fixed interval that lets no more frost grow; nil where none
    # is to compare.
    def demand_has_fewer(years)
      demand = years["demand"]["year"]
      alike = settings.reject { |one| one.id == "demand" }.map { |one| years[one.id]["year"] }
      alike = alike.select { |one| one.worst_frost_kg <= demand.worst_frost_kg * 1.05 }
      alike.empty? ? nil : alike.all? { |one| demand.defrosts < one.defrosts }
    end

    def most_frost = FrostCoil.numbers(@scale).fetch("frost_blocks_at_kg") * @numbers.fetch("most_filled_share")

    private

    def made_settings
      own = @profile.interval_seconds / 60
      base = @profile.school == "demand" ? @profile.as("run_time") : @profile
      fixed =
        [*Catalogue.profile.dig("defrost", "intervals_minutes"), own].map(&:to_f)
          .uniq
          .sort
          .map do |minutes|
            Setting.new(
              id: format("%g", minutes),
              title: Catalogue.words("planner.minutes", minutes: format("%g", minutes)),
              profile: base.with(interval_seconds: minutes * 60.0),
              makers: @profile.school != "demand" && minutes == own
            )
          end
      demand =
        Setting.new(
          id: "demand",
          title: Catalogue.words("planner.demand"),
          profile: @profile.as("demand"),
          makers: false
        )
      [*fixed, demand.with(makers: @profile.school == "demand")]
    end

    def kind(bin) = [bin.degrees_f, (bin.humidity_percent / 5).round * 5.0]

    def run(profile, weather) =
      FrostRun.new(
        profile: profile,
        weather: ->(_seconds) { weather },
        scale: @scale,
        house: @house,
        step_seconds: @numbers.fetch("step_seconds")
      ).go(@numbers.fetch("day_hours") * 3600)

    # The same day with no frost and no defrost: what the weather asks for in any case.
    def least(weather)
      @least ||= {}
      @least[[weather, @house]] ||= run(
        @profile.with(school: "run_time", interval_seconds: 1e9),
        weather.with(humidity_percent: 1.0)
      )
    end

    # What is lost is what was used over what the weather asks for. Of it, to defrosting: the compressor meanwhile, heat
    # taken from the house, and what strips use over what the heat pump would have for the same heat.
    def sums(run, least)
      power = FrostCoil.numbers(@scale).fetch("compressor_kw")
      ended = run.defrosts.select(&:end_seconds)
      defrosting = defrosting(run, ended, power)
      lost = [used(run, power) - used(least, power), defrosting * LEAST_SHARE].max
      Sums.new(
        hours: @numbers.fetch("day_hours").to_f,
        defrosts: run.defrosts.size.to_f,
        dry: run.defrosts.count { |one| one.frost_kg < Catalogue.frost.dig("expect", "dry_kg") }.to_f,
        worst_frost_kg: run.worst_frost_kg,
        defrost_kwh: [defrosting, lost].min,
        frost_kwh: [lost - defrosting, 0.0].max,
        backup_kwh: ended.sum(&:strips_kwh),
        cool_air_minutes: ended.sum(&:cool_air_seconds) / 60
      )
    end

    # kWh
    def defrosting(run, ended, power)
      in_defrost = ended.sum { |one| one.end_seconds - one.start_seconds } / 3600
      heating_hours = (run.run_seconds / 3600) - in_defrost
      share = heating_hours.positive? ? [power * heating_hours / [run.heat_kwh, 0.1].max, 1.0].min : 1.0
      (in_defrost * power) + (ended.sum(&:strips_kwh) * (1 - share)) + (ended.sum(&:heat_taken_kwh) * share)
    end

    # A room that ends the day a little cooler has used a little less: a day's sum can come out under what defrosts
    # took.
    LEAST_SHARE = 0.7
    private_constant :LEAST_SHARE

    def used(run, power) = (run.run_seconds / 3600 * power) + run.backup_kwh

    def month(days, setting, month)
      climate
        .bins
        .select { |bin| bin.month == month }
        .inject(Sums::NONE) do |all, bin|
          day = days[[setting.id, kind(bin)]]
          all + (day ? day.times(bin.hours) : Sums::NONE)
        end
    end
  end
end
