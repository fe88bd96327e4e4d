# frozen_string_literal: true

module Gorvant
  module Desks
    module Trace
      # What was done and not undone, of the visit's own records of acts: [PutBack].
      class Acts
        # { what was acted on => [choices that leave something, choices that undo it] }
        UNDONE = {
          "jumper" => [%w[jumper_on], %w[jumper_off]],
          "wire" => [%w[lifted both_ends_read off_at_wall], %w[landed]],
          "power" => [%w[cut proved_dead], %w[restored]],
          "defrost" => [%w[forced], %w[ended_by_hand]]
        }.freeze
        LETTERS = %r{[A-Z][A-Z0-9]{0,3}(?:/B)?(?:_out)?}
        TERMINALS = %r{(?<![[:alnum:]])(#{LETTERS})\s*(?:-|–|—|to|and|/)\s*(#{LETTERS})(?![[:alnum:]])}

        def initialize(rig, reads)
          @rig = rig
          @acts = reads.select { |read| read.observation.function == "did" }
        end

        def lines
          @acts
            .select { |read| UNDONE.key?(read.observation.place) }
            .group_by { |read| [read.observation.place, read.note.to_s.strip.downcase] }
            .filter_map { |(place, _note), reads| line(place, reads) }
        end

        private

        def line(place, reads)
          leaves, undoes = UNDONE.fetch(place)
          return nil unless reads.any? { |read| leaves.include?(read.observation.choice) }

          last = reads.reverse.find { |read| (leaves + undoes).include?(read.observation.choice) }
          named = reads.first.note.to_s.strip
          PutBack.new(
            id: PutBack.id("did", place, named),
            says: words(place, what: named.empty? ? words("unnamed") : named),
            by_record: undoes.include?(last.observation.choice) ? words("by_record", at: last.at.to_s[11, 5]) : nil,
            never_left: place == "jumper" && never_left?(named),
            cautions: place == "jumper" ? ["safeties"] : []
          )
        end

        def words(key, **fields) = Catalogue.words("put_back.#{key}", **fields)

        # A jumper of which nobody can tell what it bridges counts as one over a safety.
        def never_left?(named)
          ends = named.match(TERMINALS)&.captures or return true
          pairs = pairs(ends)
          pairs.empty? || pairs.any? { |from, to| SafetyBridge.codes(@rig, from, to).any? }
        end

        # Where both of the named terminals are, place by place: [[node, node]].
        def pairs(ends)
          @rig
            .layout
            .fetch("places")
            .keys
            .filter_map do |place|
              strip = AsFound.terminals(@rig, place)
              both =
                ends.map { |named| strip.find { |terminal| [terminal, Naming.letter(@rig, terminal)].include?(named) } }
              both.map { |terminal| AsFound.node(@rig, place, terminal) } if both.all?
            end
            .select(&:all?)
        end
      end
    end
  end
end
