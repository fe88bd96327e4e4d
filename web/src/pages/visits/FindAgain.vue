<script setup lang="ts">
import { defineAsyncComponent, onBeforeUnmount, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import type { InputInstance } from 'element-plus'
import type { Searched } from '@/shared/api/client'
import { isTyping } from '@/shared/model/keys'

/** Fetched when somebody narrows: the first page carries no calendar. */
const NarrowBy = defineAsyncComponent(() => import('@/pages/visits/NarrowBy.vue'))

/** One field over all that was ever written of a visit, and what narrows it. What is asked stands in the address. */
defineProps<{ found: Searched | null }>()
const route = useRoute()
const router = useRouter()
const field = ref<InputInstance | null>(null)

const asked = (key: string) => (typeof route.query[key] === 'string' ? (route.query[key] as string) : '')
const narrow = ref(['symptom', 'cause', 'by', 'closed', 'since', 'until'].some((key) => asked(key)))
const set = (part: Record<string, string>) => {
  const query = Object.fromEntries(Object.entries({ ...route.query, ...part }).filter(([, value]) => value))
  void router.replace({ query })
}
function key(event: KeyboardEvent) {
  if (event.key !== '/' || isTyping(event)) return
  event.preventDefault()
  field.value?.focus()
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <form class="again" role="search" @submit.prevent>
    <el-input
      ref="field"
      :model-value="asked('q')"
      clearable
      maxlength="200"
      :placeholder="$t('FindAgain.findAVisitKilnIced')"
      :aria-label="$t('FindAgain.findAVisit')"
      data-testid="search"
      @update:model-value="(q: string) => set({ q })"
    />
    <el-button class="key" :aria-pressed="narrow" data-testid="narrow" @click="narrow = !narrow">{{
      $t('FindAgain.narrow')
    }}</el-button>
    <RouterLink class="key" to="/recurring" data-testid="recurs">{{ $t('FindAgain.whatRecurs') }}</RouterLink>
    <NarrowBy v-if="narrow" :found="found" @narrow="set" />
    <p v-for="one in found?.read_as ?? []" :key="one.typed" class="read" data-testid="read-as">
      {{ $t('FindAgain.readAs', { typed: one.typed }) }} <b>{{ one.words.join(' or ') }}</b>
    </p>
    <p v-if="found?.unknown.length" class="read" data-testid="unknown">
      {{ $t('FindAgain.noVisitOfThisCrew', { unknown: found.unknown.join('”, “') }) }}
    </p>
  </form>
</template>

<style scoped>
.again {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-bottom: 10px;
}

.again > .el-input {
  flex: 1 1 260px;
}

.read {
  flex: 1 1 100%;
  color: var(--between);
}
</style>
