# frozen_string_literal: true

# The first page in a browser on this machine, nothing kept before: what scripts and styles weigh on the way, and how
# long until the day sheet can be used. Starts a server with the demo data on a database of its own (DATABASE_URL).
require "rspec"
require_relative "../spec/support/browser"

BUDGETS = { script_bytes: 250_000, usable_ms: 1_500 }.freeze
RUNS = 7
PHONE = { "offline" => false, "latency" => 40, "downloadThroughput" => 1_250_000, "uploadThroughput" => 600_000 }.freeze

page = Capybara.current_session
ServerBench.fresh
page.visit "/"
bench = Object.new.extend(BrowserBench)
bench.define_singleton_method(:page) { page }
bench.browse_as(ServerBench.viewer.user_id)
devtools = ->(command, **given) { page.driver.browser.execute_cdp(command, **given) }

# [milliseconds until the day sheet is there, bytes of scripts, bytes of styles and type]
load = -> do
  devtools.call("Network.clearBrowserCache")
  origin = page.server_url
  devtools.call("Storage.clearDataForOrigin", origin: origin, storageTypes: "service_workers,cache_storage")
  page.visit "about:blank"
  page.visit "/"
  page.find("main h1", wait: 20)
  page.evaluate_script(<<~JS)
    (() => {
      const of = (kind) => performance.getEntriesByType('resource').filter(kind).reduce((sum, one) => sum + one.encodedBodySize, 0)
      const script = (one) => /\\.js(\\?|$)/.test(one.name)
      return [performance.now(), of(script), of((one) => !script(one) && /\\/assets\\//.test(one.name))]
    })()
  JS
end

told = ->(name, runs) do
  times = runs.map(&:first).sort
  puts format("%s: usable after %.0f ms (median of %d; worst %.0f)", name, times[RUNS / 2], RUNS, times.last)
  times[RUNS / 2]
end

devtools.call("Network.enable")
load.call
here = Array.new(RUNS) { load.call }
puts format("scripts %d B on the way (budget %d), styles and type %d B", here[0][1], BUDGETS[:script_bytes], here[0][2])
median = told.call("this machine", here)
puts format("budget %d ms: %s", BUDGETS[:usable_ms], median <= BUDGETS[:usable_ms] ? "kept" : "missed")
devtools.call("Network.emulateNetworkConditions", **PHONE)
told.call("10 Mbit/s, 40 ms away", Array.new(RUNS) { load.call })
page.driver.quit
