# frozen_string_literal: true

module Gorvant
  module Kinds
    # A supply: an electromotive force behind its own resistance, driving `to` above `from`. props: volts_ac, ohms.
    class Source < Kind
      register :source
      def source? = true
      def siemens(branch) = 1.0 / branch[:ohms]
      def volts_ac(branch, _solution) = branch[:volts_ac]
    end

    # A transformer's secondary: its volts follow the volts between two nodes of another section.
    # props: volts_ac (open circuit, at rated primary), ohms, primary ([node, node]), primary_volts_ac, rated_va.
    class Secondary < Kind
      register :secondary
      def source? = true
      def siemens(branch) = 1.0 / branch[:ohms]
      def volts_ac(branch, volts) =
        branch[:volts_ac] * ((volts[branch[:primary][1]] - volts[branch[:primary][0]]).abs / branch[:primary_volts_ac])
    end
  end
end
