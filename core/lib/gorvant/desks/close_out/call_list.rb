# frozen_string_literal: true

module Gorvant
  # Every call of a rig, to be run once before the job is closed: what should be live and work in it, and whether the
  # weather lets it be run. Expected of the unit put right: set-up as it has to be, wired as drawn.
  class CallList
    # season: "in", "out" or "unread" (nobody read the outdoor temperature). expect: terminals live at the wall.
    # works: titles of what runs. said: { "how", "as", "note" } of what was kept, nil while nobody said.
    Line = Value.define(:id, :title, :says, :expect, :works, :season, :limit, :cautions, :said)

    HOW = %w[run low_voltage not_run].freeze
    AS = %w[expected otherwise].freeze

    def initialize(rig, outdoor_degrees_f: nil, said: {})
      @rig = Target.rig(rig)
      @outdoor = outdoor_degrees_f
      @said = said
    end

    # [Line] in the order of the calls.
    def lines = @lines ||= Outputs.calls(@rig).map { |id| line(id) }

    # What is still missing of a line before the job can be closed; nil for nothing. Words.
    def missing(line)
      said = line.said or return words("call_unsaid")
      return words("call_why") if said["how"] == "not_run" && blank?(said)
      return words("call_otherwise") if said["as"] == "otherwise" && blank?(said)
      return nil unless said["how"] == "run"
      return words("call_outdoor") if line.season == "unread"

      words("call_out", limit: line.limit) if line.season == "out" && blank?(said)
    end

    private

    def blank?(said) = said["note"].to_s.strip.empty?
    def words(key, **fields) = Catalogue.words("close_out.#{key}", **fields)

    def line(id)
      trace = Trace.new(@rig, Condition.new(call: id, outdoor_degrees_f: @outdoor).for_rig(@rig))
      mode = Season.mode(id)
      season = Season.of(mode, @outdoor)
      Line.new(
        id: id,
        title: Catalogue.calls.fetch(id)["title"],
        says: Catalogue.calls.fetch(id)["says"],
        expect: trace.live_at_wall,
        works: trace.loads.select { |load| load.on && shown?(load) }.map(&:title),
        season: season,
        limit: mode ? limit(mode) : "",
        cautions: cautions(mode, season),
        said: @said[id]
      )
    end

    def shown?(load) = @rig.layout.fetch("shown_loads").include?(load.code)

    def limit(mode) = words("limit_#{mode}", degrees: format("%g", Season.limit_degrees_f(mode)))

    def cautions(mode, season)
      [*("starts_by_itself" if mode), *(%w[out_of_season maker_first] if season == "out")]
    end
  end
end
