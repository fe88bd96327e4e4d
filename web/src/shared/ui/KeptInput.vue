<script setup lang="ts">
import { ref, watch } from 'vue'

/**
 * A text field that keeps what is being typed, whatever is drawn anew around it, and tells it when
 * it is left or Enter is pressed.
 */
const props = defineProps<{ value: string | number | null | undefined }>()
const emit = defineEmits<{ keep: [text: string] }>()

const shown = () => String(props.value ?? '')
const text = ref(shown())
const typing = ref(false)
watch(
  () => props.value,
  () => {
    if (!typing.value) text.value = shown()
  },
)

function changed() {
  typing.value = false
  if (text.value !== shown()) emit('keep', text.value)
}
</script>

<template>
  <el-input v-model="text" @input="typing = true" @blur="typing = false" @change="changed" />
</template>
