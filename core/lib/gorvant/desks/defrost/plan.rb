# frozen_string_literal: true

module Gorvant
  module Desks
    module Defrost
      # What the planner's page asks: a year under every setting, as the site is, windier and damper, with what follows
      # for the selector. Worked out a day at a time, so that it can be watched and taken up again.
      class YearPlan
        # A day to work out. variant: of VARIANTS; setting: its id; kind: [°F, %].
        Day = Value.define(:variant, :setting, :kind)
        VARIANTS = %w[as_is windier damper].freeze

        # backup: "strips", "gas" or "none", what heats in a defrost. coil: a sentence of where the coil's numbers come
        # from; the shipped ones where it is left out.
        def initialize(profile, climate, scale: {}, backup: "strips", coil: Catalogue.words("planner.shipped_coil"))
          @backup = backup
          house = { "strips_kw" => backup == "none" ? 0.0 : Catalogue.frost.dig("house", "#{backup}_kw") }
          numbers = Catalogue.frost.fetch("planner")
          climates = {
            "as_is" => climate,
            "windier" => climate.windier(numbers.fetch("windier_mph")),
            "damper" => climate.damper(numbers.fetch("damper_percent"))
          }
          @planners = climates.transform_values { |one| IntervalPlanner.new(profile, one, scale: scale, house: house) }
          @profile = profile
          @coil = coil
        end

        def days
          @days ||=
            @planners.flat_map do |variant, planner|
              planner.settings.flat_map do |setting|
                planner.kinds.map { |kind| Day.new(variant: variant, setting: setting.id, kind: kind) }
              end
            end
        end

        # JSON-able.
        def day(day)
          planner = @planners.fetch(day.variant)
          setting = planner.settings.find { |one| one.id == day.setting }
          planner.day(setting, day.kind).to_h.transform_keys(&:to_s).transform_values { |value| value.round(3) }
        end

        # pieces: of `day`, in the order of `days`.
        def answer(pieces)
          sums = days.zip(pieces).to_h { |day, piece| [[day.variant, day.setting, day.kind], sums(piece)] }
          years = @planners.to_h { |variant, planner| [variant, planner.year(of_variant(sums, variant))] }
          best = @planners.to_h { |variant, planner| [variant, planner.best(years[variant])] }
          planner = @planners.fetch("as_is")
          {
            "climate" => planner.climate.title,
            "wind_mph" => planner.climate.wind_mph,
            "hours" => planner.climate.hours.round,
            "settings" =>
              planner.settings.map { |setting| setting_row(setting, years["as_is"][setting.id], best["as_is"]) },
            "recommended" => best["as_is"].id,
            "backup" => @backup,
            "says" => says(years["as_is"], best, planner),
            "assumed" => assumed
          }
        end

        private

        def of_variant(sums, variant) =
          sums.filter_map { |(one, setting, kind), value| [[setting, kind], value] if one == variant }.to_h

        def sums(piece) = IntervalPlanner::Sums.new(**piece.transform_keys(&:to_sym))

        def setting_row(setting, year, best)
          {
            "id" => setting.id,
            "title" => setting.title,
            "makers" => setting.makers,
            "recommended" => setting.id == best.id,
            "year" => row(year["year"]),
            "months" => year["months"].map { |month| row(month) }
          }
        end

        def row(sums)
          {
            "defrosts" => sums.defrosts.round,
            "defrosts_a_day" => sums.defrosts_a_day.round(1),
            "dry" => sums.dry.round,
            "worst_frost_kg" => sums.worst_frost_kg.round(1),
            "defrost_kwh" => sums.defrost_kwh.round,
            "frost_kwh" => sums.frost_kwh.round,
            "backup_kwh" => sums.backup_kwh.round,
            "cool_air_minutes" => sums.cool_air_minutes.round,
            "valve_shifts" => sums.valve_shifts.round
          }
        end

        def number(value) = format("%g", value.round)

        def says(years, best, planner)
          own = planner.settings.find(&:makers)
          take = best.fetch("as_is")
          [recommendation(years, own, take), sensitivity(best), dry(years, own || take), demand(years, planner)].compact
        end

        def recommendation(years, own, take)
          return Catalogue.words("planner.take", setting: take.title) unless own
          return Catalogue.words("planner.stay", setting: own.title) if own.id == take.id

          saves = years[own.id]["year"].lost_kwh - years[take.id]["year"].lost_kwh
          if saves <= 0
            return(
              Catalogue.words(
                "planner.shorter",
                setting: take.title,
                own: own.title,
                frost: format("%.1f", years[own.id]["year"].worst_frost_kg)
              )
            )
          end

          Catalogue.words("planner.saves", setting: take.title, own: own.title, kwh: number(saves))
        end

        def sensitivity(best)
          other = %w[windier damper].reject { |variant| best[variant].id == best["as_is"].id }
          return Catalogue.words("planner.holds") if other.empty?

          other.map { |variant| Catalogue.words("planner.#{variant}", setting: best[variant].title) }.join(" ")
        end

        # What a board that counts time wastes here.
        def dry(years, setting)
          year = years[setting.id]["year"]
          return nil if year.dry < 1

          share = year.dry / year.defrosts
          wasted = year.defrost_kwh * share
          Catalogue.words(
            share > 0.5 ? "planner.mostly_dry" : "planner.some_dry",
            setting: setting.title,
            dry: number(year.dry),
            defrosts: number(year.defrosts),
            kwh: number(wasted)
          )
        end

        def demand(years, planner)
          fewer = planner.demand_has_fewer(years)
          return nil if fewer.nil?

          Catalogue.words(
            "planner.demand_#{fewer ? "fewer" : "not_fewer"}",
            defrosts: number(years["demand"]["year"].defrosts)
          )
        end

        def assumed
          [
            @coil,
            Catalogue.words("planner.made_up_house"),
            (Catalogue.words("planner.gas_counts") if @backup == "gas"),
            (Catalogue.words("planner.board_assumed", names: @profile.assumed.join(", ")) if @profile.assumed.any?)
          ].compact
        end
      end
    end
  end
end
