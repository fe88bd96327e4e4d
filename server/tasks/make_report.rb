# frozen_string_literal: true

module Gorvant
  module Server
    # A report of many rows as PDF: drawn by the worker, kept for whoever asks for the same again.
    class MakeReport
      KIND = "report"
      # Rows beyond which nobody is kept waiting for it.
      MOST_ROWS = 250

      class << self
        # Whether what goes in of a report has so many rows. input: as below.
        def long?(input)
          sections = input["paper"]["sections"].reject { |one| input["leave_out"].include?(one["id"]) }
          sections.sum { |one| one["blocks"].sum { |block| block["rows"].to_a.size } } > MOST_ROWS
        end

        # What it follows from.
        def key(input) = Computed.key(KIND, input)

        # Bytes of what was kept.
        def bytes(kept) = JSON.parse(kept).fetch("pdf").unpack1("m0")

        # input: { "paper", "leave_out", "zone", "crew_id", "mark" => base 64 or nil }; photos: gives the JPEG of an id.
        def draw(input, photos)
          Reports::Pdf.new(
            input.fetch("paper"),
            leave_out: input.fetch("leave_out"),
            zone: input["zone"],
            photo: photos,
            mark: input["mark"] && input["mark"].unpack1("m0")
          ).render
        end
      end

      def initialize(input, db)
        @input = input
        nobody = { user_id: nil, name: "", crew_name: "", role: "worker" }
        @photos = Photos.new(db, Viewer.new(crew_id: input.fetch("crew_id"), **nobody))
      end

      def resumes? = false
      def total = 1
      def step(_index) = [self.class.draw(@input, ->(id) { @photos.bytes(id) })].pack("m0")
      def answer(pieces) = { "pdf" => pieces.first }
    end
  end
end
