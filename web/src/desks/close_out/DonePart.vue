<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import type { CloseOut, CloseOutRecord } from '@/shared/api/client'
import KeptInput from '@/shared/ui/KeptInput.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import { moment } from '@/shared/model/when'

const { t } = useI18n()
/** What was done, since when the unit is put right, and the readings that failed held beside their repeats. */
const props = defineProps<{
  visit: string
  kept: CloseOutRecord
  repeats: CloseOut['repeats']
  defrost: boolean
}>()
const emit = defineEmits<{ keep: [part: CloseOutRecord] }>()

const SEEN = [
  { id: 'seen', title: t('DonePart.watchedOne') },
  { id: 'not_seen', title: t('DonePart.stillToBeSeen') },
] as const
const open = computed(() => props.repeats.filter((one) => !one.after).length)
const there = (one: CloseOut['repeats'][number]) =>
  `/visits/${props.visit}/trace?${new URLSearchParams({ call: one.call, ...(one.from_node && one.to_node ? { black: one.from_node, red: one.to_node } : {}) })}`
const now = () => new Date().toISOString()
</script>

<template>
  <div class="done">
    <label class="field"
      >{{ $t('DonePart.whatWasDone') }}
      <KeptInput
        :value="kept.done"
        type="textarea"
        :autosize="{ minRows: 2, maxRows: 8 }"
        maxlength="2000"
        data-testid="done"
        @keep="(done) => emit('keep', { done })"
    /></label>
    <label class="field"
      >{{ $t('DonePart.parts') }}
      <KeptInput
        :value="kept.parts"
        maxlength="1000"
        data-testid="parts"
        @keep="(parts) => emit('keep', { parts })"
    /></label>
    <p class="repaired">
      <template v-if="kept.repaired_at">
        {{ $t('DonePart.putRightWhatIsRead', { moment: moment(kept.repaired_at) }) }}
        <el-button class="key quiet" data-testid="not-repaired" @click="emit('keep', { repaired_at: '' })">{{
          $t('DonePart.takeBack')
        }}</el-button>
      </template>
      <el-button v-else class="key" data-testid="repaired" @click="emit('keep', { repaired_at: now() })">{{
        $t('DonePart.putRightNowRepeatsBegin')
      }}</el-button>
    </p>
    <ul v-if="repeats.length" class="repeats" data-testid="repeats">
      <li v-for="one in repeats" :key="one.before.id" :class="one.after?.verdict ?? 'open'">
        <span class="where">{{ one.where }}, {{ one.call_title }}</span>
        <b class="mono">≠ {{ one.before.reads }}</b>
        <b v-if="one.after" class="mono"
          >{{ one.after.verdict === 'agrees' ? '=' : one.after.verdict === 'disagrees' ? '≠' : '·' }}
          {{ one.after.reads }}</b
        >
        <RouterLink v-else class="key" :to="there(one)">{{ $t('DonePart.repeatIt') }}</RouterLink>
      </li>
    </ul>
    <p v-else class="quiet">{{ $t('DonePart.noReadingOfThisVisit') }}</p>
    <label v-if="open" class="field"
      >{{ $t('DonePart.notRepeatedBecause') }}
      <KeptInput
        :value="kept.not_repeated"
        maxlength="400"
        data-testid="not-repeated"
        @keep="(not_repeated) => emit('keep', { not_repeated })"
    /></label>
    <div v-if="defrost" class="natural">
      <p>{{ $t('DonePart.oneDefrostByItselfIn') }}</p>
      <PickButtons
        :model-value="kept.natural_defrost ?? null"
        :options="SEEN"
        :label="$t('DonePart.oneDefrostByItself')"
        testid="natural"
        @update:model-value="(natural_defrost) => emit('keep', { natural_defrost })"
      />
    </div>
  </div>
</template>

<style scoped>
.done,
.field,
.natural {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.field {
  gap: 2px;
}

.natural {
  justify-items: start;
}

.repaired {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.repeats {
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 120px 120px;
  gap: 4px 12px;
  align-items: center;
  min-height: var(--target);
  padding: 2px 8px 2px 10px;
  border-left: 6px dashed var(--between);
  background: var(--panel);
}

li.agrees {
  border-left: 6px solid var(--agrees);
}

li.disagrees {
  border-left: 6px solid var(--alarm);
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 560px) {
  li {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }

  .where {
    grid-column: 1 / -1;
  }
}
</style>
