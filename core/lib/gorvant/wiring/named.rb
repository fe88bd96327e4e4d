# frozen_string_literal: true

module Gorvant
  # The trade's name for a difference: which finding of core/data/findings.yml tells it. A landing may be more than a
  # wire on the wrong screw: C on B, aux where the thermostat gives none, Y past the safeties.
  class Named
    # code: key of findings.yml; fields: for its words.
    Name = Value.define(:code, :fields)
    CHANGEOVER = %w[O B OB].freeze

    def initialize(differences)
      @rig = differences.rig
      @ends = differences.found.ends(@rig)
    end

    # A Name for one Differences::Difference.
    def of(difference)
      one = difference.ends.first
      code = special(difference, one) || usual(difference)
      Name.new(code: code, fields: fields(difference, one))
    end

    private

    def usual(difference)
      return "setting_#{difference.key}" if difference.kind == "setting"
      return doubled?(difference) ? "landing_doubled" : "landing_wrong" if difference.kind == "wrong"

      {
        "crossed" => "landing_crossed",
        "missing" => "landing_missing",
        "extra" => "conductor_extra",
        "spare_landed" => "spare_landed",
        "color" => "color_changed",
        "bare" => "end_bare",
        "jumper_missing" => "jumper_missing",
        "jumper_extra" => "jumper_left"
      }.fetch(difference.kind)
    end

    def special(difference, one)
      return jumper(difference.jumper) if difference.jumper
      return nil unless one && %w[crossed wrong missing spare_landed].include?(difference.kind)

      should = difference.should.values.compact
      at_wall(difference, should) || outdoors(difference, should)
    end

    def jumper(jumper)
      return "rc_rh_apart" if [jumper.from, jumper.to].sort == %w[RC RH] && !jumper.found

      if jumper.found && @rig[:outdoor_thermostat] && [jumper.from, jumper.to].sort == ["E", @rig.aux_terminal].sort
        "jumper_forbidden"
      end
    end

    def at_wall(difference, should)
      return nil unless difference.place == "wall"
      if difference.ends.any? { |one| CHANGEOVER.include?(one.lands_on) && far_end(one)&.lands_on == "C" }
        return "c_on_b"
      end
      if difference.kind == "wrong" && should == [@rig.aux_terminal] &&
           %w[W1 W2].include?(difference.ends.first.lands_on)
        return "aux_on_wrong_terminal"
      end

      if difference.kind == "wrong" && should.intersect?(CHANGEOVER) &&
           CHANGEOVER.include?(difference.ends.first.lands_on)
        "changeover_on_wrong_terminal"
      end
    end

    def outdoors(difference, should)
      return nil unless difference.place == "outdoor" || should.include?("Y2")
      if difference.ends.any? { |one| AsFound::TAPS.key?(one.lands_on) } && should.include?("Y")
        return "y_past_safeties"
      end
      return nil if difference.kind == "crossed"
      return "w2_out_not_returned" if should == ["W2_out"]
      return "second_stage_nowhere" if should == ["Y2"]

      "board_supply_missing" if difference.place == "outdoor" && should.intersect?(%w[R C])
    end

    def far_end(one) =
      @ends.find { |other| other.cable == one.cable && other.conductor == one.conductor && other.place != one.place }

    # Whether another conductor of the same cable stands on the screw that this one was found on.
    def doubled?(difference)
      one = difference.ends.first
      @ends.any? do |other|
        other != one && other.cable == one.cable && other.place == one.place && other.lands_on == one.lands_on
      end
    end

    def fields(difference, one)
      {
        place: difference.place ? Naming.place(@rig, difference.place) : "",
        what: difference.ends.map { |end_| called(end_) }.uniq.first(2).join(" and "),
        found: difference.ends.map { |end_| lies_at(end_) }.join(" and "),
        should: difference.should.values.compact.map { |terminal| letter(terminal) }.join(" and "),
        far: one && far_end(one)&.lands_on ? far_words(far_end(one)) : Catalogue.words("wiring.far_nothing"),
        **fields_of_kind(difference)
      }
    end

    # What only some kinds of differences have, nothing for the others.
    def fields_of_kind(difference)
      {
        jumper: difference.jumper ? "#{difference.jumper.from}–#{difference.jumper.to}" : "",
        was: difference.kind == "color" ? difference.key.to_s.tr("_", " ") : "",
        setting: difference.kind == "setting" ? Catalogue.facts.fetch(difference.key)["title"] : ""
      }
    end

    def lies_at(end_) = end_.lands_on ? letter(end_.lands_on) : Catalogue.words("wiring.lies_#{end_.lies}")

    def far_words(end_) = "#{letter(end_.lands_on)} at the #{Naming.place(@rig, end_.place)}"
    def letter(terminal) = Naming.letter(@rig, terminal)
    def called(end_) = Naming.wire(end_.color || end_.conductor, end_.cable)
  end
end
