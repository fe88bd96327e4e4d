# frozen_string_literal: true

module Gorvant
  # Two changes of one rig put together, where both began from the same: what only one of them touched is as that one
  # has it. Where both touched the same and said otherwise, mine stands in it, and it is named.
  class Merge
    PRINTED = %i[terminal_names maker_codes factory_colors].freeze

    # both: [Comparison::Difference] of what was touched twice, theirs before and mine after. rig: nil where the two do
    # not go together.
    attr_reader :rig, :both

    def initialize(base, theirs, mine)
      @base = base
      @theirs = theirs
      @mine = mine
      @touched = []
      @rig = put_together
      different = Comparison.of(theirs, mine)
      @both =
        @touched.filter_map { |field, values| different.find { |one| one.field == field } || untitled(field, values) }
    end

    # Whether nothing was touched by both, and both go together.
    def clean? = !rig.nil? && both.empty?

    private

    # What a comparison of rigs has no words for; of the rest, what it shows no difference in is none.
    def untitled(field, values)
      return nil unless field == "/note" || PRINTED.any? { |name| field.start_with?("/#{name}/") }

      Comparison::Difference.new(
        field: field,
        title: field.delete_prefix("/").tr("_/", "  ").capitalize,
        before: values[0],
        after: values[1]
      )
    end

    def put_together
      maps = PRINTED.to_h { |name| [name, map("/#{name}/") { |rig| rig.public_send(name) }] }
      Rig.build(
        name: one("/name", &:name),
        archetype: one("/archetype", &:archetype),
        note: one("/note", &:note),
        facts: map("/facts/", &:facts),
        cables: cables,
        jumpers: map("/jumpers/") { |rig| rig.jumpers.to_h { |jumper| [jumper.id, jumper] } }.values,
        **maps
      )
    rescue BadRigFile
      nil
    end

    # Of three values the one that somebody changed.
    def choose(field, base, theirs, mine)
      return theirs if mine == base || mine == theirs
      return mine if theirs == base

      @touched << [field, [theirs, mine]]
      mine
    end

    def one(field) = choose(field, yield(@base), yield(@theirs), yield(@mine))

    # Key by key; nil stands for what is not there. Theirs keep their order, mine come after.
    def map(pointer, &block)
      base, theirs, mine = [@base, @theirs, @mine].map(&block)
      (theirs.keys | mine.keys)
        .to_h { |key| [key, choose("#{pointer}#{key}", base[key], theirs[key], mine[key])] }
        .compact
    end

    def cables
      ids = (@theirs.cables + @mine.cables).map(&:id).uniq
      ids.filter_map do |id|
        sheath =
          choose("/cables/#{id}", *[@base, @theirs, @mine].map { |rig| cable(rig, id)&.with(conductors: [].freeze) }) or
          next
        sheath.with(
          conductors:
            map("/cables/#{id}.") do |rig|
              (cable(rig, id)&.conductors || []).to_h { |conductor| [conductor.id, conductor] }
            end.values
        )
      end
    end

    def cable(rig, id) = rig.cables.find { |cable| cable.id == id }
  end
end
