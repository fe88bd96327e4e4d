# frozen_string_literal: true

module Gorvant
  class RecordedCycles
    # By which signs a defrost is seen to begin: O/B, the fan, the coil; whichever the record has.
    module Signs
      private

      def heating(now, running)
        return @heated = false unless running
        return resume(now) if resumed?(now)

        case @seen_by
        when "ob"
          reversed = @ob != @heating_ob
          if reversed && @heated
            begin_defrost(now, "ob")
          elsif reversed && waited?(now)
            begin_defrost(@run_since, "ob")
          end
          unless reversed
            @heated = true
            @broken = nil
          end
          fan_stop(now) unless @defrost
        when "fan"
          by_fan(now)
        when "coil"
          by_coil(now)
        end
      end

      # Reversed as the compressor starts, in the cold: a defrost that was due and waited for it. In the warm it is
      # cooling.
      def waited?(now)
        !@air.nil? && @air < @numbers.fetch("cooling_outdoor_degrees_f") - 10 && now - @run_since >= 15 &&
          now - @run_since < WATCH_SECONDS
      end

      # A defrost that the call broke off goes on with the next one.
      def resumed?(now)
        return false unless @broken && !@heated

        case @seen_by
        when "ob"
          @ob != @heating_ob
        when "fan"
          sure_of_running? && !@fan && now - @run_since >= 20
        end
      end

      def resume(now)
        @defrost = @broken
        @broken = nil
        @defrosts.delete(@defrost)
        @watching.delete(@defrost)
        @defrost.paused_seconds += now - @defrost.end
        @defrost.ended_with = @defrost.end = nil
        @defrost.coil_end = @defrost.coldest = nil
      end

      # The fan stands though the compressor runs, and ran before: a defrost, where the coil bears it out or is not
      # there.
      def by_fan(now)
        return fan_runs(now) if @fan

        @fan_on_since = nil
        return by_coil(now) if sure_of_running? && @fan_off_long
        return unless @heated || sure_of_running?

        @pending_fan_off ||= fan_off(now)
        return begin_defrost(@pending_fan_off[:at], "fan") if @coil.nil? && !@ids.include?("coil")

        pending_fan(now)
      end

      # A fan that runs on in defrost leaves the coil to tell of it.
      def fan_runs(now)
        @heated = true
        @broken = nil
        stood(now)
        @pending_fan_off = @fan_off_long = nil
        @fan_on_since ||= now
        by_coil(now) if sure_of_running?
      end

      # How long it stood, where that was no defrost.
      def stood(now)
        return @fan_stops[-1][1] = now - @fan_off_long if @fan_off_long && @fan_stops.any?

        from = @pending_fan_off && @pending_fan_off[:at]
        @fan_stops << [from, now - from] if from && now - from >= 60 && sure_of_running?
      end

      def fan_off(now) = { at: now, coil: @coil, coldest: @coil, heated: @heated, w2: @recent.last&.at(2) }

      def pending_fan(now)
        pending = @pending_fan_off
        pending[:coldest] = [pending[:coldest], @coil].compact.min
        risen = @coil && pending[:coldest] && @coil >= pending[:coldest] + @numbers.fetch("coil_rises_degrees_f")
        heat = @w2 && pending[:w2] == false && sure_of_running?
        if heat || (risen && (sure_of_running? || past_air?))
          begin_defrost(pending[:at], "fan", coil: pending[:coil])
        elsif sure_of_running? && now - pending[:at] > WATCH_SECONDS
          @fan_stops << [pending[:at], now - pending[:at]] unless pending[:told]
          pending[:told] = true
          @fan_off_long = pending[:at]
        end
      end

      def fan_stop(now)
        if @fan == false && @fan_was_on
          @fan_off_at ||= now
        elsif @fan
          told = @fan_off_at && now - @fan_off_at >= 60
          @fan_stops << [@fan_off_at, now - @fan_off_at] if told && @fan_stops.size < 200
          @fan_off_at = nil
          @fan_was_on = true
          @pending_fan_off = nil
        end
      end

      # The coil climbs out of the cold while the compressor runs.
      def by_coil(now)
        @heated = true
        @broken = nil
        return unless @coil && @recent.any?

        return if @coil < @recent.first[1].to_f + 3 && @coil < @recent[@recent.size / 2][1].to_f + 3

        lowest = lowest_before(now) or return
        return unless @coil - lowest[1] >= @numbers.fetch("coil_rises_degrees_f") && over_air?

        from = foot([*@recent, [now, @coil]], lowest[1])
        begin_defrost(from[0], "coil", coil: from[1])
      end

      # [seconds, °F] of the coldest coil that a climb up to now can have begun at, nil for none.
      def lowest_before(now)
        within = @numbers.fetch("coil_rises_in_seconds")
        within *= 1.5 unless sure_of_running?
        since = [@since_wall, @fan_on_since].compact.max.to_f
        @recent.select { |at, coil| coil && now - at <= within && at > since }.min_by { |_at, coil| coil }
      end

      # Where the climb begins: the last row before it that is lower than its own neighbor by no more than a sensor's
      # noise.
      def foot(rows, lowest)
        rows = rows.select { |_at, coil| coil }
        rows = rows.drop(rows.index { |row| row[1] == lowest } || 0)
        at = rows.index { |_at, coil| coil >= lowest + 4.0 }
        return rows.first if at.nil? || at.zero?

        at -= 1
        at -= 1 while at.positive? && rows[at - 1][1] < rows[at][1] - 1.0
        rows[at]
      end

      # Past the air, where no coil at rest comes; while the compressor is known to run its climb is enough.
      def over_air? = sure_of_running? || past_air?
      def past_air? = @air.nil? || @coil >= @air + @numbers.fetch("coil_over_air_degrees_f")
    end
  end
end
