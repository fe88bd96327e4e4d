<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { asks, away, canKeep, keptVisits, notSent } from '@/shared/kept/pocket'

const { t } = useI18n()
/** Whether there is signal, what waits to be sent, and whether this visit is taken along; opens the sheet with all of it. */
const props = defineProps<{ visit: string | null }>()
const PocketSheet = defineAsyncComponent(() => import('@/shared/kept/PocketSheet.vue'))
const open = ref(false)
const opened = ref(false)

const along = computed(() => keptVisits.value.some((one) => one.id === props.visit))
const says = computed(() => {
  if (away.value) return t('PocketChip.noSignal')
  if (notSent.value) return t('PocketChip.notSent')
  return along.value ? t('PocketChip.along') : t('PocketChip.takeAlong')
})
const spoken = computed(() =>
  notSent.value ? t('PocketChip.spokenNotSent', { says: says.value, count: notSent.value }) : says.value,
)
const shows = computed(() => away.value || notSent.value > 0 || props.visit !== null)

function show() {
  opened.value = true
  open.value = true
}
</script>

<template>
  <div v-if="shows" class="pocket">
    <el-badge :value="notSent" :hidden="!notSent" :offset="[-6, 8]">
      <el-button
        :class="['key', 'chip', { away, asks: asks > 0 }]"
        :aria-label="$t('PocketChip.openWhatIsOnThis', { spoken })"
        data-testid="pocket"
        @click="show"
        ><span v-if="asks" aria-hidden="true">≠ </span>{{ says }}</el-button
      >
    </el-badge>
    <PocketSheet v-if="opened" v-model="open" :visit="visit" :can-keep="canKeep" />
  </div>
</template>

<style scoped>
.pocket {
  display: flex;
  flex: none;
  align-items: center;
  margin-left: auto;
}

.bar .chip {
  padding: 0 10px;
  border-color: var(--on-bar-soft);
  background: transparent;
  color: var(--on-bar);
  white-space: nowrap;
}

.bar .chip.away {
  border-style: dashed;
  border-width: 3px;
  font-weight: 700;
}

.bar .chip.asks {
  border-color: var(--bar-accent);
  border-width: 3px;
}
</style>
