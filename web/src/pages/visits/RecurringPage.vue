<script setup lang="ts">
import { api, type Recurring } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** What comes again over the crew's units, as far as counts bear it. */
const { value, problem } = useQuestion<boolean, Recurring>('recurring', true, api.recurring, {
  follows: false,
})
const share = (one: number) => `${Math.round(one * 100)}%`
</script>

<template>
  <main class="recurs">
    <h1>{{ $t('RecurringPage.whatRecurs') }}</h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="value">
      <p class="quiet" data-testid="recurring">
        {{ $t('RecurringPage.ofClosedVisitsToUnits', { visits: value.visits, units: value.units }) }}
        <template v-if="!value.enough">{{
          $t('RecurringPage.nothingIsSaidOfFewer', { least: value.least })
        }}</template>
      </p>
      <ul v-if="value.often.length" class="often">
        <li v-for="one in value.often" :key="one.what">
          <span class="what">{{ one.what }}</span>
          <span class="track" aria-hidden="true"
            ><i :style="{ left: share(one.low), width: `calc(${share(one.high)} - ${share(one.low)})` }"></i
            ><b :style="{ left: share(one.count / one.of) }"></b
          ></span>
          <span class="mono">{{
            $t('RecurringPage.ofTo', {
              count: one.count,
              of: one.of,
              share: share(one.low),
              share2: share(one.high),
            })
          }}</span>
          <span class="quiet">{{ $t('RecurringPage.units', { units: one.units }) }}</span>
        </li>
      </ul>
      <template v-if="value.enough">
        <h2>{{ $t('RecurringPage.amongSomeUnitsMoreOr') }}</h2>
        <p v-if="!value.apart.length" class="quiet">{{ $t('RecurringPage.nothingStandsApartFromChance') }}</p>
        <ul class="apart">
          <li v-for="one in value.apart" :key="one.what + one.trait + one.value">
            <b>{{ one.what }}</b>
            {{ $t('RecurringPage.whereIs', { trait: one.trait.toLowerCase(), one: one.value }) }}
            <span class="mono">{{
              $t('RecurringPage.ofTo', {
                count: one.count,
                of: one.of,
                share: share(one.low),
                share2: share(one.high),
              })
            }}</span>{{
              $t('RecurringPage.elsewhereTo', {
                share: share(one.others_low),
                share2: share(one.others_high),
              })
            }}
          </li>
        </ul>
        <p class="quiet">
          {{ $t('RecurringPage.intervalsHoldInNineCases') }}
        </p>
      </template>
    </template>
  </main>
</template>

<style scoped>
.recurs {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  max-width: 1000px;
  padding: 14px 16px 40px;
}

h1 {
  font-size: 26px;
}

h2 {
  border-bottom: 2px solid var(--ink);
  font-size: 19px;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

.often li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr) 210px 80px;
  gap: 4px 14px;
  align-items: center;
  min-height: 36px;
  border-bottom: 1px solid var(--rule);
}

.track {
  position: relative;
  height: 14px;
  border-bottom: 1px solid var(--rule-strong);
}

.track i {
  position: absolute;
  top: 2px;
  height: 10px;
  border: 1px solid var(--rule-strong);
  background: var(--note-soft);
}

.track b {
  position: absolute;
  top: 0;
  width: 3px;
  height: 14px;
  background: var(--ink);
}

.apart li {
  padding: 4px 0;
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 620px) {
  .often li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
