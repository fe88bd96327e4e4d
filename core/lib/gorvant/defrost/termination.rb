# frozen_string_literal: true

module Gorvant
  # When a defrost that has begun should end, and by what.
  Termination = Value.define(:after_seconds, :by, :says)

  class Termination
    # coil_degrees_f: at its beginning; rises_per_minute_degrees_f: how fast it warms; jumpered: the coil switch's pins
    # are jumpered and stay so; bridge_seconds: how long the speed-up stays on, which may hurry the limit; nil for not
    # at all.
    def self.expected(
      profile,
      opens_degrees_f:,
      coil_degrees_f:,
      rises_per_minute_degrees_f:,
      jumpered: false,
      bridge_seconds: nil
    )
      limit = limit(profile, bridge_seconds)
      warm = warm_after(profile, opens_degrees_f, coil_degrees_f, rises_per_minute_degrees_f, jumpered)
      by = warm && (limit.nil? || warm < limit) ? "temperature" : "time"
      after = [warm, limit].compact.min
      new(after_seconds: after, by: after ? by : nil, says: says(after, by, jumpered))
    end

    def self.warm_after(profile, opens, coil, rises, jumpered)
      return nil if profile.ends_by == "time" || jumpered
      return 0.0 if coil >= opens

      rises.positive? ? (opens - coil) * 60.0 / rises : nil
    end

    # Seconds of the limit where the bridge stays on for its first bridge_seconds (nil: not at all), each of which
    # counts for many. nil for a board that knows no limit.
    def self.limit(profile, bridge_seconds)
      return nil if profile.limit_seconds.nil? || profile.ends_by == "temperature"
      return profile.limit_seconds unless bridge_seconds && profile.hurries_limit && profile.forced_entry == "speed_up"

      hurried = profile.limit_seconds / profile.speed_up_factor
      if hurried <= bridge_seconds
        hurried
      else
        bridge_seconds + profile.limit_seconds - (bridge_seconds * profile.speed_up_factor)
      end
    end

    def self.says(after, by, jumpered)
      return Catalogue.words("defrost.end_never") unless after

      Catalogue.words(
        jumpered ? "defrost.end_jumpered" : "defrost.end_#{by}",
        after: "#{after.floor / 60}:#{(after.floor % 60).to_s.rjust(2, "0")}"
      )
    end
    private_class_method :warm_after, :says
  end
end
