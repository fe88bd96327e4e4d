# frozen_string_literal: true

require_relative "../../core/lib/gorvant"

# A made-up record with a known truth, read and judged as a user's would be. Boards of every school, both changeover
# sorts, parameters of the model off by up to 30 %, disturbances it lacks, noise, drop-outs and gaps; all from one seed.
class LogTrial
  include Gorvant

  FAULTS = [*FrostRun::FAULTS, "interval_other"].freeze
  COLUMNS = [
    Formats::MadeUpLog::HEADINGS.keys,
    %w[outdoor coil fan amps w2 ob],
    %w[outdoor coil y ob fan w2],
    %w[outdoor coil amps fan w2]
  ].freeze
  SCALED = %w[evaporator_kw surface_kw_per_k heat_kw metal_kj_per_k air_kg_per_second].freeze
  DAY = 86_400

  attr_reader :fault, :rig, :log, :told, :story, :judge

  # fault: of FAULTS, nil for a healthy unit. Nil of one that this board cannot have.
  def self.of(rig, seed, fault)
    trial = new(rig, seed, fault)
    trial if trial.possible?
  end

  # The judge of a unit as it is, over a day of this weather.
  def self.judge_of(rig, **options) = new(rig, 1, nil).tap { |trial| trial.as_it_is(rig, options) }.judge

  def as_it_is(rig, options)
    @rig = rig
    @every = 30
    @log = Formats::MadeUpLog.new(profile: profile, changeover: rig.changeover, every: @every, **options)
    read(@log.text(DAY))
    @judge = RecordedJudge.new(@story, rig)
  end

  def initialize(rig, seed, fault)
    @random = Random.new(seed)
    @fault = fault
    @rig = board(rig)
    @seed = seed
  end

  def possible? = fault != "interval_other" || !%w[demand free].include?(rig[:defrost_clock])

  def run
    @log = Formats::MadeUpLog.new(profile: actual, changeover: rig.changeover, **options)
    read(@log.text(DAY))
    @judge = RecordedJudge.new(@story, rig)
    self
  end

  # Whether the fault did anything that a record could show.
  def shows?
    case fault
    when "low_charge"
      truth.count { |one| one.by == "time" } >= truth.size * 0.65
    when "switch_stuck_open", "never_starts"
      truth.empty?
    when "switch_stuck_closed", "switch_off_pipe", "switch_opens_late"
      truth.count { |one| one.end_seconds - one.start_seconds > 150 } > 2
    else
      true
    end
  end

  def named? = judge.verdicts.any? { |one| Catalogue.verdicts.fetch(one.code).fetch("causes", []).include?(fault) }
  def accused = judge.verdicts.select(&:wrong?).map(&:code)
  def truth = log.defrosts.select(&:end_seconds)

  def missed = truth.reject { |one| blind?(one) || story.defrosts.any? { |found| same?(one, found) } }
  def invented = story.defrosts.reject { |found| in_gap?(found.start) || log.defrosts.any? { |one| same?(one, found) } }

  # Whether the record blurs where a defrost begins: short runs, or a fan that does not tell and no O/B beside it.
  def blurred? =
    fault == "short_cycling" ||
      (!story.has?("ob") && %w[valve_stuck fan_stays_off fan_runs_in_defrost valve_slow].include?(fault))

  # Defrosts whose end was put down to what did not end them.
  def misjudged
    truth.select do |one|
      found = story.defrosts.find { |other| same?(one, other) }
      by = found && judge.ended_by(found)
      by && by != { "aborted" => "call" }.fetch(one.by, one.by)
    end
  end

  private

  def pick(list) = list[@random.rand(list.size)]

  def board(rig)
    facts = {
      "defrost_clock" => pick(%w[run_time run_time_cold run_time_cold run_time demand time_only free]),
      "defrost_interval_minutes" => pick([30, 60, 90]),
      "coil_switch_opens_degrees_f" => pick([60, 65, 80]),
      "y_lost_in_defrost" => pick(%w[next_call abort])
    }
    rig.set(facts, "measured")
  end

  def profile = ClockProfile.of(rig)

  def actual
    return profile unless fault == "interval_other"

    profile.with(interval_seconds: pick([30, 60, 90, 120] - [rig[:defrost_interval_minutes].to_i]) * 60.0)
  end

  def options
    {
      seed: @seed,
      faults: fault && fault != "interval_other" ? [fault] : [],
      every: @every = pick([10, 10, 30]),
      columns: pick(COLUMNS),
      scale: @seed.odd? ? SCALED.to_h { |name| [name, 0.7 + (@random.rand * 0.6)] } : {},
      mean_degrees_f: 18 + (@random.rand * 16),
      humidity: 72 + (@random.rand * 20),
      wind_mph: 1 + (@random.rand * 4),
      gaps: pick([0, 0.0002]),
      drop_outs: pick([0, 0.002]),
      disturbed: @random.rand < 0.5,
      comma: @random.rand < 0.3,
      zone: pick(%w[UTC America/Chicago])
    }
  end

  def read(text)
    head = Formats::FieldLogHead.guess(text.byteslice(0, 60_000))
    mapping = Formats::FieldLogMapping.guess(head, zone: @log.zone)
    hours = []
    reader = Formats::FieldLogReader.new(mapping) { |hour| hours << hour }
    reader.file(1, head) << text
    @told = reader.end_file.finish
    @story =
      RecordedCycles.of(
        hours,
        ids: mapping.ids,
        on_off: reader.on_off,
        closes: profile.starts_degrees_f,
        opens: profile.ends_degrees_f,
        interval_seconds: told.interval_seconds
      )
  end

  def same?(one, found) = (found.start - one.start_seconds).abs <= [@every, 10].max + 0.01
  # Where rows are missing nobody can see; nor a defrost that the call broke off in its first moments.
  def blind?(one) = in_gap?(one.start_seconds) || (one.by == "aborted" && one.end_seconds - one.start_seconds < 90)

  def in_gap?(at) = told.gaps.any? { |from, to| at.between?(from - 1500, to + 120) } || at > told.to - 1200
end
