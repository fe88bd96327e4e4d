import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const css = readFileSync(new URL('../src/tokens.css', import.meta.url), 'utf8')

/** The tokens of a theme; dark overrides light. */
function tokens(theme: 'light' | 'dark'): Record<string, string> {
  const blocks = [...css.matchAll(/:root(\[data-theme='dark'\])?\s*\{([^}]*)\}/g)]
  const found: Record<string, string> = {}
  for (const [, dark, body] of blocks) {
    if (dark && theme === 'light') continue
    for (const [, name, value] of body!.matchAll(/--([a-z-]+):\s*(#[0-9a-f]{6})/g)) found[name!] = value!
  }
  return found
}

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
  const linear = (one: number) => (one <= 0.03928 ? one / 12.92 : ((one + 0.055) / 1.055) ** 2.4)
  return 0.2126 * linear(r!) + 0.7152 * linear(g!) + 0.0722 * linear(b!)
}

function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x)
  return (light! + 0.05) / (dark! + 0.05)
}

const GROUNDS = ['paper', 'panel', 'band-wall', 'band-air-handler', 'band-outdoor']

describe.each(['light', 'dark'] as const)('what is drawn in %s', (theme) => {
  const token = tokens(theme)
  const pairs = (names: string[], least: number) =>
    names.flatMap((name) =>
      GROUNDS.map((ground) => [name, ground, contrast(token[name]!, token[ground]!), least] as const),
    )
  it.each([
    ...pairs(['ink', 'ink-soft', 'alarm', 'agrees'], 4.5),
    ...pairs(['live', 'home', 'dead', 'between', 'wire-outline', 'probe-red'], 3),
  ])('%s stands out on %s: %f', (_name, _ground, got, least) => expect(got).toBeGreaterThanOrEqual(least))
  it('words on what is live can be read', () =>
    expect(contrast(token['on-live']!, token.live!)).toBeGreaterThanOrEqual(4.5))
})
