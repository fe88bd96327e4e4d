<script setup lang="ts">
import KeptPicture from '@/shared/kept/KeptPicture.vue'
import type { ReportBlock } from '@/shared/api/client'
import { minutes } from '@/shared/model/staging'
import { moment } from '@/shared/model/when'

/** The blocks of a report on a page, as the PDF has them. */
defineProps<{ blocks: ReportBlock[] }>()
type Cell = string | { own: string } | { at: string }
type Row = {
  title: string
  expected?: number | null
  seen?: number | null
  from?: number
  to?: number | null
  says?: string | null
}
function words(cell: Cell) {
  if (typeof cell === 'string') return cell
  return 'at' in cell ? moment(cell.at) : cell.own
}
const cells = (block: ReportBlock) => (block.rows ?? []) as Cell[][]
const rows = (block: ReportBlock) => (block.rows ?? []) as Row[]
const at = (seconds: number, block: ReportBlock) => `${block.seconds ? (seconds / block.seconds) * 100 : 0}%`
const picture = (svg: string) => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
const told = (row: Row) =>
  [
    typeof row.expected === 'number' ? `expected ${minutes(row.expected)}` : '',
    typeof row.seen === 'number' ? `seen ${minutes(row.seen)}` : '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <template v-for="(block, i) in blocks" :key="i">
    <p v-if="block.kind === 'text'" class="text">{{ block.says ?? block.own }}</p>
    <div v-else-if="block.kind === 'large'" class="large">
      <p>{{ block.says }}</p>
      <p v-if="block.own">{{ block.own }}</p>
    </div>
    <ul v-else-if="block.kind === 'list'">
      <li v-for="(line, n) in block.lines" :key="n">{{ line }}</li>
    </ul>
    <dl v-else-if="block.kind === 'facts'">
      <template v-for="(pair, n) in block.pairs" :key="n">
        <dt>{{ words(pair[0] ?? '') }}</dt>
        <dd>{{ words(pair[1] ?? '') }}</dd>
      </template>
    </dl>
    <div
      v-else-if="block.kind === 'table'"
      class="scroll"
      tabindex="0"
      role="region"
      :aria-label="$t('ReportBlocks.table')"
    >
      <table>
        <thead>
          <tr>
            <th v-for="(title, n) in block.head" :key="n" scope="col">{{ title }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, n) in cells(block)" :key="n">
            <td v-for="(cell, m) in row" :key="m">{{ words(cell) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <ol v-else-if="block.kind === 'tape' || block.kind === 'stages'" class="axis">
      <li v-for="(row, n) in rows(block)" :key="n">
        <span>{{ row.title }}</span>
        <span class="track" aria-hidden="true">
          <i
            v-if="typeof row.expected === 'number'"
            class="ring"
            :style="{ left: at(row.expected, block) }"
          ></i>
          <i v-if="typeof row.seen === 'number'" class="dot" :style="{ left: at(row.seen, block) }"></i>
          <i
            v-if="typeof row.from === 'number'"
            class="bar"
            :style="{
              left: at(row.from, block),
              right: `calc(100% - ${at(row.to ?? block.seconds ?? 0, block)})`,
            }"
          ></i>
        </span>
        <span class="mono">{{ block.kind === 'tape' ? told(row) : minutes(row.from ?? 0) }}</span>
        <span v-if="row.says" class="because">{{ row.says }}</span>
      </li>
    </ol>
    <img
      v-else-if="block.kind === 'drawing'"
      class="drawing"
      :src="picture(block.svg ?? '')"
      :alt="block.title"
    />
    <figure v-else-if="block.kind === 'photo'">
      <KeptPicture whole :photo="block.id ?? ''" :alt="block.own || block.title || ''" />
      <figcaption>{{ [block.title, block.own].filter(Boolean).join(': ') }}</figcaption>
    </figure>
  </template>
</template>

<style scoped>
.text {
  max-width: 78ch;
  padding-bottom: 4px;
  white-space: pre-line;
  overflow-wrap: anywhere;
}

.large {
  padding: 10px 14px;
  border: 3px solid var(--alarm);
  color: var(--alarm);
  font-size: 22px;
  font-weight: 700;
}

ul {
  margin: 0 0 6px;
  padding-left: 20px;
}

dl {
  display: grid;
  grid-template-columns: minmax(90px, 170px) minmax(0, 1fr);
  gap: 2px 12px;
  margin: 0 0 6px;
}

dt {
  font-weight: 700;
}

dd {
  margin: 0;
  overflow-wrap: anywhere;
}

.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}

th,
td {
  padding: 3px 10px 3px 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
}

th {
  border-bottom: 2px solid var(--ink);
}

tr {
  break-inside: avoid;
}

.axis {
  display: grid;
  gap: 2px;
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
  font-size: 15px;
}

.axis li {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) 190px;
  gap: 0 10px;
  align-items: center;
}

.track {
  position: relative;
  height: 16px;
  border-bottom: 1px solid var(--rule-strong);
}

.track i {
  position: absolute;
  top: 3px;
}

.ring {
  width: 11px;
  height: 11px;
  margin-left: -5px;
  border: 2px solid var(--ink);
  border-radius: 50%;
}

.dot {
  width: 9px;
  height: 9px;
  margin: 1px 0 0 -4px;
  background: var(--ink);
}

.bar {
  height: 10px;
  background: var(--ink);
}

.because {
  grid-column: 2 / -1;
  color: var(--ink-soft);
}

.drawing,
figure img {
  max-width: 100%;
}

figure {
  margin: 0 0 10px;
  break-inside: avoid;
}

figure img {
  max-height: 420px;
}

@media (max-width: 620px) {
  .axis li {
    grid-template-columns: 90px minmax(0, 1fr);
  }

  .axis .mono {
    grid-column: 2;
  }
}
</style>
