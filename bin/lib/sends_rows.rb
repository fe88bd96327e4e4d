# frozen_string_literal: true

require_relative "stand_in_device"

# A made-up logger that sends its rows as their time comes, and those that came meanwhile along. Its clock goes `times`
# as fast as ours and comes to now at the end.
class SendsRows
  MOST = 500 # rows at once

  # wanted: url, token, record, seconds, times, again (share of what is sent twice), log (options of MadeUpLog).
  def initialize(log, wanted)
    @wanted = wanted
    @random = Random.new(wanted[:log].fetch(:seed, 1))
    @columns = wanted[:log].fetch(:columns, Gorvant::Formats::MadeUpLog::HEADINGS.keys)
    @every = wanted[:log].fetch(:every, 30)
    lives = (wanted[:seconds] * wanted[:times]).ceil
    began = Time.now.to_i - lives
    @rows = log.lines(lives).drop(1).each_with_index.map { |line, i| [began + (i * @every), *numbers(line)] }
  end

  def go
    sent = 0
    StandInDevice.open(@wanted[:url], @wanted[:token], @wanted[:seconds] + 5) do |device|
      while device.going? && sent < @rows.size
        due = [(device.passed * @wanted[:times] / @every).floor + 1, @rows.size, sent + MOST].min
        send_some(device, @rows[sent...due]) if due > sent
        sent = due
        sleep([@every / @wanted[:times], 0.25].max) if sent < @rows.size
      end
    end
  end

  private

  def numbers(line) = line.split(",", -1).drop(1).map { |cell| Float(cell, exception: false) }

  def send_some(device, rows)
    times = @random.rand < @wanted[:again] ? 2 : 1
    times.times { device.post("/api/devices/rows", { record_id: @wanted[:record], columns: @columns, rows: rows }) }
  end
end
