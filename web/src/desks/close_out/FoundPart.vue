<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import { api, type CloseOutRecord, type Find } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import KeptInput from '@/shared/ui/KeptInput.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'

const { t } = useI18n()
/** What was found: as Find has it, with its proof and what that does not prove, or in one's own words. */
const props = defineProps<{ visit: string; kept: CloseOutRecord }>()
const emit = defineEmits<{ keep: [part: CloseOutRecord] }>()

const { answer, task, again } = useLongAnswer<Find>(() => api.find(props.visit, {}))
void again()
const top = computed(() => answer.value?.suspects[0] ?? null)
const CAUSES = [
  { id: 'find', title: t('FoundPart.asFindHasIt') },
  { id: 'written', title: t('FoundPart.inMyWords') },
] as const
</script>

<template>
  <div class="found">
    <PickButtons
      :model-value="kept.cause ?? null"
      :options="CAUSES"
      :label="$t('FoundPart.whereTheFindingIsFrom')"
      testid="cause"
      @update:model-value="(cause) => emit('keep', { cause })"
    />
    <el-skeleton v-if="!answer" class="asked" :rows="2" animated data-testid="find-asked" />
    <p v-if="!answer && task" class="quiet">
      {{ $t('FoundPart.findWorksThisUnitOut', { done: task.done, total: task.total ?? '…' }) }}
    </p>
    <blockquote v-if="answer && kept.cause !== 'written'" :class="answer.outcome.key" data-testid="find-says">
      <p class="says">{{ answer.outcome.says }}</p>
      <p v-if="answer.outcome.not_proved" class="quiet">
        {{ $t('FoundPart.doesNotProve', { not_proved: answer.outcome.not_proved }) }}
      </p>
      <p v-if="top?.carried_by.length" class="quiet">
        {{ $t('FoundPart.carriedBy', { carried_by: top.carried_by.join('; ') }) }}
      </p>
      <RouterLink class="key" :to="`/visits/${visit}/find`">{{ $t('FoundPart.toFind') }}</RouterLink>
    </blockquote>
    <label class="field"
      >{{ kept.cause === 'written' ? $t('FoundPart.whatWasFound') : $t('FoundPart.toBeAddedToIt') }}
      <KeptInput
        :value="kept.finding"
        type="textarea"
        :autosize="{ minRows: 2, maxRows: 8 }"
        maxlength="2000"
        data-testid="finding"
        @keep="(finding) => emit('keep', { finding })"
    /></label>
  </div>
</template>

<style scoped>
.found {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  justify-items: start;
}

blockquote {
  display: grid;
  gap: 4px;
  justify-items: start;
  align-content: start;
  margin: 0;
  padding: 8px 12px;
  border-left: 6px dashed var(--between);
  background: var(--panel);
}

blockquote.proved,
blockquote.found {
  border-left: 6px solid var(--agrees);
}

/* About as much room as the answer takes, and no less when it is shorter. */
.asked,
blockquote {
  box-sizing: border-box;
  min-height: 190px;
}

@media (max-width: 1040px) {
  .asked,
  blockquote {
    min-height: 250px;
  }
}

@media (max-width: 640px) {
  .asked,
  blockquote {
    min-height: 430px;
  }
}

.says {
  font-size: 19px;
}

.quiet {
  color: var(--ink-soft);
}

.field {
  display: grid;
  gap: 2px;
  width: 100%;
}
</style>
