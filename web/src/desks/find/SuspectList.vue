<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Find, Suspect } from '@/shared/api/client'
import { percent, width } from '@/desks/find/useFind'

const { t } = useI18n()
/** What could be so, likeliest first, with what carries each and what speaks against it. */
const props = defineProps<{ answer: Find; visit: string; open: string | null }>()
const emit = defineEmits<{ open: [id: string | null] }>()

const PAGES: Record<string, { path: string; title: string }> = {
  set_up: { path: 'thermostat', title: t('SuspectList.thermostat') },
  landed: { path: 'wiring', title: t('SuspectList.wiring') },
  lifted: { path: 'wiring', title: t('SuspectList.wiring') },
  swapped: { path: 'wiring', title: t('SuspectList.wiring') },
  found: { path: 'wiring', title: t('SuspectList.wiring') },
  rig: { path: 'fitted', title: t('SuspectList.fitted') },
  hidden: { path: 'defrost', title: t('SuspectList.defrost') },
}
const page = (one: Suspect) => PAGES[one.kind]
const trace = (one: Suspect) => ({
  path: `/visits/${props.visit}/trace`,
  query: { call: props.answer.call, ...(one.faults.length ? { faults: JSON.stringify(one.faults) } : {}) },
})
const soonest = computed(() => props.answer.about?.[0] ?? null)
const toggle = (one: Suspect) => emit('open', props.open === one.id ? null : one.id)
</script>

<template>
  <section class="suspects" :aria-label="$t('SuspectList.whatCouldBeSo')">
    <h2>
      {{ $t('SuspectList.whatCouldBeSo') }}
      <small class="mono">{{
        $t('SuspectList.kindsToldApartByTests', {
          classes: answer.looked_at.classes,
          tests: answer.looked_at.tests,
        })
      }}</small>
    </h2>
    <ol data-testid="suspects">
      <li v-for="one in answer.suspects" :key="one.id" :class="{ design: one.as_designed }">
        <el-button
          text
          class="row"
          :aria-expanded="open === one.id"
          :data-testid="`suspect-${one.id}`"
          @click="toggle(one)"
        >
          <span class="weight mono">{{ percent(one.belief) }}</span>
          <span class="track" aria-hidden="true"><span :style="{ width: width(one.belief) }" /></span>
          <span class="title"
            >{{ one.title }}
            <small>{{ one.sort }}{{ one.proved ? $t('SuspectList.lookedAtItself') : '' }}</small></span
          >
        </el-button>
        <div v-if="open === one.id" class="more">
          <p v-if="one.alike_count">
            {{
              $t('SuspectList.readsTheSameInEvery', {
                alike: one.alike.join('; '),
                alike_count:
                  one.alike_count > one.alike.length
                    ? $t('SuspectList.andMore', { alike: one.alike_count - one.alike.length })
                    : '',
              })
            }}
          </p>
          <p v-if="one.shows">{{ $t('SuspectList.shows', { shows: one.shows }) }}</p>
          <p v-if="one.proof">{{ $t('SuspectList.proof', { proof: one.proof }) }}</p>
          <p v-if="one.licensed" class="caution">{{ $t('SuspectList.forALicensedHand') }}</p>
          <p v-for="line in one.carried_by" :key="`f${line}`" class="for">= {{ line }}</p>
          <p v-for="line in one.against" :key="`a${line}`" class="against">≠ {{ line }}</p>
          <p v-if="!one.carried_by.length && !one.against.length" class="quiet">
            {{ $t('SuspectList.noReadingSpeaksOfIt') }}
          </p>
          <p v-if="soonest" class="soonest">
            {{ $t('SuspectList.soonestProvedOrCleared') }} <b>{{ soonest.says }}</b>
            <span class="mono cost">{{ $t('SuspectList.min', { minutes: soonest.minutes }) }}</span>
            <template v-if="soonest.expects">{{
              $t('SuspectList.itWouldGive', { title: soonest.expects.title })
            }}</template>
          </p>
          <p class="ways">
            <RouterLink class="key" :to="trace(one)" data-testid="what-if-it-is">{{
              $t('SuspectList.traceWithItSupposed')
            }}</RouterLink>
            <RouterLink v-if="page(one)" class="key" :to="`/visits/${visit}/${page(one)!.path}`">{{
              page(one)!.title
            }}</RouterLink>
          </p>
        </div>
      </li>
    </ol>
    <p v-if="answer.rest.classes > 0" class="quiet">
      {{ $t('SuspectList.onOthers', { percent: percent(answer.rest.belief), classes: answer.rest.classes }) }}
    </p>
    <template v-if="answer.unlikely.length">
      <h3>{{ $t('SuspectList.ruledUnlikely') }}</h3>
      <p v-for="one in answer.unlikely" :key="one.title" class="gone">
        <s>{{ one.title }}</s> {{ one.says }}
      </p>
    </template>
    <template v-if="answer.assumed.length">
      <h3>{{ $t('SuspectList.takenAsNotedReadBy') }}</h3>
      <p class="quiet">{{ answer.assumed.join('; ') }}.</p>
    </template>
  </section>
</template>

<style scoped>
.suspects {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}

h2 {
  font-size: 18px;
}

h2 small {
  color: var(--ink-soft);
  font-size: 13px;
  font-weight: 450;
}

h3 {
  padding-top: 8px;
  font-size: 15px;
}

ol {
  display: grid;
  padding: 0;
  list-style: none;
}

ol > li {
  border-bottom: 1px solid var(--rule);
}

.row {
  display: block;
  width: 100%;
  height: auto;
  min-height: var(--target);
  margin: 0;
  padding: 5px 0;
  color: var(--ink);
  text-align: left;
  white-space: normal;
}

.row :deep(> span) {
  display: grid;
  grid-template-columns: 62px 84px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  width: 100%;
}

.weight {
  font-weight: 700;
  text-align: right;
}

.track {
  height: 10px;
  border: 1px solid var(--rule-strong);
}

.track span {
  display: block;
  height: 100%;
  background: var(--live);
  transition: width 0.15s;
}

.design .track span {
  background: var(--agrees);
}

.title {
  overflow-wrap: anywhere;
  line-height: 1.3;
}

.title small {
  color: var(--ink-soft);
}

.more {
  display: grid;
  gap: 5px;
  padding: 2px 0 10px 12px;
  border-left: 4px solid var(--rule-strong);
  overflow-wrap: anywhere;
}

.for {
  color: var(--agrees);
}

.against {
  color: var(--alarm);
}

.cost {
  margin-left: 8px;
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.gone,
.quiet {
  color: var(--ink-soft);
  overflow-wrap: anywhere;
}

@media (prefers-reduced-motion: reduce) {
  .track span {
    transition: none;
  }
}
</style>
