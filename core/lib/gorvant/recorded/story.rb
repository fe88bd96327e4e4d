# frozen_string_literal: true

module Gorvant
  # A defrost as a record shows it; times in seconds since 1970, others in seconds from its start or its end as their
  # name says, nil where the record cannot tell. seen_by: "ob", "fan" or "coil". ended_with: "call" where the compressor
  # stopped with it, "record" where the record ends or has a gap in it, else nil. paused_seconds: without a call in its
  # midst. run_seconds, cold_run_seconds, wall_seconds: since the end of the one before (nil for the first and over a
  # gap); whole: whether compressor and cold coil lasted all that time. climb: °F a minute, last; coldest_since: coil,
  # since the one before; ran_after: seconds that the compressor ran on, watched: that anybody watched. frost_kg:
  # modelled at its start. path: [[seconds from start, coil °F]].
  RecordedDefrost =
    Value.define(
      :start,
      :end,
      :seen_by,
      :ended_with,
      :paused_seconds,
      :outdoor,
      :coil_start,
      :coil_end,
      :coil_most,
      :climb,
      :outdoor_most,
      :coldest_since,
      :ran_after,
      :watched,
      :fan_on_share,
      :fan_back_after,
      :strips_on_after,
      :strips_off_after,
      :strips_before,
      :turns_after,
      :vapor_turns_after,
      :run_seconds,
      :cold_run_seconds,
      :wall_seconds,
      :start_to_start_run_seconds,
      :whole,
      :clean_difference,
      :last_difference,
      :frost_kg,
      :recovery_seconds,
      :path
    )

  class RecordedDefrost
    def seconds = self.end && (self.end - start - paused_seconds)
    def to_json_hash = to_h.transform_keys(&:to_s)
    def self.from(hash) = new(**hash.transform_keys(&:to_sym))
  end

  # What a record shows over all. runs: [[from, to]] of the compressor; cooling_seconds; stretches: the longest times of
  # running on a cold coil without a defrost; samples_seconds: usual time between rows; running_by: of what the
  # compressor's running was taken; humidity: "column" or "assumed"; fan_stops: [[from, seconds]] with the compressor
  # on, the fan off and no defrost; cold: [[from, to]] of a closed coil switch; over_air_seconds, under_air_seconds: of
  # heating with the coil warmer or colder than the air; w2_alone_seconds: longest with W2 on and the compressor at
  # rest, after a defrost.
  RecordedStory =
    Value.define(
      :from,
      :to,
      :columns,
      :defrosts,
      :runs,
      :run_seconds,
      :stretches,
      :interval_seconds,
      :running_by,
      :humidity,
      :fan_stops,
      :cold,
      :over_air_seconds,
      :under_air_seconds,
      :w2_alone_seconds,
      :on_off,
      :heating_ob
    )

  class RecordedStory
    def to_json_hash = to_h.transform_keys(&:to_s).merge("defrosts" => defrosts.map(&:to_json_hash))

    def self.from(hash) =
      new(**hash.transform_keys(&:to_sym), defrosts: hash.fetch("defrosts").map { |one| RecordedDefrost.from(one) })

    def has?(*ids) = (ids - columns).empty?
  end
end
