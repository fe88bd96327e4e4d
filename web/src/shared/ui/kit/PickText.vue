<script setup lang="ts">
import { nextTick, onMounted, ref } from 'vue'
import { useTimeoutFn } from '@vueuse/core'
import type { AutocompleteInstance } from 'element-plus'

/** Free text, with what is known already offered while it is typed. */
const props = defineProps<{ known: readonly string[] }>()
const text = defineModel<string>({ required: true })
const field = ref<AutocompleteInstance | null>(null)

/** Known words that hold what is typed. */
const offered = (typed: string) =>
  Promise.resolve(
    props.known
      .filter((one) => one.toLowerCase().includes(typed.trim().toLowerCase()))
      .map((value) => ({ value })),
  )

/** The library names its list before there is one; a reader would follow that to nowhere. */
let list: string | null = null
function name() {
  const input = field.value?.inputRef?.input
  if (!input) return
  list ??= input.getAttribute('aria-controls')
  if (list && document.getElementById(list)) input.setAttribute('aria-controls', list)
  else input.removeAttribute('aria-controls')
  const active = input.getAttribute('aria-activedescendant')
  if (active && !document.getElementById(active)) input.removeAttribute('aria-activedescendant')
}
const { start: later } = useTimeoutFn(name, 300, { immediate: false })
onMounted(() => nextTick(name))
</script>

<template>
  <el-autocomplete ref="field" v-model="text" :fetch-suggestions="offered" @focus="later" @input="later" />
</template>
