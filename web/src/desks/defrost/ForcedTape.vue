<script setup lang="ts">
import type { ForcedTest } from '@/shared/api/client'

/** What the rig would have done under the same hand, beside what the watch saw. */
defineProps<{ lines: ForcedTest['beside'] }>()
</script>

<template>
  <table class="tape" data-testid="tape-beside">
    <caption>
      {{
        $t('ForcedTape.theTapeInSecondsOn')
      }}
    </caption>
    <thead>
      <tr>
        <th scope="col">
          <span class="hidden-label">{{ $t('ForcedTape.mark') }}</span>
        </th>
        <td>{{ $t('ForcedTape.expected') }}</td>
        <td>{{ $t('ForcedTape.seen') }}</td>
        <td></td>
      </tr>
    </thead>
    <tbody>
      <tr v-for="line in lines" :key="line.mark" :class="{ off: line.agrees === false }">
        <th scope="row">{{ line.title }}</th>
        <td class="mono">{{ line.expected_seconds?.toFixed(1) ?? '–' }}</td>
        <td class="mono">{{ line.seen_seconds?.toFixed(1) ?? '–' }}</td>
        <td>{{ line.agrees === null ? '' : line.agrees ? '=' : '≠' }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.tape {
  width: 100%;
  border-collapse: collapse;
}

.tape caption {
  padding-bottom: 4px;
  font-weight: 700;
  text-align: left;
}

.tape th {
  font-weight: 450;
  text-align: left;
}

.tape td {
  padding: 2px 8px;
  text-align: right;
}

.tape tr {
  border-bottom: 1px solid var(--rule);
}

.tape .off {
  background: var(--alarm-soft);
}
</style>
