# frozen_string_literal: true

module Gorvant
  module Server
    # The wiring and the settings as found: what differs, what that does, and what to do about it.
    class FoundResource < Resource
      # As kept with the visit, or as it is being entered.
      post "/api/visits/:id/wiring" do
        row = visits.alone(params[:id])
        input = WiringRequest.parse(body_json || {})
        found = input[:as_found] ? deep_strings(input[:as_found]) : row[:as_found].to_hash
        json(
          computed.recall("wiring", row[:digest], found) do
            rig = Warm.rig(row)
            JSON.generate(WiringPresenter.new(WiringCheck.new(rig, AsFound.parse(found, rig))).to_h)
          end
        )
      end

      get "/api/visits/:id/landings" do
        row = visits.alone(params[:id])
        rig = Warm.rig(row)
        attachment "landings.csv"
        content_type "text/csv"
        Formats::LandingsCsv.dump(rig, AsFound.parse(row[:as_found].to_hash, rig))
      end

      # A table as a record to look at; nothing is kept.
      post "/api/visits/:id/landings" do
        row = visits.alone(params[:id])
        input = LandingsRequest.parse(body_json)
        read =
          Formats::LandingsCsv.read(input[:text], Warm.rig(row), settings: row[:as_found].to_hash.fetch("settings", {}))
        json(rows: read.rows, refused: read.refused, as_found: read.as_found&.to_json_hash)
      end

      post "/api/visits/:id/settings" do
        row = visits.alone(params[:id])
        input = SettingsRequest.parse(body_json || {})
        found = row[:as_found].to_hash
        found = found.merge("settings" => deep_strings(input[:settings])) if input[:settings]
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
              { "settings" => deep_strings(input[:settings]) }
            else
              row[:as_found].to_hash.slice("settings")
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
