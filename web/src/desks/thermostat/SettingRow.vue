<script setup lang="ts">
import type { Setting } from '@/shared/api/client'
import KeptInput from '@/shared/ui/KeptInput.vue'
import FactField from '@/shared/ui/kit/FactField.vue'

defineProps<{ item: Setting; read: boolean; label: string }>()
const emit = defineEmits<{ set: [value: string | number | boolean]; clear: []; label: [text: string] }>()

const SIGN: Record<Setting['verdict'], string> = { agrees: '=', disagrees: '≠', look: 'i', assumed: '·' }
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
    </span>
    <FactField
      class="value"
      :fact="item"
      :model-value="item.found"
      :doubt="item.verdict === 'assumed'"
      compact
      @update:model-value="(value) => emit('set', value as string | number | boolean)"
    />
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

  .row > .value {
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
