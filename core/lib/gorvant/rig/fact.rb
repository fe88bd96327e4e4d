# frozen_string_literal: true

module Gorvant
  # Where a fact comes from. source: "diagram", "measured", "assumed" or "told"; the rest may be nil.
  Provenance =
    Value.define(:source, :by, :at, :note, :photo_id, defaults: { by: nil, at: nil, note: nil, photo_id: nil })

  # One thing known of the unit in hand.
  Fact = Value.define(:value, :provenance)

  class Fact
    def assumed? = provenance.source == "assumed"
  end

  # A field cable between two places (`from`, `to`), its conductors in order.
  Cable = Value.define(:id, :from, :to, :gauge_awg, :length_feet, :conductors, :provenance)

  class Cable
    # Ohms of one conductor over the whole length. Source: docs/sources.md, copper-wire-table.
    def conductor_ohms =
      Catalogue.profile.fetch("cable").fetch("ohms_per_1000_feet").fetch(gauge_awg) * length_feet / 1000.0
  end

  # A splice on the way of a conductor, from its `from` end on; color is what it goes on in.
  Splice = Value.define(:id, :color, :note, defaults: { note: nil })

  # One conductor: what it lands on at each end (nil when a spare end is capped). provenance nil means the cable's.
  Conductor =
    Value.define(
      :id,
      :color,
      :from,
      :to,
      :spare,
      :splices,
      :provenance,
      defaults: {
        from: nil,
        to: nil,
        spare: nil,
        splices: [].freeze,
        provenance: nil
      }
    )

  # A jumper between two terminals of one place.
  Jumper = Value.define(:id, :place, :from, :to, :provenance)
end
