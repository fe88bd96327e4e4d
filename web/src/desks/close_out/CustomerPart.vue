<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type CloseOutRecord } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { codesIn } from '@/desks/close_out/closing'
import KeptInput from '@/shared/ui/KeptInput.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'

const { t } = useI18n()
/** The page that the customer gets: plain words, whether the complaint is answered, what comes next, photos. */
const props = defineProps<{ visit: string; kept: CloseOutRecord; complaint: string }>()
const emit = defineEmits<{ keep: [part: CloseOutRecord] }>()

const ANSWERS = [
  { id: 'yes', title: t('CustomerPart.yes') },
  { id: 'partly', title: t('CustomerPart.partly') },
  { id: 'no', title: t('CustomerPart.no') },
] as const
const codes = computed(() => codesIn(props.kept.plain ?? ''))
const { value: kept } = useQuestion('photos', () => props.visit, api.photos, { follows: false })
const photos = computed(() => kept.value?.photos ?? [])
const chosen = computed(() => props.kept.photos ?? [])
const choose = (id: string, on: unknown) =>
  emit('keep', { photos: on ? [...chosen.value, id] : chosen.value.filter((one) => one !== id) })
</script>

<template>
  <div class="customer">
    <p v-if="complaint" class="said">“{{ complaint }}”</p>
    <div class="answered">
      <span>{{ $t('CustomerPart.isThatAnswered') }}</span>
      <PickButtons
        :model-value="props.kept.answered ?? null"
        :options="ANSWERS"
        :label="$t('CustomerPart.isTheComplaintAnswered')"
        testid="answered"
        @update:model-value="(answered) => emit('keep', { answered })"
      />
    </div>
    <label class="field"
      >{{ $t('CustomerPart.whatWasFoundAndDone') }}
      <KeptInput
        :value="props.kept.plain"
        type="textarea"
        :autosize="{ minRows: 3, maxRows: 10 }"
        maxlength="1500"
        data-testid="plain"
        @keep="(plain) => emit('keep', { plain })"
    /></label>
    <p v-if="codes.length" class="codes" data-testid="codes">
      {{ $t('CustomerPart.codesTheCustomerDoesNot', { codes: codes.join(', ') }) }}
    </p>
    <label class="field"
      >{{ $t('CustomerPart.whatComesNext') }}
      <KeptInput
        :value="props.kept.follow_up"
        type="textarea"
        :autosize="{ minRows: 1, maxRows: 6 }"
        maxlength="1000"
        data-testid="follow-up"
        @keep="(follow_up) => emit('keep', { follow_up })"
    /></label>
    <div v-if="photos.length" class="photos" role="group" :aria-label="$t('CustomerPart.photosForTheReport')">
      <el-checkbox
        v-for="photo in photos"
        :key="photo.id"
        :model-value="chosen.includes(photo.id)"
        @change="(on: unknown) => choose(photo.id, on)"
        ><img :src="`/api/photos/${photo.id}/small`" alt="" />
        {{ photo.note || photo.of.replace(/_/g, ' ') }}</el-checkbox
      >
    </div>
  </div>
</template>

<style scoped>
.customer,
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.field {
  gap: 2px;
}

.said {
  font-size: 18px;
}

.answered,
.photos {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}

.codes {
  color: var(--between);
}

.photos .el-checkbox {
  height: auto;
}

img {
  height: 56px;
  vertical-align: middle;
}
</style>
