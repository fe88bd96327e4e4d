# frozen_string_literal: true

require_relative "type"
require_relative "clock"
require_relative "blocks"

module Gorvant
  module Server
    module Reports
      # A report as PDF: one page for the customer, then the sections. report: what VisitReport gives, parsed JSON, with
      # "draft", "closing" and "addenda"; photo: gives the JPEG of an id; mark: the crew's, a JPEG, nil for none; zone:
      # of the clock that times are told by.
      class Pdf
        BODY = 10

        def initialize(report, photo:, mark: nil, leave_out: [], zone: nil)
          @report = report
          @photo = photo
          @mark = mark
          @out = leave_out
          @clock = Clock.new(zone)
        end

        # Bytes of the document.
        def render
          @pdf =
            Prawn::Document.new(
              page_size: "LETTER",
              margin: [*[Paper::MARGIN] * 2, Paper::MARGIN + Paper::FOOT, Paper::MARGIN],
              info: info
            )
          Type.onto(@pdf)
          say_language
          @blocks = Blocks.new(@pdf, @photo, @clock)
          @pdf.fill_color(Paper::INK)
          marks = [[@report["title"], 1]] + [customer].compact
          marks += sections
          marks += addenda
          feet
          @pdf.outline.define { marks.each { |title, page| page(title: title, destination: page) } }
          @pdf.render
        end

        private

        def words(key, **fields) = Catalogue.words("report.#{key}", **fields)

        def info
          {
            Title: "#{@report["title"]}, #{@report["visit_on"]}",
            Author: @report["crew"],
            Subject: stands,
            Creator: "Gorvant",
            CreationDate: Time.iso8601(@report.dig("closing", "at") || Time.now.utc.iso8601)
          }
        end

        def say_language
          root = @pdf.state.store.root.data
          root[:Lang] = PDF::Core::LiteralString.new("en-US")
          root[:ViewerPreferences] = { DisplayDocTitle: true }
        end

        # What this paper is: a closing with its number, or a draft.
        def stands
          closing = @report["closing"] or return words("draft")

          words("closing", number: closing["number"], by: closing["by"], at: @clock.says(closing["at"]))
        end

        def customer
          head
          @report["customer"].each { |part| part(part) }
          nil
        end

        MARK = [140, 54].freeze # points, at most
        private_constant :MARK

        def mark
          at = @pdf.cursor
          @pdf.image(StringIO.new(@mark), fit: MARK, position: :right)
          @pdf.move_cursor_to(at)
        end

        def head
          mark if @mark
          @blocks.line(@report["crew"], size: 11, color: Paper::SOFT)
          @blocks.line(@report["title"], size: 20, bold: true)
          @blocks.line("#{@report["visit_on"]} · #{@report["names"].join(", ")}", size: 11, color: Paper::SOFT)
          @blocks.line(stands, size: 11, color: @report["draft"] ? Paper::ALARM : Paper::SOFT, bold: @report["draft"])
          @blocks.rule
        end

        def part(part)
          @blocks.heading(part["title"], 13) unless part["title"].empty?
          @blocks.all(part["blocks"], size: 11.5)
        end

        # [[title, page]] of what was drawn.
        def sections
          shown = @report["sections"].reject { |section| @out.include?(section["id"]) && !section["always"] }
          @pdf.start_new_page
          shown.map { |section| section(section["title"], section["blocks"]) }
        end

        def section(title, blocks)
          @blocks.room(70)
          at = @pdf.page_number
          @blocks.heading(title, 14)
          @blocks.all(blocks, size: BODY)
          [title, at]
        end

        def addenda
          rows =
            @report["addenda"].map do |one|
              [{ "at" => one["taken_at"] }, one["call_title"], one["where"], one["reads"], { "own" => one["by"] }]
            end
          return [] if rows.empty?

          head = %w[when call where read by].map { |key| words("head_#{key}") }
          [
            section(
              words("addenda"),
              [
                { "kind" => "text", "says" => words("addenda_says") },
                { "kind" => "table", "head" => head, "rows" => rows }
              ]
            )
          ]
        end

        # Page numbers, and by what the paper is known again.
        def feet
          known = @report.dig("closing", "digest")
          says = ["#{@report["title"]} · #{stands}", known && "SHA-256 #{known[0, 16]}…"].compact.join(" · ")
          @pdf.repeat(:all, dynamic: true) { @pdf.canvas { @blocks.foot(says, @pdf.page_number, @pdf.page_count) } }
        end
      end
    end
  end
end
