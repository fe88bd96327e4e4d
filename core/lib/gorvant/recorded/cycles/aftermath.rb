# frozen_string_literal: true

module Gorvant
  class RecordedCycles
    # What is watched after a defrost and between two: fan, strips, supply air, and how far the coil runs below the air.
    module Aftermath
      private

      # What comes back after the end: fan, strips, supply air. nil for the end of the record.
      def watch_on(now)
        @watching.reject! do |one|
          if now.nil? || @defrost
            one.over = true
          else
            after = now - one.end
            one.over = after > WATCH_SECONDS || (!@running && !@ids.include?("w2"))
            one.stopped ||= !@running
            watch(one, after)
          end
        end
      end

      def watch(one, after)
        one.watched = after
        one.strips_off_after ||= after if @w2 == false
        return if one.stopped

        one.ran_after = after
        one.fan_back_after ||= after if @fan
        follow(one, one.end + after, @coil)
        back = one.supply_before && @supply && @supply >= one.supply_before - @numbers.fetch("recovered_degrees_f")
        one.recovery_seconds ||= after if back && @w2 != true
      end

      # W2 on with the compressor at rest, without a break.
      def heat_alone(passed)
        @w2_alone = @w2 && !@running && !@defrosts.empty? ? @w2_alone + passed : 0.0
        @w2_alone_most = @w2_alone if @w2_alone > @w2_alone_most
      end

      # How far the coil runs below the air: some minutes into a run as clean, and now.
      def difference
        return unless @coil && @air && @run_since && @last
        return unless @last - [@run_since, @since_wall].compact.max > SETTLES_SECONDS

        @difference = (@air - @coil).round(1)
        return if @coil > @air

        @clean = @difference if @clean.nil? || @difference < @clean
      end

      # A time of running on a cold coil, up to a defrost or to where nothing is known.
      def stretch
        seconds = @defrost ? @defrost.cold_run_seconds || @since_cold : @since_cold
        return if seconds <= 3600

        @stretches << {
          "to" => @defrost ? @defrost.start : @last,
          "seconds" => seconds.round,
          "defrosted" => !@defrost.nil?,
          "clean_difference" => @clean,
          "difference" => @difference,
          "outdoor" => @air,
          "frost_kg" => @frost_coil&.frost_kg&.round(2)
        }
        @stretches = @stretches.sort_by { |one| -one["seconds"] }.first(20) if @stretches.size > 100
      end
    end
  end
end
