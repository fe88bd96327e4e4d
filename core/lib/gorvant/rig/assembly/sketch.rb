# frozen_string_literal: true

module Gorvant
  module Assembly
    # The pen of an assembly: adds branches with the catalogue's numbers, and names the points.
    class Sketch
      attr_reader :rig, :net

      def initialize(net, rig)
        @net = net
        @rig = rig
        rig
          .layout
          .fetch("places")
          .each_key do |place|
            rig
              .terminals(place)
              .each { |terminal| net.name_node("#{place}.#{terminal}", Naming.terminal(rig, place, terminal)) }
          end
      end

      def name(node, words) = net.name_node(node, words)

      # Names what no place has named: "outdoor fan motor, tab R", "panel L1".
      def name_tabs
        net
          .branches
          .flat_map { |branch| [branch.from, branch.to] }
          .uniq
          .each do |node|
            place, code, tab = node.split(".")
            name(node, tab ? Naming.tab(code, tab) : "#{place} #{code}") unless net.labels.key?(node)
          end
      end

      # Copper inside one box. how: :trace, :factory_wire, :line_wire or :joint.
      def join(from, to, how: :trace, id: "#{from}-#{to}", label: nil, component: nil)
        net.wire(
          id,
          from: from,
          to: to,
          component: component,
          ohms: Catalogue.profile.fetch("#{how}_ohms"),
          label: label
        )
      end

      # A switch at its rest position; needs: the electronics that must be fed for it to close.
      def switch(id, from:, to:, component: id, closed: nil, needs: nil, label: component)
        closed = Catalogue.components.dig(id, "rest") == "closed" if closed.nil?
        net.switch(
          id,
          from: from,
          to: to,
          component: component,
          ohms: contact_ohms,
          closed: closed,
          needs: needs,
          label: label
        )
      end

      def contact(id, from:, to:, relay:, rest: :open, label: id)
        net.contact(
          id,
          from: from,
          to: to,
          component: relay,
          ohms: contact_ohms,
          relay: relay,
          rest: rest,
          label: label
        )
      end

      # A coil with the catalogue's numbers for its code.
      def coil(code, from:, to:)
        about = Catalogue.components.fetch(code)
        net.coil(
          code,
          from: from,
          to: to,
          component: code,
          label: code,
          **about.slice("winding_ohms", "sealed_va", "pull_in_volts_ac", "drop_out_volts_ac").transform_keys(&:to_sym)
        )
      end

      # A load with the catalogue's numbers: by VA at 24 V, by amps at line volts, or by plain ohms. volts: other line
      # volts.
      def load(code, from:, to:, volts: nil)
        about = Catalogue.components.fetch(code)
        share = volts ? volts / about.fetch("volts_ac") : 1.0
        ohms =
          about["ohms"] || (about["sealed_va"] && ((nominal_volts**2) / about["sealed_va"])) ||
            (about.fetch("volts_ac") * share / about.fetch("running_amps"))
        net.load(
          code,
          from: from,
          to: to,
          component: code,
          ohms: ohms,
          label: Naming.component(code),
          works_above_volts_ac: about.fetch("works_above_volts_ac") * share
        )
      end

      # A string of switches from a node on (nil: from the first one's own tab), each with its two tabs, wired by the
      # factory. Returns the last tab.
      def string(codes, place, feed)
        codes.inject(feed) do |node, code|
          tabs = [1, 2].map { |tab| "#{place}.#{code}.#{tab}" }
          name(tabs[0], "before #{code}")
          name(tabs[1], "after #{code}")
          join(node, tabs[0], how: :factory_wire) if node
          switch(code, from: tabs[0], to: tabs[1])
          tabs[1]
        end
      end

      # Of some options those that are fitted and hang between two points, and that is all there is to them: gives each
      # code with its feed and its way home.
      def across(codes)
        (Options.across & codes).each { |code| yield code, *Options.points(code) if Options.fitted?(rig, code) }
      end

      # A coil or a plain load with its two tabs between a feed and a way home, wired by the factory.
      def wired_coil(code, place, feed, home)
        tabs = [1, 2].map { |tab| "#{place}.#{code}.#{tab}" }
        name(tabs[0], "#{code}, feed side")
        name(tabs[1], "#{code}, home side")
        join(feed, tabs[0], how: :factory_wire)
        public_send(Catalogue.components.dig(code, "kind"), code, from: tabs[0], to: tabs[1])
        join(tabs[1], home, how: :factory_wire)
      end

      private

      def contact_ohms = Catalogue.profile.fetch("contact_ohms")
      def nominal_volts = Catalogue.profile.fetch("supply").fetch("nominal_volts_ac")
    end
  end
end
