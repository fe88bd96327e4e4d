# frozen_string_literal: true

module Gorvant
  # What comes again over a crew's units: how often a complaint or a cause was met, and among which units it is met more
  # often, or less, than among all. Small counts say nothing, and then it says nothing.
  class Recurrence
    # One closed visit. whats: { key => title } of complaints and causes; traits: { fact, or "age" => value } that are
    # known.
    Case = Value.define(:unit_id, :whats, :traits)
    # count of visits, low..high: share between which it lies in nine cases of ten.
    Often = Value.define(:what, :count, :of, :units, :low, :high)
    # The same among units with one trait, beside all others.
    Apart = Value.define(:what, :trait, :value, :count, :of, :low, :high, :others_low, :others_high)

    AGE = "age"
    TRAITS = %w[board_family defrost_interval_minutes changeover backup y_path sensing compressor_stages].freeze
    # Source: docs/sources.md, wilson-interval.
    Z = 1.645

    # A closed visit of a rig. cause: title of what Find stood by, nil for none; age_years: of the unit on that day,
    # nil where nobody knows.
    def self.case_of(unit_id, rig, symptoms, cause, age_years: nil)
      read = TRAITS.select { |key| rig.asks?(key) && !rig.assumed.include?(key) }
      whats = symptoms.to_h { |key| ["complaint.#{key}", Catalogue.symptoms.fetch(key)["title"]] }
      whats = whats.merge("cause.#{cause}" => cause) if cause
      traits = read.to_h { |key| [key, rig[key.to_sym]] }
      traits = traits.merge(AGE => age_band(age_years)) if age_years
      Case.new(unit_id: unit_id, whats: whats, traits: traits)
    end

    # By calendar years; nil where nobody knows it, and where the unit of that year came after the day.
    def self.age(installed_year, on) = installed_year && on.year >= installed_year ? on.year - installed_year : nil

    # "5 to 9 years"; a unit that stands for less than the first edge is "under" it.
    def self.age_band(years)
      edges = Catalogue.profile.dig("recurrence", "age_edges_years")
      at = edges.count { |edge| years >= edge }
      return "under #{edges.first} years" if at.zero?

      at == edges.size ? "#{edges.last} years and more" : "#{edges[at - 1]} to #{edges[at] - 1} years"
    end

    def initialize(cases)
      @cases = cases
      @least = Catalogue.profile.dig("recurrence", "least_visits")
    end

    # Whether there is enough to say anything.
    def enough? = @cases.size >= @least

    # [Often], the most frequent first.
    def often
      return [] unless enough?

      whats
        .map do |key, title|
          with = @cases.select { |one| one.whats.key?(key) }
          low, high = interval(with.size, @cases.size)
          Often.new(
            what: title,
            count: with.size,
            of: @cases.size,
            units: with.map(&:unit_id).uniq.size,
            low: low,
            high: high
          )
        end
        .sort_by { |one| [-one.count, one.what] }
    end

    # [Apart]: traits among which something is met otherwise than among the other units, as far as counts bear it.
    def apart = whats.flat_map { |key, title| [*TRAITS, AGE].flat_map { |trait| by_trait(key, title, trait) } }

    private

    def whats = @cases.map(&:whats).inject({}, :merge)

    def by_trait(key, title, trait)
      known = @cases.select { |one| one.traits.key?(trait) }
      known
        .group_by { |one| one.traits[trait] }
        .filter_map do |value, group|
          others = known - group
          next if group.size < @least || others.size < @least

          told(key, title, trait, value, group, others)
        end
    end

    def told(key, title, trait, value, group, others)
      count, rest = [group, others].map { |list| list.count { |one| one.whats.key?(key) } }
      low, high = interval(count, group.size)
      others_low, others_high = interval(rest, others.size)
      return nil unless low > others_high || high < others_low

      Apart.new(
        what: title,
        trait: trait == AGE ? "Age" : Catalogue.facts.fetch(trait)["title"],
        value: trait == AGE ? value : Comparison.words(trait, value),
        count: count,
        of: group.size,
        low: low,
        high: high,
        others_low: others_low,
        others_high: others_high
      )
    end

    def interval(count, all)
      share = count / all.to_f
      middle = share + ((Z**2) / (2 * all))
      width = Z * Math.sqrt((share * (1 - share) / all) + ((Z**2) / (4 * (all**2))))
      [middle - width, middle + width].map { |edge| (edge / (1 + ((Z**2) / all))).clamp(0.0, 1.0).round(3) }
    end
  end
end
