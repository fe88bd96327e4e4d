import { ConsoleStdout, File, OpenFile, PreopenDirectory, WASI } from '@bjorn3/browser_wasi_shim'
import { RubyVM } from '@ruby/wasm-wasi'
import loader from '../../../../server/answers/device/load.rb?raw'

/** The core in a Ruby of its own, away from the page: it answers one question after another. */
export interface Start {
  kind: 'start'
  /** Both gzipped. */
  ruby: ArrayBuffer
  pack: ArrayBuffer
}
/** Takes a visit in hand; the questions that follow are about it. */
export interface Hold {
  kind: 'hold'
  text: string
}
export interface Ask {
  kind: 'ask'
  id: number
  text: string
}
export type Told =
  | { kind: 'ready'; ms: number; bytes: number }
  | { kind: 'broke'; says: string }
  | { kind: 'answer'; id: number; text: string | null; ms: number }

const tell = (told: Told) => postMessage(told)
const unpacked = (packed: ArrayBuffer) =>
  new Response(new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip')))

const question = new File(new Uint8Array())
let vm: RubyVM | null = null

async function start({ ruby, pack }: Start) {
  const from = performance.now()
  const module = await WebAssembly.compile(await unpacked(ruby).arrayBuffer())
  const packed = new Uint8Array(await unpacked(pack).arrayBuffer())
  const text = (line: string) => new File(new TextEncoder().encode(line))
  const folder = new PreopenDirectory(
    '/',
    new Map([
      ['pack.json', new File(packed)],
      ['load.rb', text(loader)],
      ['question.json', question],
    ]),
  )
  const out = ConsoleStdout.lineBuffered(() => undefined)
  const wasi = new WASI([], [], [new OpenFile(new File([])), out, out, folder], { debug: false })
  const made = await RubyVM.instantiateModule({ module, wasip1: wasi })
  made.vm.eval('load "/load.rb"')
  vm = made.vm
  const memory = made.instance.exports.memory as WebAssembly.Memory
  tell({ kind: 'ready', ms: performance.now() - from, bytes: memory.buffer.byteLength })
}

/** Hands a text to the engine; what it says, null for nothing. */
function hand(text: string, to: 'hold' | 'answer'): string | null {
  question.data = new TextEncoder().encode(text)
  return vm?.eval(`DEVICE.${to}(File.read("/question.json", encoding: "UTF-8")).to_s`).toString() || null
}

/** Whether the visit in hand was taken: of one that was not, nothing is answered. */
let held = false

function answer({ id, text }: Ask) {
  const from = performance.now()
  const given = held ? hand(text, 'answer') : null
  tell({ kind: 'answer', id, text: given, ms: performance.now() - from })
}

addEventListener('message', ({ data }: MessageEvent<Start | Hold | Ask>) => {
  const broke = (problem: unknown) => tell({ kind: 'broke', says: String(problem).slice(0, 400) })
  if (data.kind === 'start') return void start(data).catch(broke)
  try {
    if (data.kind === 'ask') return answer(data)
    held = false
    hand(data.text, 'hold')
    held = true
  } catch {
    if (data.kind === 'ask') tell({ kind: 'answer', id: data.id, text: null, ms: 0 })
  }
})
