# frozen_string_literal: true

module Gorvant
  module Server
    # Finds visits by what was written of them. Each word has to be there, or the crew's own word that is nearest to
    # what was typed.
    class Search < Repository
      MOST = 40
      MOST_WORDS = 8
      # visits: rows, newest first, each with :hit; read_as: { typed => [words] }; unknown: words that nothing is near.
      Found = Struct.new(:visits, :read_as, :unknown)

      # asked: { text:, symptom:, cause:, by:, closed:, since:, until: }, all may be left out.
      def find_by(asked)
        read = words_of(asked[:text]).to_h { |word| [word, readings_of(word)] }
        unknown = read.select { |_word, words| words.empty? }.keys
        return Found.new([], {}, unknown) if unknown.any?

        rows = hits(query(read), asked)
        visits = Visits.new(db, viewer).those(rows.map { |row| row[:visit_id] })
        hit = rows.to_h { |row| [row[:visit_id], row[:hit]] }
        corrected = read.reject { |word, words| words == [word] }
        Found.new(visits.map { |row| row.merge(hit: hit[row[:id]]) }, corrected, [])
      end

      # Who a visit can have been begun by: [{ id:, name: }].
      def people = db[:users].where(crew_id: viewer.crew_id).order(:name).select(:id, :name).all

      private

      def words_of(text) = text.to_s.downcase.unicode_normalize(:nfc).scan(/[\p{L}\p{N}]+/).uniq.first(MOST_WORDS)

      # The word itself where some of the crew's begin so, else the nearest.
      def readings_of(word)
        mine = db[:search_words].where(crew_id: viewer.crew_id)
        return [word] if word.size < 3 || mine.where(Sequel.like(:word, "#{word}%")).any?

        Misspelling.of(word, near(mine, word))
      end

      # Words that a slip or two could have made this one of: about as long, no numbers for a word without, and one of
      # the first letters among its own first ones.
      def near(mine, word)
        near = mine.where(Sequel.function(:length, :word) => ((word.size - 2)..(word.size + 2)))
        near = near.exclude(Sequel.lit("word ~ '[0-9]'")) unless word.match?(/\d/)
        first = word[0, word.size < Misspelling::LONG ? 2 : 3]
        near.where(Sequel.lit("left(word, ?) ~ ('[' || ? || ']')", first.size, first)).select_map(:word)
      end

      # Words are letters and digits alone, so nothing of them is taken for an operator.
      def query(read)
        parts = read.values.map { |words| "(#{words.map { |word| "'#{word}':*" }.join(" | ")})" }
        parts.empty? ? nil : Sequel.function(:to_tsquery, "simple", parts.join(" & "))
      end

      def hits(query, asked)
        db.from(
          Sequel.function(
            :search_visits,
            query || Sequel.cast(nil, :tsquery),
            Sequel.cast(asked[:symptom], :text),
            Sequel.cast(asked[:by], :uuid),
            Sequel.cast(asked[:closed], :boolean),
            Sequel.cast(asked[:since], :date),
            Sequel.cast(asked[:until], :date),
            Sequel.cast(asked[:cause], :text),
            MOST
          )
        ).all
      end
    end
  end
end
