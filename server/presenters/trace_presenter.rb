# frozen_string_literal: true

module Gorvant
  module Server
    # A trace as JSON: loads with their reasons, findings, each loop as a string of stations; and, asked for by itself,
    # what the meter should show between any two points that a person may touch.
    class TracePresenter
      def initialize(trace) = @trace = trace

      # The drawing and what runs, for a rig that is only being put together.
      def preview
        {
          calls: Outputs.calls(@trace.rig),
          loads: loads,
          findings: findings,
          scene: ScenePresenter.new(LoopView.scene(@trace, opened: ["all"])).to_h,
          supply: supply
        }
      end

      # moments: { key of Condition::MOMENTS => Condition } that can be shown.
      def to_h(moments)
        {
          calls: Outputs.calls(@trace.rig),
          scripts: scripts,
          readable: Observation.readable_facts(@trace.rig),
          movable: Assembly::Positions.movable(@trace.rig),
          supply: supply,
          faults: @trace.fault_titles,
          changes: changes,
          condition: @trace.condition.to_json_hash,
          assumed: @trace.rig.assumed.map { |key| Catalogue.facts.fetch(key).fetch("title") },
          stands: @trace.stands.map(&:to_h),
          moments:
            moments.map do |id, condition|
              { id: id, says: Catalogue.wording.fetch("moment.#{id}"), condition: condition.to_json_hash }
            end,
          loads: loads,
          findings: findings,
          strings: strings,
          points: points
        }
      end

      # Upper triangle, row by row, of what an instrument should show between the points of the loom.
      def expected(instrument)
        nodes =
          (
            LoopView.scene(@trace, opened: ["all"]).stations.flat_map(&:nodes) +
              %w[wall air_handler outdoor].map { |place| "#{place}.C" }
          ).uniq
        says = {}
        rows =
          nodes
            .combination(2)
            .map do |first, second|
              expected, reason = @trace.reading(first, second, instrument)
              [
                expected.volts_ac&.round(2),
                expected.low_volts_ac&.round(2),
                expected.high_volts_ac&.round(2),
                Meter::CLASSES.index(expected.klass),
                says[reason.says] ||= says.size
              ]
            end
        volts, low, high, classes, words = rows.transpose
        {
          nodes: nodes,
          volts_ac: volts,
          low_volts_ac: low,
          high_volts_ac: high,
          klass: classes,
          says_index: words,
          classes: Meter::CLASSES,
          says: says.keys
        }
      end

      private

      def strings =
        LoopString.all(@trace).map { |string| string.to_h.except(:steps).merge(beads: string.beads.map(&:to_h)) }
      def loads = @trace.loads.map { |load| load.to_h.merge(volts_ac: load.volts_ac.round(2)) }
      def findings = @trace.findings.map { |finding| FindingPresenter.new(finding).to_h }
      def supply = @trace.supply.transform_values { |value| value.round(1) }

      # Runs over time that make sense for this rig.
      def scripts
        Catalogue
          .scripts
          .select { |_id, one| one.fetch("needs", {}).all? { |fact, value| @trace.rig[fact] == value } }
          .map do |id, one|
            { id: id, title: one["title"], duration_seconds: one["hours"] * 3600, script: one.slice("start", "moves") }
          end
      end

      # What differs from the same call with nothing supposed; nil when nothing is, and for an instant of a run.
      def changes
        condition = @trace.condition
        return nil if condition.contacts.any?
        return nil if condition.faults.empty? && condition.switches.empty? && condition.supplies.empty?

        changes = WhatIf.new(@trace)
        { loads: changes.loads, nodes: changes.nodes }
      end

      # Every low-voltage point and the drawn ones among the rest, with what a person calls it.
      def points
        @trace
          .netlist
          .nodes
          .select { |node| @trace.netlist.labels.key?(node) }
          .map do |node|
            { id: node, label: @trace.netlist.label(node), state: @trace.state(node), place: node.split(".").first }
          end
      end
    end

    # A drawing as JSON. The polylines stay here: the page draws paths.
    class ScenePresenter
      def initialize(scene) = @scene = scene

      def to_h
        {
          view: @scene.view,
          title: @scene.title,
          width: @scene.width,
          height: @scene.height,
          folded: @scene.folded,
          bands: @scene.bands.map(&:to_h),
          links: @scene.links.map { |link| link.to_h.except(:points) },
          stations: @scene.stations.map(&:to_h),
          labels: @scene.labels.map(&:to_h)
        }
      end
    end

    # A finding with its cautions in words.
    class FindingPresenter
      def initialize(finding) = @finding = finding

      def to_h
        @finding.to_h.except(:assumed).merge(cautions: @finding.cautions.map { |key| Catalogue.cautions.fetch(key) })
      end
    end
  end
end
