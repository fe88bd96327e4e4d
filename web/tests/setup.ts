import { config } from '@vue/test-utils'
import { words } from '@/words'

// All areas at once: a component is mounted without the page that would bring its words.
const said = import.meta.glob<Record<string, Record<string, string>>>('../src/words/en/*.json', {
  import: 'default',
  eager: true,
})
for (const one of Object.values(said)) words.global.mergeLocaleMessage('en', one)
config.global.plugins = [words]
