# frozen_string_literal: true

module Gorvant
  module Server
    # The settings as read at the wall, how the thermostat stages with them, and the crew's own numbers for them.
    class ThermostatResource < Resource
      post "/api/visits/:id/settings" do
        row = visits.alone(params[:id])
        input = SettingsRequest.parse(body_json || {})
        found = row[:desks].as_found
        if input[:settings]
          today = Desks.as_found(row[:desks].kept).merge("settings" => deep_strings(input[:settings]))
          found = row[:desks].as_found(today)
        end
        json(
          computed.recall("settings", row[:digest], found, row[:set_point_degrees_f], row[:outdoor_degrees_f]) do
            JSON.generate(checked(row, found))
          end
        )
      end

      post "/api/visits/:id/staging" do
        row = visits.alone(params[:id])
        input = StagingRequest.parse(body_json)
        rig = Warm.rig(row)
        found =
          (
            if input.key?(:settings)
              row[:desks].as_found({ "settings" => deep_strings(input[:settings]) })
            else
              row[:desks].as_found
            end
          )
        script = Script.parse(deep_strings(input[:script]), input[:duration_seconds])
        fitted = rig.set(AsFound.parse(found, rig).settings)
        json(Warm.dear { Present.staging(StagingRun.new(fitted, script), input[:at_seconds]) })
      end

      get "/api/setting_profiles" do
        json(profiles: profiles.all.map { |row| Present.setting_profile(row) })
      end

      post "/api/setting_profiles" do
        input = SettingProfileRequest.parse(body_json)
        row, first_time = profiles.create(input[:id], body_json, input[:name].strip, deep_strings(input[:labels]))
        created Present.setting_profile(row), first_time
      end

      post "/api/setting_profiles/:id/deletion" do
        profiles.delete(params[:id])
        json(deleted: params[:id])
      end

      private

      def checked(row, found)
        rig = Warm.rig(row)
        as_found = AsFound.parse(found, rig)
        check = SettingsCheck.new(rig, as_found, set_point_degrees_f: row[:set_point_degrees_f])
        lines = BenchList.new(check.rig, outdoor_degrees_f: row[:outdoor_degrees_f]).lines
        {
          standing: check.standing.to_h,
          items: check.items.map { |item| Present.setting(item) },
          findings: check.findings.map { |finding| FindingPresenter.new(finding).to_h },
          bench:
            lines.map { |line| line.to_h.merge(cautions: line.cautions.map { |key| Catalogue.cautions.fetch(key) }) },
          terminals: (rig.terminals("wall") - %w[R C]).map { |terminal| Naming.letter(rig, terminal) }
        }
      end
    end
  end
end
