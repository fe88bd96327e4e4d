<script setup lang="ts">
import { computed } from 'vue'
import { useClipboard } from '@vueuse/core'

/** A link or a token that is shown once: whoever has it comes in by it. */
const props = defineProps<{ text: string; says: string }>()
defineEmits<{ done: [] }>()
const { copy, copied, isSupported } = useClipboard({ legacy: true })
const pieces = computed(() => props.text.split('\n'))
</script>

<template>
  <div class="settings-once" role="status">
    <p>
      <b>{{ says }}</b>
    </p>
    <code v-for="piece in pieces" :key="piece" data-testid="shown-once">{{ piece }}</code>
    <div class="settings-row">
      <el-button v-if="isSupported" class="key" data-testid="copy-once" @click="copy(text)">{{
        copied ? $t('ShownOnce.copied') : $t('ShownOnce.copy')
      }}</el-button>
      <el-button class="key quiet" data-testid="once-done" @click="$emit('done')">{{
        $t('ShownOnce.iHaveItHideIt')
      }}</el-button>
    </div>
  </div>
</template>
