<script setup lang="ts">
import type { components } from '@/shared/api/schema'

defineProps<{ strokes: components['schemas']['Stroke'][]; line?: string | null; struck?: boolean }>()
</script>

<template>
  <svg class="glyph" viewBox="-30 -19 60 38" width="60" height="38" aria-hidden="true">
    <path v-for="(stroke, i) in strokes" :key="i" :class="stroke.role" :d="stroke.d" />
    <g v-if="line" :class="`line-${line}`"><path class="wire dead" d="M-28 0H28" /></g>
    <path v-if="struck" class="strike" d="M-26 15L26 -15" />
  </svg>
</template>

<style scoped src="./scene.css"></style>
<style scoped src="@/shared/scene/sheaths.css"></style>
