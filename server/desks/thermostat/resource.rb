# frozen_string_literal: true

module Gorvant
  module Server
    # The settings as read at the wall, how the thermostat stages with them, and the crew's own numbers for them.
    class ThermostatResource < Resource
      post "/api/visits/:id/settings" do
        json answers.settings(visits.alone(params[:id]), SettingsRequest.parse(body_json || {}))
      end

      post "/api/visits/:id/staging" do
        json answers.staging(visits.alone(params[:id]), StagingRequest.parse(body_json))
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
    end
  end
end
