<script setup lang="ts">
import UPlot from 'uplot'
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Judgement } from '@/desks/defrost/recorded/api'
import { degreeSign, inUnit } from '@/shared/model/units'
import { useChart } from '@/shared/ui/kit/useChart'

/** All defrosts laid over each other from their start: what is alike lies on itself, what is not stands out. The table of
 *  the record has the same as numbers. */
const props = defineProps<{ judgement: Judgement; chosen: number | null }>()
const { t } = useI18n()
const HEIGHT = 240
const MINUTES = 15
const TONES: Record<string, string> = { time: '--alarm', call: '--between', unknown: '--between' }
const box = useTemplateRef<HTMLElement>('box')

const withPath = computed(() => props.judgement.defrosts.filter((one) => one.path.length > 2))
const tables = computed(() =>
  withPath.value.map((one) => {
    const path = one.path.filter(([at]) => (at ?? 0) <= MINUTES * 60)
    return [path.map(([at]) => (at ?? 0) / 60), path.map(([, degrees]) => inUnit(degrees ?? 0))]
  }),
)
const ends = computed(() => inUnit(props.judgement.ends_degrees_f))

useChart(box, HEIGHT, ({ tone, font, axis }) => {
  if (!tables.value.length) return null
  const all = tables.value.flatMap(([, degrees]) => degrees!)
  const low = Math.floor(Math.min(...all, inUnit(props.judgement.starts_degrees_f)) / 10) * 10
  const high = Math.ceil((Math.max(...all, ends.value) + 8) / 10) * 10
  return {
    data: UPlot.join(tables.value as UPlot.AlignedData[]),
    options: {
      legend: { show: false },
      cursor: { show: false },
      scales: { x: { time: false, range: [0, MINUTES] }, y: { range: [low, high] } },
      axes: [
        { ...axis, size: 30, values: (_, all) => all.map((one) => t('DefrostOverlay.minutes', { one })) },
        { ...axis, size: 48, values: (_, all) => all.map((one) => `${one}°`) },
      ],
      series: [
        {},
        ...withPath.value.map((one) => ({
          stroke:
            one.number === props.chosen
              ? tone('--ink')
              : tone(TONES[one.ended_by ?? 'unknown'] ?? '--agrees'),
          width: one.number === props.chosen ? 3 : 1.2,
          alpha: props.chosen === null || one.number === props.chosen ? 0.9 : 0.5,
          spanGaps: true,
          points: { show: false },
        })),
      ],
      hooks: {
        draw: [
          ({ ctx, valToPos, bbox }) => {
            const [y, ratio] = [valToPos(ends.value, 'y', true), devicePixelRatio]
            ctx.save()
            ctx.strokeStyle = ctx.fillStyle = tone('--ink')
            ctx.setLineDash([6 * ratio, 4 * ratio])
            ctx.beginPath()
            ctx.moveTo(bbox.left, y)
            ctx.lineTo(bbox.left + bbox.width, y)
            ctx.stroke()
            ctx.font = font(650, ratio)
            ctx.textAlign = 'right'
            ctx.fillText(
              t('DefrostOverlay.shouldEnd', {
                ends_degrees_f: Math.round(ends.value),
                degreeSign: degreeSign(),
              }),
              bbox.left + bbox.width - 4 * ratio,
              y - 6 * ratio,
            )
            ctx.restore()
          },
        ],
      },
    },
  }
})
</script>

<template>
  <figure v-if="withPath.length" class="overlay" data-testid="defrost-overlay">
    <div
      ref="box"
      class="plot"
      role="img"
      :style="{ minHeight: `${HEIGHT}px` }"
      :aria-label="$t('DefrostOverlay.coilInDefrostsFromTheir', { withPath: withPath.length })"
    ></div>
    <figcaption>{{ $t('DefrostOverlay.theCoilInEveryDefrost') }}</figcaption>
  </figure>
</template>

<style scoped>
.overlay {
  margin: 0;
}

.plot {
  contain: inline-size;
  max-width: 760px;
}

figcaption {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
