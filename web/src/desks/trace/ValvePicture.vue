<script setup lang="ts">
import { computed } from 'vue'
import type { components } from '@/shared/api/schema'
import { degrees, shownIn, unitShown } from '@/shared/model/units'

const props = defineProps<{
  state: components['schemas']['Refrigerant']
  pressure: number | null
  coil: number | null
}>()

const heating = computed(() => props.state.valve === 'heating')
const indoorHot = computed(() => props.state.hot === 'indoor')
const outdoorHot = computed(() => props.state.hot === 'outdoor')
/** Hot gas from the compressor: through the valve to one coil; back from the other. */
const flow = computed(() => (props.state.pumping ? (heating.value ? 'to-indoor' : 'to-outdoor') : 'still'))
const heat = (hot: boolean) => (!props.state.pumping ? 'rests' : hot ? 'hot' : 'cold')
const slide = computed(() => (heating.value ? 0 : 34))
</script>

<template>
  <figure class="valve" data-testid="valve-picture">
    <svg viewBox="0 0 320 214" role="img" :aria-label="state.says">
      <g :class="['pipe', heat(indoorHot)]">
        <path d="M138 96H120V62" />
        <path d="M34 62H18V196H60" />
      </g>
      <g :class="['pipe', heat(outdoorHot)]">
        <path d="M202 96H222V62" />
        <path d="M302 62V196H118" />
      </g>
      <path class="liquid" d="M60 196H118" />
      <path class="meter" d="M84 190l10 6l-10 6zM104 190l-10 6l10 6z" />
      <g :class="['coil', heat(indoorHot)]">
        <rect x="26" y="22" width="102" height="40" rx="3" />
        <path d="M34 30h86v8h-86v8h86v8h-86" />
      </g>
      <g :class="['coil', heat(outdoorHot)]">
        <rect x="214" y="22" width="96" height="40" rx="3" />
        <path d="M222 30h80v8h-80v8h80v8h-80" />
      </g>
      <text x="68" y="15" text-anchor="middle">
        {{ $t('ValvePicture.indoor', { heat: heat(indoorHot) }) }}
      </text>
      <text x="262" y="15" text-anchor="middle">
        {{ $t('ValvePicture.outdoor', { heat: heat(outdoorHot) }) }}
      </text>
      <text x="68" y="78" text-anchor="middle" class="fan">
        {{ state.blower ? $t('ValvePicture.blowerOn') : $t('ValvePicture.blowerOff') }}
      </text>
      <text x="272" y="78" text-anchor="middle" class="fan">
        {{ state.outdoor_fan ? $t('ValvePicture.fanOn') : $t('ValvePicture.fanOff') }}
      </text>

      <rect class="body" x="138" y="86" width="64" height="24" rx="4" />
      <rect
        :class="['slide', { told: state.valve !== state.told }]"
        :x="142 + slide"
        y="90"
        width="22"
        height="16"
        rx="2"
      />
      <text x="132" y="128" text-anchor="end" class="small">
        {{ $t('ValvePicture.valveIn', { valve: state.valve }) }}
      </text>
      <text v-if="state.valve !== state.told" x="132" y="144" text-anchor="end" class="small">
        {{ $t('ValvePicture.told', { told: state.told }) }}
      </text>
      <g :class="['pilot', { fed: state.told !== state.valve }]">
        <rect x="154" y="72" width="32" height="10" rx="2" />
      </g>
      <path class="pipe discharge" :class="state.pumping ? 'hot' : 'rests'" d="M158 110V150" />
      <path class="pipe" :class="state.pumping ? 'cold' : 'rests'" d="M182 110V150" />
      <circle :class="['pump', { on: state.pumping }]" cx="170" cy="164" r="17" />
      <text x="170" y="169" text-anchor="middle" :class="{ 'on-body': state.pumping }" class="small">
        {{ $t('ValvePicture.comp') }}
      </text>
      <path
        v-if="flow !== 'still'"
        class="arrow"
        :d="flow === 'to-indoor' ? 'M134 91l-9 5l9 5z' : 'M206 91l9 5l-9 5z'"
      />
      <text x="226" y="150" class="small">
        {{
          $t('ValvePicture.apart', {
            pressure: pressure === null ? '–' : Math.round(shownIn('psi', pressure)),
            unitShown: unitShown('psi'),
          })
        }}
      </text>
      <text x="226" y="168" class="small">
        {{ $t('ValvePicture.coil', { coil: coil === null ? '–' : degrees(coil) }) }}
      </text>
    </svg>
    <figcaption>
      <b v-if="state.valve !== state.told">≠ </b>{{ state.says }}
      <span>{{ $t('ValvePicture.gauges', { ports: state.ports }) }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.valve {
  margin: 0;
}

svg {
  display: block;
  width: 100%;
  max-width: 380px;
  border: 1px solid var(--rule);
  background: var(--panel);
}

.pipe path,
.pipe.discharge,
path.pipe {
  fill: none;
}

.pipe {
  fill: none;
  stroke: var(--dead);
  stroke-width: 4;
}

.pipe.hot {
  stroke: var(--alarm);
  stroke-width: 7;
}

.pipe.cold {
  stroke: var(--home);
  stroke-width: 4;
  stroke-dasharray: 8 4;
}

.liquid {
  stroke: var(--ink-soft);
  stroke-width: 3;
}

.meter,
.arrow {
  fill: var(--ink);
}

.coil rect {
  fill: var(--panel);
  stroke: var(--dead);
  stroke-width: 2;
}

.coil path {
  fill: none;
  stroke: var(--dead);
  stroke-width: 3;
}

.coil.hot path {
  stroke: var(--alarm);
  stroke-width: 5;
}

.coil.cold path {
  stroke: var(--home);
  stroke-dasharray: 7 3;
}

.body,
.pilot rect {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 2;
}

.pilot.fed rect {
  fill: var(--between);
}

.slide {
  fill: var(--ink);
}

.slide.told {
  fill: var(--between);
}

.pump {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 2.5;
}

.pump.on {
  fill: var(--live);
}

text {
  fill: var(--ink);
  font-size: 13px;
  font-weight: 650;
}

.small,
.fan {
  font-size: 12px;
  font-weight: 500;
}

text.on-body {
  fill: var(--on-live);
}

figcaption span {
  color: var(--ink-soft);
}
</style>
