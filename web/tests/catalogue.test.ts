import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { words } from '@/words'

const files = import.meta.glob<Record<string, Record<string, string>>>('../src/words/en/*.json', {
  import: 'default',
  eager: true,
})
const en: Record<string, Record<string, string>> = Object.assign({}, ...Object.values(files))
const SRC = join(__dirname, '../src')
const pages = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter(
  (one) => /\.(vue|ts)$/.test(one) && !/schema\.d\.ts$|^words/.test(one),
)
/** Where the call that these are the arguments of ends. */
function closing(rest: string): number {
  let depth = 1
  for (let i = 0; i < rest.length; i++) {
    if (rest[i] === '(') depth++
    if (rest[i] === ')' && --depth === 0) return i
  }
  return rest.length
}
/** Each call of $t, of t in a component's script or of say in another, and each keypath, with the names that are handed to it. */
const uses = pages.flatMap((file) => {
  const text = readFileSync(join(SRC, file), 'utf8')
  return [...text.matchAll(/(?:\$t\(\s*|\bt\(\s*|\bsay\(\s*(?=')|keypath=")['"]?([A-Za-z]+\.\w+)/g)].map(
    (found) => {
      const rest = text.slice(found.index + found[0].length)
      const slots = found[0].startsWith('keypath') // by a template a name, which the component makes of its own list
      return { file, key: found[1]!, handed: slots ? text : rest.slice(0, closing(rest)) }
    },
  )
})
/** Whether a file is the one by whose name its words stand. */
const isOf = (file: string, part: string) => /(\w+)\.(?:vue|ts)$/.exec(file)?.[1] === part
const all = Object.entries(en).flatMap(([part, own]) => Object.keys(own).map((key) => `${part}.${key}`))

describe('the words of the pages', () => {
  it('are there wherever a page asks for one, and none is kept that no page says', () => {
    expect(uses.length).toBeGreaterThan(1000)
    expect(uses.filter(({ key }) => !all.includes(key))).toEqual([])
    const said = new Set(uses.map(({ key }) => key))
    expect(all.filter((key) => !said.has(key))).toEqual([])
  })

  it('are said by the component that they stand under', () => {
    const elsewhere = uses.filter(({ file, key }) => !isOf(file, key.split('.')[0]!))
    expect(elsewhere).toEqual([])
  })

  it('come with the page: no area says what stands in the file of another', () => {
    const home = (file: string) => /^(?:desks|pages)\/(\w+)\//.exec(file)?.[1] ?? 'shared'
    const kept = Object.entries(files).flatMap(([path, said]) =>
      Object.keys(said).map((part) => [part, /(\w+)\.json$/.exec(path)?.[1]] as const),
    )
    const areas = new Set(kept.map(([, area]) => area))
    const of = (file: string) => (areas.has(home(file)) ? home(file) : 'shared')
    for (const [part, area] of kept)
      expect([part, of(pages.find((file) => isOf(file, part))!)]).toEqual([part, area])
    const across = pages.flatMap((file) =>
      [...readFileSync(join(SRC, file), 'utf8').matchAll(/from '@\/((?:desks|pages)\/[\w/]+\.vue)'/g)]
        .filter(([, other]) => of(other!) !== 'shared' && of(other!) !== of(file))
        .map(([, other]) => [file, other]),
    )
    expect(across).toEqual([])
  })

  it('are handed every name that they put in', () => {
    const asked = (key: string) => {
      const [part, own] = key.split('.') as [string, string]
      const text = en[part]?.[own] ?? ''
      return [...text.matchAll(/\{(\w+)\}/g)].map((found) => found[1]!)
    }
    const lacking = uses.flatMap(({ file, key, handed }) =>
      asked(key)
        .filter((name) => !new RegExp(`\\b${name}\\b`).test(handed))
        .map((name) => [file, key, name]),
    )
    expect(lacking).toEqual([])
  })

  it('put in what they are given, as it is', () => {
    const { t } = words.global
    expect(t('CloseOutPage.stillMissing', { missing: 3 })).toBe('3 still missing')
    expect(t('RungEditor.put', { suggestion: '<b>|{@' })).toBe('Put <b>|{@')
    expect(t('RungsPage.signs', { load: '(CC)', feed: '|' })).toContain('(CC) is a load. | is another feed')
  })
})
