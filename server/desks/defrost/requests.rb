# frozen_string_literal: true

module Gorvant
  module Server
    # How a defrost stands now, as far as it is known.
    class MomentRequest < Request
      json do
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -60.0, lteq?: 150.0)
        optional(:coil_degrees_f).maybe(NUMBER, gteq?: -60.0, lteq?: 200.0)
        optional(:counted_minutes).maybe(NUMBER, gteq?: 0.0, lteq?: 600.0)
        optional(:humidity_percent).maybe(NUMBER, gteq?: 1.0, lteq?: 100.0)
        optional(:switches).value(:hash)
        optional(:as_found).filled(:bool)
      end
    end

    # One run history under every school; seen: minutes at which defrosts were seen to start.
    class SchoolsRequest < Request
      json do
        optional(:history).value(:hash)
        optional(:text).value(:string, max_size?: 200_000)
        optional(:seen).value(:array, max_size?: ROWS)
        optional(:counts_on).value(:hash)
      end

      rule(:counts_on) do
        next unless key?

        unless value.size <= 8 && value.values.all? { |one| %w[Y T1].include?(one) }
          key.failure("has to be schools with what they count on, such as {\"run_time\": \"Y\"}")
        end
      end

      rule(:seen) do
        odd = Array(value).find_index { |minute| BETWEEN[0.0, 2880.0].call(minute) }
        key([:seen, odd]).failure(BETWEEN[0.0, 2880.0].call(nil)) if odd
      end

      rule(:history, :text) do
        key(:history).failure("is missing: give a history, or a table as text") unless values[:history] || values[:text]
      end
    end

    # A forced test as the stopwatch has it.
    class ForcedTestRequest < Request
      json { required(:test).value(:hash) }
    end

    # A coil switch as it was read at temperatures, in order.
    class CoilSwitchRequest < Request
      SENSOR = BETWEEN[*DEGREES.fetch("sensor_degrees_f").values]

      json do
        optional(:closes_degrees_f).filled(NUMBER, **DEGREES.fetch("switch_closes_degrees_f"))
        optional(:opens_degrees_f).filled(NUMBER, **DEGREES.fetch("switch_opens_degrees_f"))
        required(:points).value(:array, max_size?: ROWS)
      end

      rule(:points).validate(rows: { "degrees_f" => SENSOR, "state" => ONE_OF[%w[open closed]] })

      rule(:closes_degrees_f, :opens_degrees_f) do
        if values[:closes_degrees_f] && values[:opens_degrees_f] &&
             values[:opens_degrees_f] <= values[:closes_degrees_f]
          key(:opens_degrees_f).failure("has to be above closes_degrees_f: it closes on fall and opens on rise")
        end
      end
    end

    # A thermistor, measured alone. ohms: a number, or OL for an open one.
    class ThermistorRequest < Request
      json do
        required(:table_id).filled(:string, max_size?: 60)
        required(:points).value(:array, max_size?: ROWS)
        optional(:pair).maybe(:hash) do
          required(:coil_degrees_f).filled(NUMBER, **DEGREES.fetch("sensor_degrees_f"))
          required(:air_degrees_f).filled(NUMBER, **DEGREES.fetch("sensor_degrees_f"))
        end
      end

      OHMS =
        lambda do |ohms|
          good = (ohms.is_a?(Numeric) && ohms >= 0 && ohms <= 1e9) || (ohms.is_a?(String) && ohms.strip.casecmp?("OL"))
          "has to be 0 or more ohms, or OL for an open one, not #{ohms.to_s[0, 20].inspect}" unless good
        end
      rule(:points).validate(rows: { "degrees_f" => CoilSwitchRequest::SENSOR, "ohms" => OHMS })
    end

    # A maker's table to look at, or to keep under a name.
    class SensorTableRequest < Request
      json do
        optional(:id).filled(:string, format?: UUID)
        required(:name).filled(:string, max_size?: 80)
        required(:text).filled(:string, max_size?: 500_000)
        optional(:tolerance_degrees_f).filled(NUMBER, gt?: 0.0, lteq?: 20.0)
        optional(:keep).filled(:bool)
      end

      rule(:name).validate(:plain_text, :named)
      rule(:id, :keep) do
        key(:id).failure("is missing: a table that is kept needs an id of yours") if values[:keep] && !values[:id]
      end
    end
  end
end
