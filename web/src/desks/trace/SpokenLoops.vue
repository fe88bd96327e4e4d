<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Trace } from '@/shared/api/client'

const { t } = useI18n()
defineProps<{ strings: Trace['strings'] }>()

const STATES: Record<string, string> = {
  live: t('SpokenLoops.live'),
  dead: t('SpokenLoops.dead'),
  home: t('SpokenLoops.common'),
  between: t('SpokenLoops.neitherLiveNorDead'),
  floating: t('SpokenLoops.floats'),
}
function stands(bead: Trace['strings'][number]['beads'][number]): string {
  if (bead.broken) return 'open, and that breaks the loop'
  if (bead.kind === 'load') return bead.sub ?? ''
  if (bead.kind === 'device') return bead.closed ? 'closed' : 'open'
  return STATES[bead.state] ?? bead.state
}
</script>

<!-- What the drawing shows, read aloud: each loop from R to C, in order. -->
<template>
  <section class="hidden-label" :aria-label="$t('SpokenLoops.theLoopsFromRTo')" data-testid="spoken">
    <template v-for="string in strings" :key="string.load">
      <h2>
        {{ string.title }}, {{ string.on ? $t('SpokenLoops.on') : $t('SpokenLoops.off') }}. {{ string.why }}
      </h2>
      <ol>
        <li v-for="bead in string.beads" :key="bead.id">{{ bead.label }}: {{ stands(bead) }}</li>
      </ol>
    </template>
  </section>
</template>
