<script setup lang="ts">
import { onBeforeUnmount, onMounted } from 'vue'
import { isTyping } from '@/shared/model/keys'
import type { Problem } from '@/shared/model/outcome'
import KeptInput from '@/shared/ui/KeptInput.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

defineProps<{
  title: string
  name: string
  canUndo: boolean
  canRedo: boolean
  canKeep: boolean
  busy: boolean
  problem: Problem | null
  saved: string
}>()
const emit = defineEmits<{ rename: [name: string]; undo: []; redo: []; keep: [] }>()

// Where somebody types, the field's own undo is meant.
function onKey(event: KeyboardEvent) {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isTyping(event)) return
  event.preventDefault()
  if (event.shiftKey) emit('redo')
  else emit('undo')
}
onMounted(() => addEventListener('keydown', onKey))
onBeforeUnmount(() => removeEventListener('keydown', onKey))
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <label class="name">
      <span class="hidden-label">{{ $t('RigHead.name') }}</span>
      <KeptInput
        :value="name"
        maxlength="120"
        :placeholder="$t('RigHead.nameWhereItStands')"
        data-testid="rig-name"
        @keep="(text) => $emit('rename', text)"
      />
    </label>
    <el-button
      class="key"
      :disabled="!canUndo"
      :title="$t('RigHead.ctrlZ')"
      data-testid="undo"
      @click="$emit('undo')"
    >
      {{ $t('RigHead.undo') }}
    </el-button>
    <el-button
      class="key"
      :disabled="!canRedo"
      :title="$t('RigHead.ctrlShiftZ')"
      data-testid="redo"
      @click="$emit('redo')"
    >
      {{ $t('RigHead.redo') }}
    </el-button>
    <slot />
    <el-button class="key solid" :disabled="!canKeep || busy" data-testid="save-rig" @click="$emit('keep')">
      {{ busy ? $t('RigHead.keeping') : $t('RigHead.keep') }}
    </el-button>
  </div>
  <ProblemNote v-if="problem" :problem="problem" />
  <p v-if="saved && !problem" class="saved" role="status">= {{ saved }}</p>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

h1 {
  font-size: 22px;
  margin-right: 8px;
}

.name {
  flex: 1 1 240px;
}

.name :deep(.el-input__wrapper) {
  box-shadow: 0 0 0 2px var(--ink) inset;
}

.name :deep(.el-input__inner) {
  font-size: 18px;
}

.saved {
  padding: 6px 12px;
  border-left: 6px solid var(--agrees);
  background: var(--agrees-soft);
}
</style>
