# frozen_string_literal: true

module Gorvant
  # What a visit hands on to the next one at the same unit: landings, jumpers and settings as it left them. The next
  # visit takes them as told, until somebody looks. Beside it a visit carries "causes": what the closed visits before it
  # came to (Diagnosis::Past).
  module Carried
    class << self
      # Of a visit that ends: { "on" => ISO date, "landings", "jumpers", "settings" } as AsFound has them. What was
      # ticked as put right is carried so.
      def of(record, on:)
        found = record.as_found
        right = put_right(record)
        {
          "on" => on,
          "landings" => found.landings.map { |landing| landing(landing, right).merge("told" => landing.told || on) },
          "jumpers" => found.jumpers.map { |jumper| jumper(jumper, right).merge("told" => jumper.told || on) },
          "settings" => settings(record)
        }.reject { |_key, part| part.empty? }
      end

      # Under what today's records say: parsed JSON for AsFound.parse, which tells what is wrong with it.
      def under(today, carried)
        return today unless records?(today)

        landings, jumpers = %w[landings jumpers].map { |key| today.fetch(key, []) }
        ends = landings.map { |one| one.values_at("cable", "conductor", "place") }
        pairs = jumpers.map { |one| pair(one) }
        settings = today.fetch("settings", {})
        told = carried.fetch("settings", {}).except(*settings.keys)
        {
          "landings" =>
            landings +
              carried
                .fetch("landings", [])
                .reject { |one| ends.include?(one.values_at("cable", "conductor", "place")) },
          "jumpers" => jumpers + carried.fetch("jumpers", []).reject { |one| pairs.include?(pair(one)) },
          "settings" => told.merge(settings),
          "told_settings" => told.keys
        }
      end

      private

      def records?(today)
        lists = [today.fetch("landings", []), today.fetch("jumpers", [])]
        lists.all? { |list| list.is_a?(Array) && list.all?(Hash) } && today.fetch("settings", {}).is_a?(Hash) &&
          today.fetch("jumpers", []).all? { |one| one.values_at("from", "to").all?(String) }
      end

      def pair(jumper) = [jumper["place"], jumper.values_at("from", "to").sort]

      # Differences whose line was ticked.
      def put_right(record)
        ticked = record.close_out.fetch("put_back", {}).select { |_id, said| said == "back" }
        Differences
          .new(Target.rig(record.rig), record.as_found, record.rig)
          .all
          .select { |one| ticked.key?(Desks::Wiring.line_id(one)) }
      end

      def landing(landing, right)
        mended = right.find { |one| one.ends.include?(landing) }
        to = mended ? mended.should[landing] : landing.lands_on
        lies = mended && to.nil? ? "capped" : landing.lies
        {
          "cable" => landing.cable,
          "conductor" => landing.conductor,
          "place" => landing.place,
          "lands_on" => to,
          "lies" => to ? "landed" : lies,
          "color" => landing.color
        }.compact.merge("lands_on" => to)
      end

      def jumper(jumper, right)
        mended = right.any? { |one| one.jumper == jumper }
        {
          "place" => jumper.place,
          "from" => jumper.from,
          "to" => jumper.to,
          "found" => mended ? !jumper.found : jumper.found
        }
      end

      # As read; wrong ones that were put right as they have to be. What was put back from a test stands as nobody wrote
      # down, and is not carried.
      def settings(record)
        fitting = Target.fitting(record.rig)
        lines = record.close_out.fetch("put_back", {})
        record
          .as_found
          .settings
          .filter_map do |key, value|
            next key, value unless lines["setting.#{key}"] == "back"

            right = fitting[key]
            [key, right.include?(value) ? value : right.first] if right
          end
          .to_h
      end
    end
  end
end
