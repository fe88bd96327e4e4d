# frozen_string_literal: true

# Rigs of every sort, the same for the same seed.
module RandomRigs
  # Of the thermostat's settings only these are drawn: the others would make a wrong set-up of most rigs.
  DRAWN = %w[changeover_setup system_setup backup_setup thermostat_minimum_off_seconds gas_cut_seconds].freeze

  def self.facts(random)
    chosen =
      Gorvant::Catalogue
        .facts
        .each_with_object({}) do |(key, about), facts|
          next if about["group"] == "settings" && !DRAWN.include?(key)
          next if random.rand < 0.3 # left to the board or the default

          facts[key] = case about["kind"]
          when "choice"
            about["of"].keys.sample(random: random)
          when "flag"
            random.rand < 0.5
          when "number"
            number(key, about, random)
          when "table"
            about["default"]
          when "list"
            about["of"].keys.sample(random.rand(0..about["of"].size), random: random)
          end
        end
    straight(chosen.merge("system_setup" => "heat_pump", "backup_setup" => "as_fitted"))
  end

  # Without points that cross: those are refused.
  def self.straight(facts)
    crossing =
      Gorvant::Catalogue.facts.filter_map do |key, about|
        other = about["above"] || about["at_least"] or next
        given, least = [key, other].map { |one| facts.fetch(one, Gorvant::Catalogue.facts.fetch(one)["default"]) }
        key if given < least || (about["above"] && given == least)
      end
    crossing
      .flat_map { |key| [key, Gorvant::Catalogue.facts[key].values_at("above", "at_least").compact.first] }
      .inject(facts) { |left, key| left.except(key) }
  end

  def self.number(key, about, random)
    usual = { "fuse_amps" => [0, 3, 5], "transformer_va" => [20, 40, 60] }
    usual.fetch(key) { [about["low"], about["default"], about["high"]] }.sample(random: random)
  end

  def self.rig(seed)
    random = Random.new(seed)
    Gorvant::Composer.compose(
      name: "Random #{seed}",
      facts: facts(random),
      lengths: {
        "cable_a" => random.rand(5..200),
        "cable_b" => random.rand(5..300)
      }
    )
  end

  # [rig, condition] with up to two faults.
  def self.case(seed)
    random = Random.new(seed * 7919)
    rig = rig(seed)
    library = Gorvant::Faults::Library.of(rig)
    condition = {
      "call" => Gorvant::Outputs.calls(rig).sample(random: random),
      "faults" => library.sample(random.rand(0..2), random: random)
    }
    condition["supplies"] = { "outdoor" => false } if random.rand < 0.1
    condition["board"] = { "lockout" => true } if random.rand < 0.1
    [rig, Gorvant::Condition.parse(condition)]
  end
end
