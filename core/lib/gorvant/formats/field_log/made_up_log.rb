# frozen_string_literal: true

module Gorvant
  module Formats
    # A field logger that is not there: the frost model run over made-up weather, written as a logger would write it,
    # with noise, drop-outs, gaps and a clock that is put on and back. The same seed, the same file. What was true of
    # it can be asked for afterwards.
    class MadeUpLog
      # What a logger writes, by the columns of recorded.yml.
      HEADINGS = {
        "outdoor" => "Outdoor °F",
        "coil" => "Coil °F",
        "vapor" => "Vapor line °F",
        "supply" => "Supply air °F",
        "humidity" => "RH %",
        "amps" => "Compressor A",
        "fan" => "Fan A",
        "ob" => "O/B V",
        "w2" => "W2 V",
        "y" => "Y V"
      }.freeze
      NOISE = {
        "outdoor" => 0.2,
        "coil" => 0.25,
        "vapor" => 0.5,
        "supply" => 0.4,
        "humidity" => 0.8,
        "amps" => 0.15,
        "fan" => 0.03,
        "ob" => 0.3,
        "w2" => 0.3,
        "y" => 0.3
      }.freeze

      # start: seconds since 1970, UTC. every: seconds between rows. columns: keys of HEADINGS. mean_degrees_f,
      # swing_degrees_f, humidity, wind_mph: weather. scale, faults, house: see FrostRun. drop_outs: share of cells;
      # gaps: share of rows at which a piece is missing. zone: of the logger's clock. comma: decimal comma and
      # semicolons. disturbed: the air wavers as the model does not know.
      Wanted =
        Value.define(
          :seed,
          :start,
          :every,
          :columns,
          :mean_degrees_f,
          :swing_degrees_f,
          :humidity,
          :wind_mph,
          :scale,
          :faults,
          :house,
          :drop_outs,
          :gaps,
          :zone,
          :comma,
          :disturbed,
          defaults: {
            seed: 1,
            start: 1_767_603_600,
            every: 30,
            columns: HEADINGS.keys,
            mean_degrees_f: 30.0,
            swing_degrees_f: 7.0,
            humidity: 82.0,
            wind_mph: 4.0,
            scale: {}.freeze,
            faults: [].freeze,
            house: {}.freeze,
            drop_outs: 0.0,
            gaps: 0.0,
            zone: "UTC",
            comma: false,
            disturbed: false
          }
        )

      attr_reader :run

      # profile: ClockProfile of the board as it is. changeover: "O" or "B". wanted: fields of Wanted.
      def initialize(profile:, changeover: "O", **wanted)
        @wanted = Wanted.new(**wanted)
        @random = Random.new(@wanted.seed)
        @changeover = changeover
        @weather = weather
        @step = [@wanted.every, 10].min
        @run =
          FrostRun.new(
            profile: profile,
            weather: @weather,
            step_seconds: @step,
            counted_seconds: @random.rand * 1800,
            **@wanted.to_h.slice(:scale, :faults, :house)
          )
        @away_until = -1
        @next_at = 0
      end

      def zone = @wanted.zone

      # Lines of the file for so many seconds more, the heading first.
      def lines(seconds, &block)
        return enum_for(:lines, seconds) unless block_given?

        yield heading
        rows(seconds, &block)
      end

      def text(seconds) = "#{lines(seconds).to_a.join("\n")}\n"

      # Defrosts as they were, times in seconds since 1970.
      def defrosts = run.defrosts.map { |one| one.dup.tap { |copy| moved(copy) } }

      private

      def moved(copy)
        copy.start_seconds += @wanted.start
        copy.end_seconds += @wanted.start if copy.end_seconds
      end

      def separator = @wanted.comma ? ";" : ","
      def heading = ["Time", *@wanted.columns.map { |id| HEADINGS.fetch(id) }].join(separator)

      def rows(seconds)
        run.go(seconds) do |row|
          next if row.seconds - @step < @next_at - 1e-6

          at = @next_at
          @next_at += @wanted.every
          next if away?(at)

          yield [time(@wanted.start + at), *@wanted.columns.map { |id| cell(id, row) }].join(separator)
        end
      end

      # Pieces of the record that are not there.
      def away?(at)
        return true if at < @away_until
        return false unless @wanted.gaps.positive? && @random.rand < @wanted.gaps

        @away_until = at + (@wanted.every * (4 + @random.rand(60)))
        true
      end

      def cell(id, row)
        return "" if @wanted.drop_outs.positive? && @random.rand < @wanted.drop_outs

        number = format("%.1f", value(id, row) + (gauss * NOISE.fetch(id)))
        @wanted.comma ? number.tr(".", ",") : number
      end

      def value(id, row)
        case id
        when "outdoor"
          row.outdoor
        when "coil"
          row.sensed
        when "vapor"
          row.vapor
        when "supply"
          row.supply
        when "humidity"
          row.humidity
        when "amps"
          row.amps
        when "fan"
          row.fan_amps
        when "w2"
          row.w2 ? 26.0 : 0.4
        when "y"
          row.y ? 26.0 : 0.4
        else
          (row.relay == (@changeover == "O") ? 26.0 : 0.4)
        end
      end

      def gauss = Math.sqrt(-2 * Math.log(1 - @random.rand)) * Math.cos(2 * Math::PI * @random.rand)

      # Days that swing and differ; moisture that goes against the warmth.
      def weather
        days = Array.new(400) { gauss * 3.0 }
        damp = Array.new(400) { gauss * 3.0 }
        gusts = Array.new(400) { (1 + (gauss * 0.3)).clamp(0.3, 2.0) }
        ->(seconds) { weather_at(seconds, days, damp, gusts) }
      end

      def weather_at(seconds, days, damp, gusts)
        day, part = (seconds / 86_400).to_i, (seconds % 86_400) / 86_400.0
        between = ->(list) { between(list[day % 400], list[(day + 1) % 400], part) }
        wave = wave(part)
        usual = @wanted.mean_degrees_f + (@wanted.swing_degrees_f * wave)
        FrostCoil::Weather.new(
          degrees_f: usual + between.call(days) + squall(seconds),
          humidity_percent: (@wanted.humidity - (8 * wave) + between.call(damp)).clamp(20.0, 100.0),
          wind_mph: @wanted.wind_mph * between.call(gusts)
        )
      end

      # Of a day, warmest in the afternoon: from -1 to 1.
      def wave(part) = Math.cos(2 * Math::PI * (part - 0.6))

      def between(first, second, part) = first + ((second - first) * part)

      # That the model of the coil knows nothing of.
      def squall(seconds) = @wanted.disturbed ? Math.sin(seconds / 733.0) * 1.5 : 0.0

      def time(seconds)
        local = FieldLogClock.zone(@wanted.zone).utc_to_local(Time.at(seconds).utc)
        local.strftime(@wanted.comma ? "%d.%m.%Y %H:%M:%S" : "%Y-%m-%d %H:%M:%S")
      end
    end
  end
end
