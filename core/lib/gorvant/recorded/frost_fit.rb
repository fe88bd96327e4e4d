# frozen_string_literal: true

module Gorvant
  # The frost model bent to a unit's own record: three of its parameters, so that the modelled coil follows the recorded
  # one through spells of heating and the defrosts that end them. Refused where the record cannot bear it.
  # Source: docs/sources.md, frost-fit.
  class FrostFit
    # scale: { parameter => factor }, empty where it was refused; residual_degrees_f: root mean square over all spells,
    # of the shipped coil before; refused: why, a sentence, or nil.
    Answer = Value.define(:scale, :residual_degrees_f, :shipped_residual_degrees_f, :spells, :refused)

    # A stretch of a record. rows: [[seconds, outdoor °F, coil °F, %, running, reversed, fan]].
    Spell = Value.define(:rows)

    class Answer
      # name: of the record.
      def says(name)
        return Catalogue.words("fit.refused", why: refused) if refused

        factors = scale.values_at(*PARAMETERS).map { |factor| format("%.2f", factor) }
        Catalogue.words(
          "fit.found",
          name: name,
          spells: spells,
          residual: format("%.1f", residual_degrees_f),
          shipped: format("%.1f", shipped_residual_degrees_f),
          **%i[surface evaporator heat].zip(factors).to_h
        )
      end
    end

    PARAMETERS = %w[surface_kw_per_k evaporator_kw heat_kw].freeze
    MOST_SPELLS = 6
    LONGEST_SECONDS = 9000.0
    SETTLES_SECONDS = 300.0
    ROUNDS = 5
    HALVINGS = 7 # of a range, for one parameter in one round

    # hours: RecordHour in order, given again each time it is gone through; story: of the same record.
    def self.of(hours, story) = new(hours, story).answer

    def initialize(hours, story)
      @hours = hours
      @story = story
      @numbers = Catalogue.frost.fetch("fit")
      @lag = Catalogue.frost.dig("sensor", "lag_seconds")
    end

    def answer
      why = too_little
      return refused(why) if why

      @spells = spells
      return refused(Catalogue.words("fit.no_spells")) if @spells.empty?

      shipped = residual(PARAMETERS.to_h { |name| [name, 1.0] })
      scale = search
      found = residual(scale)
      why = not_believed(scale, found)
      return refused(why, found, shipped) if why

      Answer.new(
        scale: scale.transform_values { |value| value.round(3) },
        residual_degrees_f: found.round(2),
        shipped_residual_degrees_f: shipped.round(2),
        spells: @spells.size,
        refused: nil
      )
    end

    private

    def refused(why, found = nil, shipped = nil)
      Answer.new(
        scale: {
        },
        residual_degrees_f: found&.round(2),
        shipped_residual_degrees_f: shipped&.round(2),
        spells: @spells&.size.to_i,
        refused: why
      )
    end

    def too_little
      missing = %w[coil outdoor].reject { |id| @story.has?(id) }
      titles = missing.map { |id| Catalogue.recorded.dig("columns", id, "title").downcase }
      return Catalogue.words("fit.no_column", columns: titles.join(", ")) if missing.any?
      if @story.run_seconds < @numbers.fetch("least_hours") * 3600
        return Catalogue.words("fit.too_short", hours: format("%g", @numbers.fetch("least_hours")))
      end
      return nil if ended.size >= @numbers.fetch("least_defrosts")

      Catalogue.words("fit.few_defrosts", count: @numbers.fetch("least_defrosts"))
    end

    def ended = @story.defrosts.select { |one| one.ended_with.nil? && one.paused_seconds.zero? }

    def not_believed(scale, found)
      most = @numbers.fetch("most_residual_degrees_f")
      return Catalogue.words("fit.off", degrees: format("%.1f", found), most: format("%g", most)) if found > most

      low, high = @numbers.fetch("factor")
      edge = scale.find { |_name, value| value <= low * 1.02 || value >= high * 0.98 }
      edge && Catalogue.words("fit.at_the_edge", parameter: Catalogue.words("fit.parameter_#{edge[0]}"))
    end

    # From the end of a defrost, when the coil is known to be clear, to the end of the next; spread over the record.
    def spells
      pairs = @story.defrosts.each_cons(2).select { |one, after| fit?(one, after) }
      chosen = pairs.each_slice([(pairs.size / MOST_SPELLS.to_f).ceil, 1].max).map(&:first).first(MOST_SPELLS)
      ranges = chosen.map { |one, after| [one.end, after.end, after.start] }
      cut(ranges).map { |rows| Spell.new(rows: rows) }.reject { |spell| spell.rows.size < 30 }
    end

    def fit?(one, after)
      after.run_seconds && after.ended_with.nil? && after.paused_seconds.zero? && one.ended_with != "record" &&
        after.end - one.end <= LONGEST_SECONDS
    end

    # Rows of each range, in one pass over the hours.
    def cut(ranges)
      found = ranges.map { [] }
      @hours.each do |hour|
        from, to = hour.starts_at, hour.starts_at + 3600
        ranges.each_with_index { |range, i| add(found[i], hour, *range) if range[0] < to && range[1] > from }
      end
      found
    end

    def add(rows, hour, from, to, reversed_from)
      outdoor, coil, humidity, fan = hour.columns.values_at("outdoor", "coil", "humidity", "fan")
      hour.seconds.each_with_index do |second, i|
        at = hour.starts_at + second
        next if at < from || at > to || coil[i].nan? || outdoor[i].nan?

        reversed = at >= reversed_from && at < to
        rows << [at, outdoor[i], coil[i], percent(humidity, i), running?(at), reversed, fan?(fan, i, reversed)]
      end
    end

    def percent(humidity, index)
      value = humidity && humidity[index]
      value && !value.nan? ? value : Catalogue.recorded.dig("cycles", "assumed_humidity_percent")
    end

    def running?(at)
      index = @story.runs.bsearch_index { |_from, to| to > at } or return false
      @story.runs[index][0] <= at
    end

    def fan?(fan, index, reversed)
      return !reversed if fan.nil? || fan[index].nan?

      rule = @story.on_off["fan"]
      rule && rule["over"] ? fan[index] > rule["over"] : !reversed
    end

    # One parameter after the other, by golden sections.
    def search
      low, high = @numbers.fetch("factor")
      scale = PARAMETERS.to_h { |name| [name, 1.0] }
      span = Math.log(high / low) / 2
      ROUNDS.times do
        PARAMETERS.each do |name|
          middle = Math.log(scale[name])
          range = [[middle - span, Math.log(low)].max, [middle + span, Math.log(high)].min]
          scale[name] = Math.exp(best(scale, name, *range))
        end
        span *= 0.6
      end
      scale
    end

    GOLDEN = (Math.sqrt(5) - 1) / 2
    private_constant :GOLDEN

    def best(scale, name, low, high)
      HALVINGS.times do
        Patience.check!
        one, other = high - (GOLDEN * (high - low)), low + (GOLDEN * (high - low))
        if residual(scale.merge(name => Math.exp(one))) < residual(scale.merge(name => Math.exp(other)))
          high = other
        else
          low = one
        end
      end
      (low + high) / 2
    end

    # Root mean square of modelled less recorded coil, °F.
    def residual(scale)
      numbers = FrostCoil.numbers(scale)
      sum = count = 0.0
      @spells.each do |spell|
        off, rows = follow(spell, numbers)
        sum += off
        count += rows
      end
      Math.sqrt(sum / [count, 1].max)
    end

    # [sum of squares, rows]. What water stays between the fins freezes; how warm the metal was is soon forgotten.
    def follow(spell, numbers)
      first = spell.rows.first
      coil = FrostCoil.new(degrees_f: first[2], frost_kg: numbers.fetch("stays_kg"), numbers: numbers)
      seen = first[2]
      sum = count = 0.0
      spell
        .rows
        .each_cons(2) do |(row, after)|
          seen = step(coil, row, after[0] - row[0], seen)
          next if after[0] < first[0] + SETTLES_SECONDS

          sum += (seen - after[2])**2
          count += 1
        end
      [sum, count]
    end

    def step(coil, row, seconds, seen)
      _at, outdoor, _coil, humidity, running, reversed, fan = row
      weather = FrostCoil::Weather.new(degrees_f: outdoor, humidity_percent: humidity)
      steps = (seconds / 15.0).ceil.clamp(1, 40)
      part = seconds / steps
      steps.times do
        coil.step(part, weather, stages: running ? 1 : 0, cooling: reversed, fan: fan && running)
        seen += (coil.degrees_f - seen) * (1 - Math.exp(-part / @lag))
      end
      seen
    end
  end
end
