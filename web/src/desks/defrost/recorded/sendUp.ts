import { recordedApi } from '@/desks/defrost/recorded/api'
import type { Problem } from '@/shared/model/outcome'

/** Bytes of a file in each part, before it is packed: a part that cannot be packed is still under the server's limit. */
export const PART_BYTES = 1_000_000

export const partsOf = (size: number) => Math.max(1, Math.ceil(size / PART_BYTES))

const packed = (part: Blob) => new Response(part.stream().pipeThrough(new CompressionStream('gzip'))).blob()

/** Sends what has not arrived yet of these files; the share that has is told. Parts of each file, or what is wrong. */
export async function sendUp(
  log: string,
  files: File[],
  told: (share: number) => void,
): Promise<number[] | Problem> {
  const there = await recordedApi.parts(log)
  if (there.state === 'failed') return there.problem
  const arrived = new Map(
    there.state === 'ready' ? there.value.files.map((one) => [one.file, new Set(one.numbers)]) : [],
  )
  const counts = files.map((file) => partsOf(file.size))
  const all = counts.reduce((sum, count) => sum + count, 0)
  let sent = 0
  for (const [index, file] of files.entries()) {
    for (let number = 1; number <= (counts[index] ?? 0); number++) {
      told(sent++ / all)
      if (arrived.get(index + 1)?.has(number)) continue
      const part = await packed(file.slice((number - 1) * PART_BYTES, number * PART_BYTES))
      const answer = await recordedApi.sendPart(log, index + 1, number, part)
      if (answer.state === 'failed') return answer.problem
    }
  }
  told(1)
  return counts
}
