# frozen_string_literal: true

module Gorvant
  # A line in which more than one reading may be said: the first as Saying has it, the rest to be read when that is
  # kept. It is parted only where each part by itself is a reading to its last word, so that nothing is cut out of
  # another: "two hundred and forty" is one number, and "24, no, 0" is none.
  class SayingLine
    # ways: as Saying gives them; rest: what is said after that, "" for nothing.
    Said = Value.define(:ways, :rest)
    BREAK = /\s*(?:[,;]|\.(?!\d))\s*(?:and\s+|then\s+)*|\s+(?:and\s+then|and|then|next)\s+/i
    MOST_BREAKS = 6

    # remembered: as Saying takes it.
    def initialize(rig, chosen: {}, **remembered)
      @rig = rig
      @chosen = chosen
      @remembered = remembered
    end

    def read(text)
      head, *others = parted(text)
      return Said.new(ways: saying(@chosen).read(text), rest: "") if others.empty?

      Said.new(ways: ways(head, others), rest: text[head.size..].sub(/\A(?:#{BREAK})/i, ""))
    end

    private

    def saying(chosen = {}, memory = @remembered) = Saying.new(@rig, **memory, chosen: chosen)

    # The first part as it is remembered; where only a later one names the call or the place, it may be meant for both.
    def ways(head, others)
      own = named(head)
      later = others.map { |one| named(one) }
      open = %i[call at].reject { |key| own[key] || @chosen[key] }
      told = open.to_h { |key| [key, later.filter_map { |one| one[key] }.first] }.compact
      found = saying(@chosen).read(head)
      found += saying(@chosen.merge(told)).read(head) if told.any?
      found.uniq { |one| [one.given, one.call] }.first(Saying::MOST_SHOWN)
    end

    # What a part says itself of call and place.
    def named(text) = whole(text).then { |way| { call: way&.call, at: way&.at } }

    # What a part is by itself, to its last word; nil for no reading.
    def whole(text)
      ways = saying({}, @remembered.slice(:units)).read(text)
      ways.any? && ways.all? { |one| one.left.empty? } ? ways.first : nil
    end

    # [texts] of a line that is readings from end to end; the line alone where it is not.
    def parted(text)
      breaks = text.to_enum(:scan, BREAK).map { Regexp.last_match.offset(0) }
      return [text] if breaks.empty? || breaks.size > MOST_BREAKS

      parts_from(text, 0, breaks) || [text]
    end

    # Of what begins there; breaks: those behind it.
    def parts_from(text, from, breaks)
      breaks.each_with_index do |(start, stop), i|
        next unless start > from && whole(text[from...start])

        rest = parts_from(text, stop, breaks.drop(i + 1))
        return text[from...start], *rest if rest
      end
      from.positive? && whole(text[from..]) ? [text[from..]] : nil
    end
  end
end
