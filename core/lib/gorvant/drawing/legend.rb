# frozen_string_literal: true

module Gorvant
  # The legend of the rig in hand: every code in it with its symbol, what it does and what moves it, at rest and now;
  # the line styles; and the symbols that panels leave out of their own legends.
  module Legend
    # code; title; does; moves: what moves it, nil for nothing; rest, now: words, nil where they make no sense; strokes:
    # its symbol; fitted: false for what the panel shows and this unit lacks; cautions: keys.
    Entry = Value.define(:code, :title, :does, :moves, :rest, :now, :strokes, :fitted, :cautions)
    # A mark that is not a component: key, title, says, strokes or line (a class of line).
    Mark = Value.define(:key, :title, :says, :strokes, :line, defaults: { strokes: [].freeze, line: nil })

    MAIN_CONTACT = { "DFR" => "DFR.W2" }.freeze

    class << self
      # [Entry] in alphabetical order of their codes, what is not fitted last.
      def entries(trace)
        codes = trace.netlist.branches.filter_map(&:component).uniq & Catalogue.components.keys
        absent = Options.own - codes
        codes.sort.map { |code| entry(trace, code) } + absent.map { |code| missing(code) }
      end

      # [Mark]: lines first.
      def marks
        Catalogue.legend.map do |key, about|
          Mark.new(
            key: key,
            title: about.fetch("title"),
            says: about.fetch("says"),
            line: about["line"],
            strokes: about["symbol"] ? symbol(about["symbol"]) : []
          )
        end
      end

      private

      def entry(trace, code)
        about = Catalogue.components.fetch(code)
        branch =
          (
            if trace.netlist.branch?(code)
              trace.netlist[code]
            else
              trace.netlist.branches.find { |one| one.component == code }
            end
          )
        Entry.new(
          code: Naming.code(trace.rig, code),
          title: about.fetch("title"),
          does: about.fetch("does"),
          moves: moves(about, branch),
          rest: rest(branch),
          now: now(trace, branch),
          strokes: Symbols.of(branch),
          fitted: true,
          cautions: about.fetch("cautions", [])
        )
      end

      def missing(code)
        about = Catalogue.components.fetch(code)
        kind = about.fetch("kind")
        strokes =
          {
            "capacitor" => Symbols.capacitor,
            "switch" => Symbols.switch(about["rest"] == "closed", about["moved_by"])
          }.fetch(kind) { about["symbol"] ? Symbols.resistor : Symbols.coil }
        Entry.new(
          code: code,
          title: about.fetch("title"),
          does: about.fetch("does"),
          moves: nil,
          rest: nil,
          now: nil,
          strokes: strokes,
          fitted: false,
          cautions: []
        )
      end

      def moves(about, branch)
        return Catalogue.words("moves.#{about["moved_by"]}") if about["moved_by"]

        branch.kind == :coil ? Catalogue.words("moves.coil") : nil
      end

      def rest(branch) =
        if branch.switching? && branch.kind != :fuse
          (branch[:closed] || branch[:rest] == :closed ? "closed" : "open")
        else
          nil
        end

      def now(trace, branch)
        return trace.solution.conducts?(branch) ? "closed" : "open" if branch.switching?

        branch.load? ? (trace.works?(branch.id) ? "on" : "off") : nil
      end

      # A symbol of Symbols by its name in legend.yml: "contact closed", "splice".
      def symbol(text)
        name, state = text.split
        case name
        when "contact"
          Symbols.contact(state == "closed", nil)
        when "switch"
          Symbols.switch(false, state)
        else
          Symbols.public_send(name)
        end
      end
    end
  end
end
