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
  const out = ConsoleStdout.lineBuffered((line) => console.info(line))
  const wasi = new WASI([], [], [new OpenFile(new File([])), out, out, folder], { debug: false })
  const made = await RubyVM.instantiateModule({ module, wasip1: wasi })
  made.vm.eval('load "/load.rb"')
  vm = made.vm
  const memory = made.instance.exports.memory as WebAssembly.Memory
  tell({ kind: 'ready', ms: performance.now() - from, bytes: memory.buffer.byteLength })
}

function answer({ id, text }: Ask) {
  const from = performance.now()
  question.data = new TextEncoder().encode(text)
  const given = vm?.eval('DEVICE.answer(File.read("/question.json", encoding: "UTF-8")).to_s').toString()
  tell({ kind: 'answer', id, text: given || null, ms: performance.now() - from })
}

addEventListener('message', ({ data }: MessageEvent<Start | Ask>) => {
  const broke = (problem: unknown) => tell({ kind: 'broke', says: String(problem).slice(0, 400) })
  if (data.kind === 'start') return void start(data).catch(broke)
  try {
    answer(data)
  } catch (problem) {
    console.error(problem)
    tell({ kind: 'answer', id: data.id, text: null, ms: 0 })
  }
})
