# frozen_string_literal: true

module Gorvant
  # What a visit found otherwise than the rig has it, or has looked at and found so: where conductors land, jumpers,
  # settings of the thermostat. What is not recorded counts as drawn. From it follow the faults that make the circuit as
  # found of the circuit as meant. What an earlier visit told (its day) counts until somebody looks, and never as looked
  # at; told_settings: keys of such settings.
  AsFound =
    Value.define(
      :landings,
      :jumpers,
      :settings,
      :told_settings,
      defaults: {
        landings: [].freeze,
        jumpers: [].freeze,
        settings: {}.freeze,
        told_settings: [].freeze
      }
    )

  class AsFound
    # One end of a conductor. lands_on: a terminal of the place, nil for none. lies: "landed", "capped" or "bare".
    # color: nil for the conductor's own. told: ISO date of the earlier visit that tells it; nobody has seen it since.
    Landing =
      Value.define(
        *%i[cable conductor place lands_on lies color seen told],
        defaults: {
          color: nil,
          seen: true,
          told: nil
        }
      )
    Jumped = Value.define(:place, :from, :to, :found, :told, defaults: { told: nil })

    # Points of the outdoor unit that a field wire can be landed on past the strip: { name => node }.
    TAPS = { "T1" => "outdoor.board.T1", "M" => "outdoor.board.M", "CC" => "outdoor.CC.1" }.freeze
    # Screws that a thermostat has and that nothing is behind on this rig: a wire on one of them lands on nothing.
    DEAD = %w[Y2 L].freeze
    RIGS_REMEMBERED = 16
    private_constant :RIGS_REMEMBERED
    LIES = %w[landed capped bare].freeze
    MOST = 400

    class << self
      # From parsed JSON, for a rig. Raises BadAsFound with every problem and its JSON pointer. known: `strips` of the
      # rig, for one who reads many.
      def parse(given, rig, known = strips(rig)) = Reader.new(given, rig, known).as_found

      # { place => its terminals }, each looked up when it is asked for.
      def strips(rig) = Hash.new { |strips, place| strips[place] = terminals(rig, place) }

      # Where a conductor can be landed at a place: names in the order of the strip.
      def terminals(rig, place) = rig.terminals(place) + more(rig, place)

      # The point of the circuit that a screw is; nil for one with nothing behind it.
      def node(rig, place, terminal)
        return nil if place == "wall" && !rig.terminals(place).include?(terminal)

        (place == "outdoor" && TAPS[terminal]) || "#{place}.#{terminal}"
      end

      private

      # Of the rigs that were asked about last: each landing of each desk asks, and a netlist takes a while.
      def taps(rig)
        known = @taps
        found = known&.find { |one, _taps| one.equal?(rig) } and return found.last

        netlist = Assembly.netlist(rig)
        fitted = TAPS.select { |_name, node| netlist.node?(node) }.keys.freeze
        @taps = [[rig, fitted], *known.to_a.first(RIGS_REMEMBERED - 1)].freeze
        fitted
      end

      def more(rig, place)
        case place
        when "outdoor"
          taps(rig)
        when "wall"
          DEAD - rig.terminals(place)
        else
          []
        end
      end
    end

    # What was recorded here, without what is only told.
    def to_json_hash
      {
        "landings" =>
          landings
            .select(&:seen)
            .map { |landing| landing.to_h.transform_keys(&:to_s).compact.merge("lands_on" => landing.lands_on) },
        "jumpers" => jumpers.reject(&:told).map { |jumper| jumper.to_h.transform_keys(&:to_s).compact },
        "settings" => settings.except(*told_settings)
      }
    end

    # Settings that somebody read here.
    def read_settings = settings.except(*told_settings)
    # Whether anybody looked at a landing or a jumper here.
    def looked? = landings.any?(&:seen) || !jumpers.all?(&:told)
    # Days of the earlier visits that any of it is told by.
    def told = (landings + jumpers).filter_map(&:told).uniq

    # All conductor ends of a rig as found: [Landing], cable by cable, the drawn ones first, those only found here after
    # them.
    def ends(rig)
      known = landings.to_h { |landing| [[landing.cable, landing.conductor, landing.place], landing] }
      drawn = drawn_ends(rig).map { |one| known[[one.cable, one.conductor, one.place]] || one }
      drawn +
        landings.reject do |landing|
          drawn.any? do |one|
            [one.cable, one.conductor, one.place] == [landing.cable, landing.conductor, landing.place]
          end
        end
    end

    # Jumpers as they should be: the rig's, and RC–RH where the thermostat has them apart.
    def self.jumpers_of(rig)
      own = rig.jumpers.map { |jumper| Jumped.new(place: jumper.place, from: jumper.from, to: jumper.to, found: true) }
      rig[:split_r] ? [Jumped.new(place: "wall", from: "RC", to: "RH", found: true), *own] : own
    end

    # The faults that stand for it in the circuit of a rig.
    def faults_of(rig) = Differences.new(rig, self, rig).all.flat_map(&:faults)

    # Whether anybody recorded anything.
    def empty? = landings.empty? && jumpers.empty? && settings.empty?

    private

    def drawn_ends(rig)
      rig.cables.flat_map do |cable|
        cable.conductors.flat_map do |conductor|
          { cable.from => conductor.from, cable.to => conductor.to }.map do |place, terminal|
            Landing.new(
              cable: cable.id,
              conductor: conductor.id,
              place: place,
              lands_on: terminal,
              lies: terminal ? "landed" : "capped",
              seen: false
            )
          end
        end
      end
    end

    # Reads a record field by field.
    class Reader
      def initialize(given, rig, strips)
        @given = given
        @rig = rig
        @strips = strips
        @problems = []
      end

      def as_found
        unless @given.is_a?(Hash)
          raise BadAsFound.new(
                  [{ "field" => "/", "problem" => "has to be an object with landings, jumpers and settings" }]
                )
        end

        stray = @given.keys - %w[landings jumpers settings told_settings]
        wrong("/#{stray.first}", "unknown; known are landings, jumpers and settings") if stray.any?
        found = AsFound.new(landings: landings, jumpers: jumpers, settings: settings, told_settings: told_settings)
        raise BadAsFound.new(@problems) if @problems.any?

        found
      end

      private

      def wrong(field, problem)
        @problems << { "field" => field, "problem" => problem }
        nil
      end

      def list(name)
        list = @given.fetch(name, [])
        return wrong("/#{name}", "has to be a list") || [] unless list.is_a?(Array)
        return wrong("/#{name}", "has #{list.size} entries; at most #{MOST}") || [] if list.size > MOST

        list.each_with_index.filter_map do |one, i|
          next wrong("/#{name}/#{i}", "has to be an object") unless one.is_a?(Hash)

          one["told"] ? told(one) { yield(one, "/#{name}/#{i}") } : yield(one, "/#{name}/#{i}")
        end
      end

      # What an earlier visit told of another circuit than today's is told of nothing.
      def told(one)
        return nil unless one["told"].is_a?(String) && one["told"].match?(/\A\d{4}-\d\d-\d\d\z/)

        before = @problems.size
        read = yield
        @problems.pop(@problems.size - before)
        read
      end

      def landings
        read = list("landings") { |one, field| landing(one, field) }
        read.each_with_index do |landing, i|
          first =
            read.index do |other|
              [other.cable, other.conductor, other.place] == [landing.cable, landing.conductor, landing.place]
            end
          wrong("/landings/#{i}", "this end stands at /landings/#{first} already") if first != i
        end
        read
      end

      def landing(one, field)
        cable = @rig.cables.find { |known| known.id == one["cable"] } or
          return(
            wrong(
              "#{field}/cable",
              "unknown cable #{one["cable"].inspect[0, 40]}; known are #{@rig.cables.map(&:id).join(", ")}"
            )
          )
        place = one["place"]
        unless [cable.from, cable.to].include?(place)
          return(
            wrong(
              "#{field}/place",
              "#{Naming.cable(cable)} does not reach #{place.inspect[0, 40]}; it joins #{cable.from} and #{cable.to}"
            )
          )
        end
        unless one["conductor"].is_a?(String) && one["conductor"].match?(/\A[a-z][a-z0-9_]{0,39}\z/)
          return wrong("#{field}/conductor", "has to be a name of small letters, digits and _, such as violet")
        end
        unless one["color"].nil? ||
                 (one["color"].is_a?(String) && one["color"].match?(%r{\A[[:alpha:]][[:alpha:] _/-]{0,29}\z}))
          return wrong("#{field}/color", "has to be a color in words, such as light blue")
        end

        lies(one, field, cable, place)
      end

      def lies(one, field, cable, place)
        lies = one.fetch("lies") { one["lands_on"] ? "landed" : "capped" }
        return wrong("#{field}/lies", "has to be landed, capped or bare") unless LIES.include?(lies)

        terminal = one["lands_on"]
        known = @strips[place]
        return wrong("#{field}/lands_on", "has to be empty for an end that is #{lies}") if lies != "landed" && terminal
        if lies == "landed" && !known.include?(terminal)
          return(
            wrong(
              "#{field}/lands_on",
              "unknown terminal #{terminal.inspect[0, 40]} at the #{Naming.place(@rig, place)}; " \
                "it has #{known.join(", ")}"
            )
          )
        end

        Landing.new(
          cable: cable.id,
          conductor: one["conductor"],
          place: place,
          lands_on: terminal,
          lies: lies,
          color: one["color"],
          seen: one["told"].nil?,
          told: one["told"]
        )
      end

      def jumpers
        list("jumpers") do |one, field|
          place, from, to = one.values_at("place", "from", "to")
          unless @rig.layout["places"].key?(place)
            next wrong("#{field}/place", "unknown place; known are #{@rig.layout["places"].keys.join(", ")}")
          end

          known = @strips[place] + (place == "wall" && @rig[:split_r] ? %w[RC RH] : [])
          # A missing end is no terminal either.
          end_of = { "from" => from, "to" => to }.find { |_name, terminal| !known.include?(terminal) }
          if end_of
            next(
              wrong(
                "#{field}/#{end_of[0]}",
                "unknown terminal #{end_of[1].inspect[0, 40]} at the #{Naming.place(@rig, place)}; " \
                  "it has #{known.join(", ")}"
              )
            )
          end
          next wrong("#{field}/to", "a jumper joins two terminals") if from == to
          next wrong("#{field}/found", "has to be true or false") unless [true, false].include?(one["found"])

          Jumped.new(place: place, from: from, to: to, found: one["found"], told: one["told"])
        end
      end

      def told_settings
        given = @given["settings"]
        given.is_a?(Hash) ? Array(@given["told_settings"]) & given.keys : []
      end

      def settings
        given = @given.fetch("settings", {})
        return wrong("/settings", "has to be an object") || {} unless given.is_a?(Hash)

        given.each do |key, value|
          unless Rig.settings.include?(key)
            next wrong("/settings/#{key.to_s[0, 60]}", "unknown setting; known are #{Rig.settings.join(", ")}")
          end

          problem = Rig::Check.new(@rig).value(key, value, Catalogue.facts.fetch(key)).first
          wrong("/settings/#{key}", problem["problem"]) if problem
        end
      end
    end
  end
end
