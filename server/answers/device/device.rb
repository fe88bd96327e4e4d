# frozen_string_literal: true

require "time"

require_relative "surroundings"
require_relative "../../ids"
require_relative "../../warm"
require_relative "../../visit_records"
require_relative "../../presenters/presenters"
require_relative "../../presenters/trace_presenter"
require_relative "../../presenters/timeline_presenter"
require_relative "../../desks/wiring/presenter"
require_relative "../../desks/defrost/presenter"
require_relative "../../desks/close_out/presenter"
require_relative "../../desks/find/finders"
require_relative "../answers"
require_relative "../along"
require_relative "../circuit"
require_relative "../desks"
require_relative "../reading_row"
require_relative "../text"

module Gorvant
  module Server
    # A visit as it lies on a device: what its pages show, with what waits there, and what came along beside it.
    class Device
      MOST_KEPT = 120
      # Questions by method and what stands behind the visit's address.
      QUESTIONS = {
        "POST trace" => :trace,
        "POST expected" => :expected,
        "POST measurement" => :measurement,
        "POST drawing" => :drawing,
        "POST legend" => :legend,
        "POST timeline" => :timeline,
        "POST why" => :why,
        "POST way" => :way,
        "GET faults" => :faults,
        "POST wiring" => :wiring,
        "POST settings" => :settings,
        "POST staging" => :staging,
        "POST defrost/outlook" => :outlook,
        "POST defrost/schools" => :schools,
        "POST defrost/forced_test" => :forced_test,
        "POST defrost/coil_switch" => :coil_switch,
        "POST find" => :find,
        "POST road-map" => :road_map
      }.freeze
      # Numbers that are counts; every other number of a question is a measure.
      COUNTS = %i[width].freeze

      # What the visit's desks hold, as a row of visits has them.
      Desks =
        Struct.new(:given, :carried, :marks) do
          def kept = given.transform_values { |desk| desk.fetch("content") }.reject { |_id, content| content.empty? }
          def as_found(found = Gorvant::Desks.as_found(kept)) = carried.empty? ? found : Carried.under(found, carried)
          def versions = given.transform_values { |desk| desk.fetch("version") }

          def all =
            given
              .select { |_id, desk| desk.fetch("version").positive? }
              .transform_values do |desk|
                { content: desk["content"], by: desk["by"], updated_at: desk["at"] && Time.iso8601(desk["at"]) }
              end
        end

      # Answers that were worked out here; `get` knows the signatures that came along.
      class Memory
        def initialize = @answers = {}

        def signatures=(signatures)
          @name = signatures && signatures["name"]
          @pieces = signatures && JSON.generate(signatures["pieces"])
        end

        # As text, as a database would have it.
        def get(key) = key == @name ? @pieces : nil

        def recall(kind, *parts)
          key = JSON.generate([kind, *parts])
          @answers.fetch(key) do
            @answers.shift if @answers.size >= MOST_KEPT
            @answers[key] = yield
          end
        end
      end

      # Readings of the visit in hand as rows.
      class Reads
        attr_accessor :rows

        def of_standing(_visit_id)
          later = rows.map { |row| row[:supersedes_id] }
          standing = rows.reject { |row| row[:retracted_at] || later.include?(row[:id]) }
          standing.sort_by { |row| [row[:taken_at], row[:id]] }
        end

        def standing_in(visit_id, call) =
          of_standing(visit_id).select { |row| row[:function] == "volts_ac" && row[:condition]["call"] == call }
      end

      def initialize
        @memory = Memory.new
        @reads = Reads.new
        @answers = Answers.new(@memory, @reads)
      end

      # Takes a visit in hand. given: JSON text { visit, readings, photos, along }, as the server says them; what waits
      # on the device is in it already.
      def hold(given)
        visit, readings, @photos, along = JSON.parse(given).values_at("visit", "readings", "photos", "along")
        @whose = along["whose"]
        @memory.signatures = along["signatures"]
        @row = about(visit, along).merge(desks: Desks.new(visit.fetch("desks"), along["carried"].to_h))
        @reads.rows = readings.map { |reading| reading_row(@row, reading) }
        @row.merge!(tallies)
      end

      # A question of the visit in hand. asked: JSON text { method, under, body, units }. The answer as the server
      # would give it, as text; nil for what a device does not answer; { "problem": … } for what the core refuses.
      def answer(asked)
        given = JSON.parse(asked)
        units = Measures.chosen(given["units"])
        content = content("#{given["method"]} #{given["under"]}", input(given["body"] || {}), units)
        content && Answers::Text.of(content, units)
      rescue Gorvant::Error => e
        JSON.generate("problem" => e.message)
      end

      private

      attr_reader :row

      def content(question, input, units)
        case question
        when "GET "
          row[:desks].marks = VisitRecords.marks(row, Warm.rig(row), row[:desks].kept).first
          Present.visit(row)
        when "GET readings"
          { readings: @answers.readings(row, @reads.rows) }
        when "GET close-out"
          Present.close_out(@answers.record(row))
        when "GET closing-mark" # of a closing that waits: how the server will mark it
          { mark: Gorvant::Desks::CloseOut.mark(@answers.record(row)) }
        when "POST saying"
          @answers.saying(row, input, units)
        when "POST report" # a closing's own report is as the server froze it
          input[:number] ? nil : report
        when "POST defrost/thermistor"
          tables = ThermistorTable.all + row[:sensor_tables]
          @answers.thermistor(input, tables.find { |table| table.id == input[:table_id] }, tables)
        else
          name = QUESTIONS[question]
          name && @answers.public_send(name, row, input)
        end
      end

      def report
        find = @answers.record(row).close_out["cause"] == "find" ? @answers.find(row, {}) : nil
        photos = @photos.map { |photo| photo.transform_keys(&:to_sym) }
        whole = @answers.draft(row, find, photos: photos, by: @whose["by"], crew: @whose["crew"])
        whole.merge("marked" => @whose["marked"])
      end

      # Keys as a request's `parse` gives them: those of the question itself are symbols, what lies in lists is not.
      def input(body)
        body.to_h do |key, value|
          value = input(value) if value.is_a?(Hash)
          value = value.to_f if value.is_a?(Integer) && !COUNTS.include?(key.to_sym)
          [key.to_sym, value]
        end
      end

      def about(visit, along)
        names = %w[id version unit_id rig_id rig_revision_id complaint symptoms outdoor_degrees_f set_point_degrees_f]
        names += %w[room_degrees_f safety closed_number demo]
        visit
          .slice(*names)
          .transform_keys(&:to_sym)
          .merge(
            site_name: visit["site"],
            unit_name: visit["unit"],
            revision_number: visit["rig_revision"],
            visit_on: Date.iso8601(visit["visit_on"]),
            digest: along["digest"],
            content: along["rig"],
            carried: along["carried"].to_h,
            closed_as: visit["closed_number"] && along["closed_as"],
            sensor_tables: along["sensor_tables"].map { |table| ThermistorTable.new(**table.transform_keys(&:to_sym)) }
          )
      end

      # A reading that waits here was held against nothing yet.
      def reading_row(row, reading)
        plain = reading.transform_keys(&:to_sym)
        plain[:taken_at] = Time.iso8601(plain[:taken_at])
        plain[:received_at] = Time.iso8601(plain[:received_at])
        plain[:retracted_at] &&= Time.iso8601(plain[:retracted_at])
        return plain unless plain[:rig_revision_id].empty?

        whole = plain.compact.transform_values { |value| value.is_a?(Integer) ? value.to_f : value }
        plain.merge(@answers.reading(row, whole))
      end

      def tallies
        standing = @reads.of_standing(nil)
        agreeing = standing.select { |one| one[:verdict] == "agrees" }
        calls = agreeing.select { |one| Observation.of_call.include?(one[:function]) }
        {
          agreeing: agreeing.size,
          disagreeing: standing.count { |one| one[:verdict] == "disagrees" },
          agreeing_calls: calls.map { |one| one[:condition]["call"] }.uniq.sort.join(",")
        }
      end
    end
  end
end
