<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Setting } from '@/shared/api/client'
import { readIn, shownIn, unitShown } from '@/shared/model/units'
import KeptInput from '@/shared/ui/KeptInput.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const { t } = useI18n()
const props = defineProps<{ item: Setting; read: boolean; label: string }>()
const emit = defineEmits<{ set: [value: string | number | boolean]; clear: []; label: [text: string] }>()

type Choice = string | number | boolean
const SIGN: Record<Setting['verdict'], string> = { agrees: '=', disagrees: '≠', look: 'i', assumed: '·' }
const wrong = ref('')

const unit = computed(() => unitShown(props.item.unit))
const out = (value: number) => shownIn(props.item.unit, value, props.item.delta)

function number(text: string) {
  const value = readIn(props.item.unit, text, props.item.delta)
  const { low, high } = props.item
  const good = typeof value === 'number' && value >= (low ?? -Infinity) && value <= (high ?? Infinity)
  wrong.value = good
    ? ''
    : t('SettingRow.aNumberFrom', { low: out(low ?? 0), high: out(high ?? 0), unit: unit.value })
  if (good) emit('set', value)
}
</script>

<template>
  <div :class="['row', item.verdict]" :data-setting="item.key">
    <b class="sign" aria-hidden="true">{{ SIGN[item.verdict] }}</b>
    <span class="what">
      {{ item.title }} <small>{{ item.asks }}</small>
      <small v-if="item.source === 'told_before'" class="told">{{ $t('SettingRow.asToldLastTime') }}</small>
      <small v-if="item.verdict === 'disagrees' && item.should" class="should">{{
        $t('SettingRow.shouldBe', { should: item.should })
      }}</small>
      <small v-if="wrong" class="should" role="alert">≠ {{ wrong }}</small>
    </span>
    <PickOne
      v-if="item.kind === 'choice'"
      :model-value="item.found as Choice"
      :options="item.choices.map((one) => ({ id: one.value as Choice, title: one.says }))"
      :label="item.title"
      @update:model-value="(value) => emit('set', value)"
    />
    <span v-else-if="item.kind === 'flag'" class="flag" role="group" :aria-label="item.title">
      <el-button class="key" :aria-pressed="item.found === true" @click="emit('set', true)">{{
        $t('SettingRow.yes')
      }}</el-button>
      <el-button class="key" :aria-pressed="item.found === false" @click="emit('set', false)">{{
        $t('SettingRow.no')
      }}</el-button>
    </span>
    <span v-else class="number">
      <KeptInput
        class="mono"
        inputmode="decimal"
        maxlength="6"
        :value="typeof item.found === 'number' ? String(out(item.found)) : String(item.found)"
        :aria-label="item.title"
        @keep="number"
      />
      {{ unit }}
    </span>
    <KeptInput
      class="label mono"
      maxlength="40"
      :value="label"
      :placeholder="$t('SettingRow.no2')"
      :aria-label="$t('SettingRow.makersNumberFor', { title: item.title })"
      @keep="(text) => emit('label', text)"
    />
    <el-button
      v-if="read"
      class="key quiet"
      :aria-label="$t('SettingRow.notRead2', { title: item.title })"
      :title="$t('SettingRow.notRead')"
      @click="emit('clear')"
    >
      ×
    </el-button>
    <el-button
      v-else
      class="key quiet"
      :aria-label="$t('SettingRow.readAndSo2', { title: item.title })"
      :title="$t('SettingRow.readAndSo')"
      @click="emit('set', item.found)"
    >
      ✓
    </el-button>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 176px 64px 44px;
  gap: 8px;
  align-items: center;
  min-height: 48px;
  border-bottom: 1px solid var(--rule);
}

.row.disagrees {
  background: var(--alarm-soft);
}

.sign {
  font-size: 20px;
  text-align: center;
}

.told {
  color: var(--between);
}

.disagrees .sign,
.should {
  color: var(--alarm);
  font-weight: 700;
}

.agrees .sign {
  color: var(--agrees);
}

.what {
  font-weight: 650;
  overflow-wrap: anywhere;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
  font-weight: 450;
}

.assumed :deep(.el-select__wrapper),
.assumed :deep(.el-input__wrapper) {
  box-shadow: none;
  outline: 1px dashed var(--rule-strong);
  outline-offset: -1px;
}

.number {
  display: flex;
  gap: 6px;
  align-items: center;
}

.number .el-input {
  width: 84px;
}

.flag {
  display: flex;
}

.flag .key {
  flex: 1;
  border-width: 1px;
  border-radius: 0;
}

.key.quiet {
  padding: 0;
  font-size: 18px;
  text-decoration: none;
}

@media (max-width: 560px) {
  .row {
    grid-template-columns: 22px minmax(0, 1fr) 44px;
    padding: 6px 0;
  }

  .row > .el-select,
  .row > .flag,
  .row > .number {
    grid-column: 2;
  }

  .row > .label {
    grid-column: 2;
    width: 120px;
  }

  .row > .key.quiet {
    grid-column: 3;
    grid-row: 1;
  }
}
</style>
