# frozen_string_literal: true

# The engine that is taken along, in a browser on this machine: what it weighs, how long it takes to come up, what a
# trace takes, how much memory it holds. Starts a server with the demo data on a database of its own (DATABASE_URL).
require "rspec"
require_relative "../spec/support/browser"

BUDGETS = { start: 8_000, trace: 150, trace_slow: 600 }.freeze
SLOWER = 4 # a phone of the middle, as a factor: the engine is one thread that only computes

page = Capybara.current_session
ServerBench.fresh
page.visit "/"
bench = Object.new.extend(BrowserBench)
bench.define_singleton_method(:page) { page }
bench.browse_as(ServerBench.viewer.user_id)
page.visit "/"
Capybara.default_max_wait_time = 180 # so long a script may run
db = ServerBench.db
worker = File.basename(Dir[File.join(Gorvant::Server::App::WEB, "assets", "engine.worker-*.js")].first)
told = page.evaluate_async_script(<<~JS, worker, db[:visits].get(:id))
  const [name, visit, done] = arguments
  const get = (file) => fetch('/engine/' + file)
  const json = (path) => fetch(path).then((one) => one.json())
  const run = async () => {
    const names = await json('/engine/engine.json')
    const begun = performance.now()
    const [ruby, pack] = [await (await get(names.ruby)).arrayBuffer(), await (await get(names.pack)).arrayBuffer()]
    const fetched = performance.now() - begun
    const worker = new Worker('/assets/' + name, { type: 'module' })
    const say = (what) => new Promise((heard) => { worker.onmessage = ({ data }) => heard(data); worker.postMessage(what) })
    const ready = await say({ kind: 'start', ruby, pack })
    const at = '/api/visits/' + visit
    const held = { visit: await json(at), readings: (await json(at + '/readings')).readings, along: await json(at + '/along') }
    worker.postMessage({ kind: 'hold', text: JSON.stringify(held) })
    const { faults } = await json(at + '/faults')
    const traces = []
    for (const { fault } of faults.slice(0, 80)) { // none of them was asked before
      const body = { condition: { call: 'heat', faults: [fault] } }
      const text = JSON.stringify({ method: 'POST', under: 'trace', body, degrees: 'F' })
      traces.push((await say({ kind: 'ask', id: 1, text })).ms)
    }
    return { bytes: names.bytes, fetched, start: ready.ms, memory: ready.bytes, traces }
  }
  run().then(done, (problem) => done({ problem: String(problem) }))
JS
abort told["problem"] if told["problem"]
traces = told["traces"].sort
median = traces[traces.size / 2]
puts format(
       "engine: %.1f MB to fetch (%.0f ms from this machine), %.0f MB of memory",
       told["bytes"] / 1e6,
       told["fetched"],
       told["memory"] / 1e6
     )
puts format("start: %.0f ms (budget %d)", told["start"], BUDGETS[:start])
puts format(
       "a trace: median %.0f ms, p95 %.0f ms (budget %d)",
       median,
       traces[(traces.size * 0.95).to_i],
       BUDGETS[:trace]
     )
puts format("the same %d times slower: %.0f ms (budget %d)", SLOWER, median * SLOWER, BUDGETS[:trace_slow])
page.driver.quit
