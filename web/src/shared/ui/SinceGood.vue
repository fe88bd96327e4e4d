<script setup lang="ts">
import { computed } from 'vue'
import { api, type KnownGood } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { day } from '@/shared/model/units'

/** What has moved at this unit since it was known to be well; nothing where no visit is held up as that. */
const props = defineProps<{ visit: string }>()
const { value } = useQuestion<string, KnownGood>('known_good', () => props.visit, api.knownGood, {
  follows: false,
})
const ORDER = { moved: 0, same: 1, unlike: 2 }
const SIGN = { moved: '≠', same: '=', unlike: '·' }
const lines = computed(() => [...(value.value?.lines ?? [])].sort((a, b) => ORDER[a.came] - ORDER[b.came]))
const span = (pair: number[], unit: string) =>
  `${pair.map((one) => one.toFixed(1)).join('–')} ${unit === '%' ? '% of R–C' : unit}`
</script>

<template>
  <section
    v-if="value?.on && value.visit_id !== visit"
    :aria-label="$t('SinceGood.sinceItWasKnownGood')"
    data-testid="since-good"
  >
    <h2>{{ $t('SinceGood.sinceItWasKnownGood2', { day: day(value.on) }) }}</h2>
    <p v-if="!lines.length" class="quiet">{{ $t('SinceGood.nothingThatWasReadToday') }}</p>
    <ul>
      <li v-for="line in lines" :key="line.says + line.unit" :class="line.came">
        <b aria-hidden="true">{{ SIGN[line.came] }}</b>
        <span>{{ line.says }}</span>
        <span v-if="line.came === 'unlike'" class="quiet">{{
          $t('SinceGood.notHeldAgainstIt', { why: line.why })
        }}</span>
        <span v-else class="mono">{{
          $t('SinceGood.thenNow', { span: span(line.then, line.unit), span2: span(line.now, line.unit) })
        }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 8px;
  padding: 4px 0;
}

.moved b {
  color: var(--alarm);
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 620px) {
  li {
    grid-template-columns: 20px minmax(0, 1fr);
  }

  li > :last-child {
    grid-column: 2;
  }
}
</style>
