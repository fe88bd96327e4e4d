<script setup lang="ts">
import type { Visit, Wiring } from '@/shared/api/client'
import { cableLetter } from '@/desks/wiring/landings'

/** All that lands, as a sheet of paper: shown when the page is printed. */
const props = defineProps<{ wiring: Wiring; visit: Visit | null }>()

const strip = (place: string) => props.wiring.strips.find((one) => one.place === place)
const placeTitle = (place: string) => strip(place)?.title ?? place
const letter = (place: string, terminal: string) =>
  strip(place)?.terminals.find((one) => one.id === terminal)?.letter ?? terminal
</script>

<template>
  <div>
    <table class="list" data-testid="list">
      <caption>
        {{
          $t('LandingList.landingsAsFound')
        }}
        <template v-if="visit">: {{ visit.site }}, {{ visit.unit }}, {{ visit.visit_on }}</template>
      </caption>
      <thead>
        <tr>
          <th>{{ $t('LandingList.place') }}</th>
          <th>{{ $t('LandingList.cable') }}</th>
          <th>{{ $t('LandingList.conductor') }}</th>
          <th>{{ $t('LandingList.foundOn') }}</th>
          <th>{{ $t('LandingList.drawnOn') }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="end in wiring.ends" :key="`${end.cable}.${end.conductor}@${end.place}`">
          <td>{{ placeTitle(end.place) }}</td>
          <td>{{ cableLetter(end.cable) }}</td>
          <td>{{ end.color }}</td>
          <td>{{ end.lands_on ? letter(end.place, end.lands_on) : end.lies }}</td>
          <td>{{ end.drawn ? letter(end.place, end.drawn) : '–' }}</td>
          <td>
            {{
              end.lands_on !== end.drawn || end.lies === 'bare'
                ? '≠'
                : end.seen
                  ? '='
                  : $t('LandingList.notLookedAt')
            }}
          </td>
        </tr>
      </tbody>
    </table>
    <ol v-if="wiring.correction.moves.length" class="list">
      <li v-for="move in wiring.correction.moves" :key="move">{{ move }}</li>
    </ol>
  </div>
</template>

<style scoped>
.list {
  display: none;
}

@media print {
  .list {
    display: table;
    width: 100%;
    border-collapse: collapse;
    color: var(--ink);
  }

  ol.list {
    display: block;
    padding-left: 22px;
    font-weight: 650;
  }

  caption {
    padding-bottom: 8px;
    font-size: 18px;
    font-weight: 700;
    text-align: left;
  }

  th,
  td {
    padding: 3px 8px;
    border-bottom: 1px solid var(--rule);
    text-align: left;
  }
}
</style>
