# frozen_string_literal: true

module Gorvant
  module Kinds
    # A load of plain resistance as it runs. props: ohms, nominal_volts_ac, works_above_volts_ac.
    class Load < Kind
      register :load
      def load? = true
      def siemens(branch) = 1.0 / branch[:ohms]
      def works_above_volts_ac(branch, _working) = branch[:works_above_volts_ac]
    end

    # A capacitor. props: farads. In the path of a start winding it is wire enough; across one it is no load.
    class Capacitor < Kind
      register :capacitor
      def siemens(branch) =
        Complex(0, 2 * Math::PI * Catalogue.profile.fetch("supply").fetch("frequency_hz") * branch[:farads])
    end

    # A relay or solenoid coil. winding_ohms is what an ohmmeter reads; sealed_va is what it draws when pulled in,
    # and decides its impedance. props: winding_ohms, sealed_va, pull_in_volts_ac, drop_out_volts_ac.
    class Coil < Kind
      register :coil
      def load? = true
      def siemens(branch) = branch[:sealed_va] / (Catalogue.profile.fetch("supply").fetch("nominal_volts_ac")**2)
      # Hysteresis: a coil that holds lets go only under its drop-out volts.
      def works_above_volts_ac(branch, working) = working ? branch[:drop_out_volts_ac] : branch[:pull_in_volts_ac]
    end
  end
end
