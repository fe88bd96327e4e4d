# frozen_string_literal: true

module Gorvant
  module Server
    # What is typed or pasted from outside, rungs and temperatures: read, drawn, compared; nothing is kept.
    class NotationsResource < Resource
      MOST_DRAWN = 6 # pairs of rungs that differ

      post "/api/notations" do
        input = NotationRequest.parse(body_json)
        rig = Notation.parse(input[:text], name: input[:name])
        call = Outputs.calls(rig).include?(input[:call]) ? input[:call] : "off"
        trace = Trace.new(rig, Condition.new(call: call))
        scene = Views.scene(input.fetch(:view, "loops"), trace, { panel: input[:panel] })
        json(
          rig: Formats::RigJson.dump(rig),
          call: call,
          calls: Outputs.calls(rig),
          scene: ScenePresenter.new(scene).to_h,
          findings: trace.findings.map { |finding| FindingPresenter.new(finding).to_h },
          assumed: rig.assumed.map { |key| Catalogue.facts.fetch(key).fetch("title") },
          panel: on_panel(rig),
          comparison: comparison(rig, input[:against])
        )
      end

      # Temperatures as CSV to moves of a script.
      post "/api/courses" do
        json(moves: Formats::CourseCsv.parse(CourseRequest.parse(body_json)[:text]))
      end

      get "/api/rigs/:id/notation" do
        rig = Warm.rig(rigs.find(params[:id]))
        json(name: rig.name, text: Notation.print(rig))
      end

      private

      # What the panel prints, fitted or not.
      def on_panel(rig)
        Options.on_panels.map do |fact, codes|
          title = "#{codes.join(", ")}: #{Catalogue.facts.fetch(fact).fetch("title").downcase}"
          { fact: fact, title: title, fitted: codes.all? { |code| Options.fitted?(rig, code) } }
        end
      end

      # { with, rungs }, nil where nothing was asked.
      def comparison(rig, against)
        return nil unless against

        other = against == "archetype" ? Composer.archetype_of(rig) : Warm.rig(rigs.find(against))
        rungs = RungComparison.of(rig, other, names: ["panel", against == "archetype" ? "archetype" : other.name])
        differing = rungs.reject(&:same).first(MOST_DRAWN).map(&:code)
        {
          with: other.name,
          rungs:
            rungs.map do |rung|
              rung.to_h.merge(
                differing.include?(rung.code) ? pair(rung, rig, other) : { before_scene: nil, after_scene: nil }
              )
            end
        }
      end

      # One rung of each, drawn at rest.
      def pair(rung, *both)
        scenes =
          both.map do |rig|
            trace = Trace.new(rig, Condition.new(call: "off"))
            if trace.netlist.branch?(rung.code)
              ScenePresenter.new(Ladder.scene(trace, at_rest: true, only: [rung.code])).to_h
            else
              nil
            end
          end
        { before_scene: scenes[0], after_scene: scenes[1] }
      end
    end
  end
end
