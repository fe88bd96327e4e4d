# frozen_string_literal: true

module Gorvant
  module Formats
    # A netlist as a SPICE deck that ngspice runs unchanged: written branch by branch from what is fitted and how
    # contacts stand, without the solver's matrix, so that the two can check each other.
    module Spice
      SHUNT_OHMS = 1e12

      class << self
        # netlist; closed: { switching branch id => bool }; open: ids of other broken branches. couplings: with cable
        # capacitance. meter: [node, node, ohms] put across two points. print: nodes to print, all by default.
        def dump(netlist, closed:, open: [], couplings: false, meter: nil, title: "gorvant circuit")
          names = names(netlist)
          lines = [
            "* #{title.gsub(/[^ -~]/, "?")[0, 100]}",
            *names.reject { |_node, name| name == "0" }.map { |node, name| "* #{name} = #{node}" }
          ]
          netlist.branches.each_with_index { |branch, i| lines.concat(card(branch, i, names, closed, open, couplings)) }
          lines << "Rmeter #{names[meter[0]]} #{names[meter[1]]} #{number(meter[2])}" if meter
          names
            .values
            .uniq
            .reject { |name| name == "0" }
            .each { |name| lines << "Rshunt_#{name} #{name} 0 #{number(SHUNT_OHMS)}" }
          [*lines, *control(names), ".end", ""].join("\n")
        end

        # { node => name in the deck }; every reference is ground.
        def names(netlist)
          netlist.nodes.each_with_index.to_h { |node, i| [node, netlist.references.include?(node) ? "0" : "n#{i}"] }
        end

        # { node => [real, imaginary] } from what the deck printed.
        def parse(netlist, text)
          values =
            text
              .scan(/^(n\d+) = \(?\s*([-+.\deE]+),\s*([-+.\deE]+)/)
              .to_h { |name, real, imaginary| [name, [Float(real), Float(imaginary)]] }
          names(netlist).transform_values { |name| name == "0" ? [0.0, 0.0] : values.fetch(name) }
        end

        private

        def card(branch, index, names, closed, open, couplings)
          from, to = names.values_at(branch.from, branch.to)
          return [] if from == to
          return [] if branch.switching? ? !closed[branch.id] : open.include?(branch.id)

          case branch.kind
          when :source
            source("V#{index} x#{index} #{from} DC 0 AC #{phasor(branch[:volts_ac])}", index, to, branch)
          when :secondary
            source(
              "E#{index} x#{index} #{from} #{
                branch[:primary].map { |node| names[node] }.join(" ")
              } #{number(branch[:volts_ac] / branch[:primary_volts_ac])}",
              index,
              to,
              branch
            )
          when :coupling
            couplings ? ["C#{index} #{from} #{to} #{number(branch[:farads])}"] : []
          when :capacitor
            ["C#{index} #{from} #{to} #{number(branch[:farads])}"]
          when :coil
            ["R#{index} #{from} #{to} #{number(sealed_ohms(branch))}"]
          else
            ["R#{index} #{from} #{to} #{number(branch[:ohms])}"]
          end
        end

        # A coil as what it draws when it works. { volts², VA } to ohms.
        def sealed_ohms(branch) = (Catalogue.profile.dig("supply", "nominal_volts_ac")**2) / branch[:sealed_va]

        def source(line, index, to, branch) = [line, "R#{index} x#{index} #{to} #{number(branch[:ohms])}"]

        def control(names)
          frequency = number(Catalogue.profile.dig("supply", "frequency_hz"))
          shown = names.values.uniq.reject { |name| name == "0" }
          [
            ".ac lin 1 #{frequency} #{frequency}",
            ".control",
            "set numdgt=14",
            "run",
            *shown.map { |name| "let #{name} = v(#{name})[0]" },
            *shown.map { |name| "print #{name}" },
            "quit",
            ".endc"
          ]
        end

        # Volts, and degrees where a leg stands out of phase.
        def phasor(volts) =
          volts.is_a?(Complex) ? "#{number(volts.abs)} #{number(volts.arg * 180 / Math::PI)}" : number(volts)
        def number(value) = format("%.15g", value)
      end
    end
  end
end
