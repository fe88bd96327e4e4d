import { createI18n } from 'vue-i18n'
import shared from '@/words/en/shared.json'

type Said = Record<string, Record<string, string>>

/**
 * What the pages say, by the component that says it; a folder a language, so that a second one is one more folder. In
 * it a file an area: what every page needs comes with the first, the rest with the pages of its area.
 */
export const words = createI18n<false>({ legacy: false, locale: 'en', messages: { en: { ...shared } } })

/** Words for a script; those of an area once its page has brought them. */
export const say = (key: string, named: Record<string, unknown> = {}, count?: number): string =>
  count === undefined ? words.global.t(key, named) : words.global.t(key, named, count)

const AREAS = import.meta.glob<Said>('./en/*.json', { import: 'default' })

/** Fetches the words of an area, once. */
export async function bringWords(area: string): Promise<void> {
  const said = await AREAS[`./en/${area}.json`]?.()
  if (said) words.global.mergeLocaleMessage('en', said)
}
