<script setup lang="ts">
import type { RoadStop } from '@/shared/api/client'

/** One station of a road map with all that follows from it, or a leaf: a line each, the line of the way on its left. */
defineProps<{ stop: RoadStop; answer?: string }>()
</script>

<template>
  <p class="line">
    <span v-if="answer" class="answer mono">{{ answer }}</span>
    <span v-if="stop.test" class="test">
      <b>{{ stop.test.says }}</b>
      <template v-if="stop.test.first">{{ $t('RoadBranch.first', { first: stop.test.first }) }}</template>
      <template v-for="caution in stop.test.cautions" :key="caution"> ⚠ {{ caution }}</template>
    </span>
    <span v-else :class="['leaf', { sure: stop.sure }]" data-testid="road-leaf">
      <b>{{ stop.title }} {{ stop.share }}</b
      ><template v-if="stop.also?.length">; {{ stop.also.join('; ') }}</template
      >: {{ stop.proof }}
    </span>
  </p>
  <ol v-if="stop.branches">
    <li v-for="one in stop.branches" :key="one.answer">
      <RoadBranch :stop="one.then" :answer="one.answer" />
    </li>
  </ol>
</template>

<style scoped>
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
  break-inside: avoid;
  overflow-wrap: anywhere;
}

ol {
  display: grid;
  gap: 3px;
  margin: 0;
  padding: 3px 0 0;
  list-style: none;
}

li {
  position: relative;
  margin-left: 7px;
  padding-left: 16px;
  border-left: 2px solid var(--ink);
}

/* The last way ends at its own turn. */
li:last-child {
  border-left-color: transparent;
}

li::before {
  content: '';
  position: absolute;
  top: 0;
  left: -2px;
  width: 14px;
  height: 0.75em;
  border-bottom: 2px solid var(--ink);
  border-left: 2px solid var(--ink);
}

.answer {
  flex: 0 0 auto;
  max-width: 40%;
  padding: 0 5px;
  border: 1px solid var(--rule-strong);
}

.leaf {
  padding-left: 6px;
  border-left: 4px dashed var(--between);
}

.leaf.sure {
  border-left: 4px solid var(--agrees);
}

@media print {
  ol {
    gap: 1px;
    padding-top: 1px;
  }
}

@media (max-width: 640px) {
  .line {
    display: block;
  }

  .answer {
    margin-right: 6px;
  }

  li {
    margin-left: 2px;
    padding-left: 10px;
  }

  li::before {
    width: 8px;
  }

  .leaf {
    display: inline-block;
  }
}
</style>
