<script setup lang="ts">
import type { CloseOutRecord } from '@/shared/api/client'
import { stateOf, type Line } from '@/desks/close_out/closing'
import KeptInput from '@/shared/ui/KeptInput.vue'

/** What has to be as it was before anybody leaves: a line for each thing that the visit's own records know of. */
const props = defineProps<{ lines: Line[]; kept: CloseOutRecord; leftOff: boolean }>()
const emit = defineEmits<{ keep: [put_back: NonNullable<CloseOutRecord['put_back']>] }>()

const SIGN = { back: '=', left: '≠', open: '·' }
function set(id: string, said: 'back' | { left: string } | null) {
  const others = Object.fromEntries(Object.entries(props.kept.put_back ?? {}).filter(([key]) => key !== id))
  emit('keep', said ? { ...others, [id]: said } : others)
}
const why = (id: string): string => {
  const said = props.kept.put_back?.[id]
  return said && typeof said === 'object' ? said.left : ''
}
const tick = (line: Line, on: unknown) => set(line.id, on ? 'back' : null)
</script>

<template>
  <ul class="lines">
    <li
      v-for="line in lines"
      :key="line.id"
      :class="[stateOf(line, kept), { hard: line.never_left }]"
      :data-testid="`line-${line.id}`"
    >
      <el-checkbox
        :model-value="stateOf(line, kept) === 'back'"
        :disabled="!!line.by_record && kept.put_back?.[line.id] === undefined"
        @change="(on: unknown) => tick(line, on)"
        ><span class="says"
          ><b class="sign" aria-hidden="true">{{ SIGN[stateOf(line, kept)] }}</b> {{ line.says }}</span
        ></el-checkbox
      >
      <p v-if="line.by_record" class="why">{{ line.by_record }}</p>
      <p v-for="caution in line.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
      <p v-if="line.never_left && stateOf(line, kept) !== 'back'" class="why">
        {{ leftOff ? $t('PutBackPart.stillSoTheUnitIs') : $t('PutBackPart.noReasonClosesThisOne') }}
      </p>
      <label v-else-if="stateOf(line, kept) !== 'back'" class="stays"
        >{{ $t('PutBackPart.staysBecause') }}
        <KeptInput
          maxlength="400"
          :value="why(line.id)"
          :data-testid="`left-${line.id}`"
          @keep="(text) => set(line.id, text.trim() ? { left: text.trim() } : null)"
      /></label>
    </li>
  </ul>
</template>

<style scoped>
.lines {
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 2px 0 6px 10px;
  border-left: 6px dashed var(--between);
  background: var(--panel);
}

li.back {
  border-left: 6px solid var(--agrees);
}

li.left {
  border-left: 6px solid var(--alarm);
}

.says {
  white-space: normal;
  line-height: 1.35;
}

.sign {
  display: inline-block;
  width: 1em;
  text-align: center;
}

.why,
.caution {
  margin-left: 30px;
  color: var(--ink-soft);
  font-size: 15px;
}

.caution {
  color: var(--between);
}

.stays {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-left: 30px;
  padding-right: 8px;
  color: var(--ink-soft);
}

.stays .el-input {
  flex: 1 1 220px;
}
</style>
