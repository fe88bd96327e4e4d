<script setup lang="ts">
import { computed } from 'vue'
import type { JudgedLine } from '@/pages/practice/api'

/** What was said against what is so, with why; what a wrong one shows stands under it once. */
const props = defineProps<{ lines: JudgedLine[] }>()
const traps = computed(() => [
  ...new Map(props.lines.flatMap((line) => (line.trap ? [[line.trap.id, line.trap] as const] : []))).values(),
])
</script>

<template>
  <div class="judged" data-testid="judged">
    <ol>
      <li v-for="line in lines" :key="line.what" :class="line.right ? 'right' : 'wrong'">
        <b aria-hidden="true">{{ line.right ? '=' : '≠' }}</b>
        <span
          >{{ line.what }}<small v-if="line.why">{{ line.why }}</small></span
        >
        <span
          ><b>{{ line.is }}</b
          ><small v-if="!line.right">{{ $t('JudgedLines.you', { said: line.said }) }}</small></span
        >
      </li>
    </ol>
    <el-alert
      v-for="trap in traps"
      :key="trap.id"
      :title="trap.title"
      :description="trap.says"
      type="warning"
      :closable="false"
      data-testid="trap"
    />
  </div>
</template>

<style scoped>
.judged {
  display: grid;
  gap: 10px;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 26px minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 10px;
  padding: 7px 6px;
  border-bottom: 1px solid var(--rule);
}

.right > b {
  color: var(--agrees);
}

.wrong {
  background: var(--alarm-soft);
}

.wrong > b {
  color: var(--alarm);
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
}
</style>
