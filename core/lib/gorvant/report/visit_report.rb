# frozen_string_literal: true

module Gorvant
  # What a visit comes to on paper: a first page for the customer in plain words, then what a technician wants to know,
  # section by section. It says of a finding what Find said, or that a person wrote it, and no more.
  class VisitReport
    FORMAT = "gorvant-report/1"
    # In the order of the paper. What must not be left out is not offered.
    SECTIONS = %w[
      finding
      loop
      after
      readings
      wiring
      thermostat
      defrost
      photos
      fitted
      put_back
      cautions
      follow_up
    ].freeze
    ALWAYS = %w[finding put_back cautions follow_up].freeze

    # What surrounds a visit. find: what Find answers, as its words have it (symbol keys), nil where it was not asked.
    # photos: [{ id, of, note }]. visit_on: ISO date. names: who read and noted.
    About = Value.define(:site, :unit, :visit_on, :complaint, :find, :photos, :names, :crew)

    def initialize(record, about)
      @record = record
      @rig = record.rig
      @about = about
      @kept = record.close_out
    end

    def to_h
      {
        "format" => FORMAT,
        "title" => words("title", site: @about.site, unit: @about.unit),
        "site" => @about.site,
        "unit" => @about.unit,
        "crew" => @about.crew,
        "visit_on" => @about.visit_on,
        "rig" => @rig.name,
        "names" => @about.names,
        "cause" => cause,
        "found" => found_before,
        "left_off" => Desks::CloseOut.left_off?(@record),
        "customer" => customer,
        "sections" => sections,
        "handover" => handover
      }
    end

    private

    def words(key, **fields) = Catalogue.words("report.#{key}", **fields)
    def blank?(key) = @kept[key].to_s.strip.empty?

    # Title of what Find stands by; nil for what a person wrote.
    def cause
      find = @about.find
      stands =
        find && @kept["cause"] == "find" && %w[proved unproved found as_designed].include?(find.dig(:outcome, :key))
      stands ? find[:suspects].first&.fetch(:title) : nil
    end

    # What a later visit to the unit is told of it: { "id", "title", "mended" }, nil where Find stood by nothing. What
    # was found of the wiring is handed on by the wiring itself.
    def found_before
      find = @about.find or return nil
      key = @kept["cause"] == "find" && find.dig(:outcome, :key)
      if key == "not_now"
        return { "id" => "nothing", "title" => Catalogue.words("find.not_now"), "mended" => answered? }
      end
      return nil unless cause && key != "found"

      { "id" => find[:suspects].first[:id], "title" => cause, "mended" => answered? }
    end

    def answered? = @kept["answered"] == "yes" && !Desks::CloseOut.left_off?(@record)

    # --- the customer's page

    def customer
      [
        *left_off,
        { "title" => words("you_told"), "blocks" => [told] },
        {
          "title" => words("we_found"),
          "blocks" => [blank?("plain") ? Blocks.text(words("nothing_written")) : Blocks.own(@kept["plain"])]
        },
        { "title" => words("answered"), "blocks" => [Blocks.text(words("answered_#{@kept["answered"] || "unsaid"}"))] },
        { "title" => words("checked"), "blocks" => [Blocks.text(checked), *natural] },
        ({ "title" => words("next"), "blocks" => [Blocks.own(@kept["follow_up"])] } unless blank?("follow_up"))
      ].compact
    end

    def left_off
      return [] unless Desks::CloseOut.left_off?(@record)

      [{ "title" => "", "blocks" => [Blocks.large(words("left_off"), @kept["left_off"])] }]
    end

    def told
      return Blocks.own(@about.complaint) unless @about.complaint.to_s.strip.empty?

      titles = @record.symptoms.map { |key| Catalogue.symptoms.fetch(key)["title"] }
      Blocks.text(titles.empty? ? words("told_nothing") : "#{titles.join(", ")}.")
    end

    def checked
      return words("checked_left_off") if Desks::CloseOut.left_off?(@record)

      lines = Desks::CloseOut.call_list(@record).lines
      by = lines.group_by { |line| came_out(line.said || {}) }
      words("checked_calls", count: lines.size, fine: by.fetch("expected", []).size, rest: rest(by))
    end

    # Controls that were seen alone are not said to have run.
    def came_out(said)
      return said["how"] || "unsaid" unless said["how"] == "run" || said["as"] == "otherwise"

      said.fetch("as")
    end

    def rest(by)
      parts = by.except("expected").map { |key, lines| words("rest_#{key}", list: lines.map(&:title).join(", ")) }
      parts.empty? ? "" : " #{parts.join(" ")}"
    end

    def natural
      return [] unless Desks::CloseOut.defrost?(@record)

      [Blocks.text(words(@kept["natural_defrost"] == "seen" ? "natural_seen" : "natural_not_seen"))]
    end

    # --- the technician's sections

    def sections
      all = {
        "finding" => finding,
        "loop" => loop_drawing,
        "after" => Desks::CloseOut.report(@record),
        "readings" => Desks::Trace.report(@record),
        "wiring" => Desks::Wiring.report(@record),
        "thermostat" => Desks::Thermostat.report(@record),
        "defrost" => Desks::Defrost.report(@record),
        "photos" => @about.photos.map { |photo| Blocks.photo(*photo) },
        "fitted" => Desks::Fitted.report(@record),
        "put_back" => put_back,
        "cautions" => [Blocks.list(cautions)],
        "follow_up" => follow_up
      }
      SECTIONS
        .map do |id|
          { "id" => id, "title" => words("section_#{id}"), "always" => ALWAYS.include?(id), "blocks" => all.fetch(id) }
        end
        .reject { |section| section["blocks"].empty? }
    end

    def finding
      case @kept["cause"]
      when "written"
        [Blocks.own(@kept["finding"]), Blocks.text(words("written"))]
      when "find"
        @about.find ? found(@about.find) : [Blocks.text(words("find_not_asked"))]
      else
        [Blocks.text(words("nothing_found"))]
      end + (blank?("finding") || @kept["cause"] == "written" ? [] : [Blocks.own(@kept["finding"])])
    end

    def found(find)
      outcome = find[:outcome]
      top = find[:suspects].first || {}
      [
        Blocks.text(outcome[:says]),
        Blocks.facts(
          {
            "carried_by" => top.fetch(:carried_by, []).join("; "),
            "against" => top.fetch(:against, []).join("; "),
            "changed" => find[:changed].map { |one| one[:says] }.join(" "),
            "alike" => top.fetch(:alike, []).join("; "),
            "not_proved" => outcome[:not_proved],
            "leans_on" => find[:assumed].join("; ")
          }.reject { |_key, says| says.empty? }.map { |key, says| [words(key), says] }
        ),
        *weighed(find[:evidence])
      ]
    end

    # How much the finding is made from; what was set aside is named, and not counted.
    def weighed(evidence)
      aside, weighed = evidence.partition { |one| one[:aside] }
      set_aside = aside.map { |one| one[:says] }.join("; ")
      [
        Blocks.text(words("found_by_find", count: weighed.size)),
        (Blocks.text(words("set_aside", list: set_aside)) if aside.any?)
      ].compact
    end

    def loop_drawing
      faults = @kept["cause"] == "find" ? top_faults : []
      failed = Desks::CloseOut.repeats(@record).first&.before
      block = LoopDrawing.block(@rig, faults, failed&.condition&.with(faults: []))
      block ? [block] : []
    end

    # Of the first suspect, where Find stands by it; of the unit as it was found, where that explains it.
    def top_faults
      find = @about.find
      return WiringCheck.new(@rig, @record.as_found).faults_on_recorded if find && find.dig(:outcome, :key) == "found"

      return [] unless find && %w[proved unproved].include?(find.dig(:outcome, :key))

      (find[:suspects].first || {})[:faults] || []
    end

    def put_back
      rows = Desks::CloseOut.put_back_rows(@record)
      [
        (Blocks.large(words("left_off"), @kept["left_off"]) if Desks::CloseOut.left_off?(@record)),
        Blocks.table(%w[line state why].map { |key| words("head_#{key}") }, rows)
      ].compact
    end

    def cautions
      keys = %w[maker_first line_voltage safeties starts_by_itself two_supplies]
      keys << "one_pole" unless @rig[:contactor_poles] == 2
      keys << "strips" if @rig[:backup] == "strips"
      keys << "steam"
      keys.map { |key| Catalogue.cautions.fetch(key) }
    end

    def follow_up
      [
        (
          if Desks::CloseOut.defrost?(@record) && @kept["natural_defrost"] != "seen"
            Blocks.text(words("natural_not_seen"))
          end
        ),
        (Blocks.text(words("answered_#{@kept["answered"]}")) if %w[partly no].include?(@kept["answered"])),
        *left_lines,
        (Blocks.own(@kept["follow_up"]) unless blank?("follow_up")),
        Blocks.text(words("no_proof"))
      ].compact
    end

    def left_lines
      left = Desks.put_back(@record).select { |line| Desks::CloseOut.state(line, @record) == "left" }
      left.empty? ? [] : [Blocks.text(words("left", list: left.map(&:says).join(" ")))]
    end

    # --- a short plain text for a message

    def handover
      [
        "#{@about.site}, #{@about.unit}, #{@about.visit_on}",
        (words("left_off") if Desks::CloseOut.left_off?(@record)),
        *([@kept["left_off"]] if Desks::CloseOut.left_off?(@record)),
        blank?("plain") ? words("nothing_written") : @kept["plain"].strip,
        checked,
        *natural.map { |block| block["says"] },
        (@kept["follow_up"].strip unless blank?("follow_up"))
      ].compact.join("\n")
    end
  end
end
