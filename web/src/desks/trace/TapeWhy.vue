<script setup lang="ts">
import type { Why } from '@/shared/api/client'
import { clock } from '@/desks/trace/tape'

defineProps<{ why: Why; title: string; at: number }>()
const emit = defineEmits<{ go: [seconds: number] }>()
</script>

<template>
  <section class="why-so" data-testid="why-so" aria-live="polite">
    <h3>{{ $t('TapeWhy.whyAt', { clock: clock(at) }) }}</h3>
    <ol>
      <li v-for="(link, i) in why.links" :key="i" :class="{ deciding: link.deciding }">
        <button v-if="link.seconds !== null" class="mono time" @click="emit('go', link.seconds)">
          {{ clock(link.seconds) }}
        </button>
        <span>
          {{ link.says
          }}<template v-if="link.rule_says"
            >: <b>{{ link.rule_says }}</b></template
          ><template v-if="link.left_seconds !== null && link.left_at_least_seconds !== null">{{
            $t('TapeWhy.betweenAndLeftForNobody', {
              clock: clock(link.left_at_least_seconds),
              clock2: clock(link.left_seconds),
            })
          }}</template
          ><template v-else-if="link.left_seconds !== null">{{
            $t('TapeWhy.left', { clock: clock(link.left_seconds) })
          }}</template
          ><template v-if="link.deciding && link.as_designed">{{ $t('TapeWhy.asDesigned') }}</template>
        </span>
      </li>
    </ol>
    <p v-if="why.next_on">
      {{ $t('TapeWhy.onAgainAt') }}
      <button class="mono time" @click="emit('go', why.next_on.seconds)">
        {{ clock(why.next_on.seconds) }}</button>{{
        $t('TapeWhy.in', { clock: clock(why.next_on.in_seconds) })
      }}
    </p>
    <p v-else-if="why.links.length && !why.links[0]?.says.endsWith(' on')" class="quiet">
      {{ $t('TapeWhy.itDoesNotComeOn') }}
    </p>
  </section>
</template>

<style scoped>
.why-so {
  padding: 8px 12px;
  border-left: 6px solid var(--focus);
  background: var(--note-soft);
}

.deciding {
  font-weight: 650;
}

h3 {
  font-size: 16px;
}

ol {
  margin: 6px 0;
  padding-left: 22px;
}

li {
  margin-bottom: 4px;
}

.time {
  min-height: 28px;
  min-width: 44px;
  padding: 0 4px;
  border: 0;
  background: transparent;
  text-decoration: underline;
  cursor: pointer;
}

.quiet {
  color: var(--ink-soft);
}
</style>
