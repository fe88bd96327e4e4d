<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Photo } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import type { Problem } from '@/shared/model/outcome'
import { shrunk } from '@/shared/model/picture'
import KeptPicture from '@/shared/kept/KeptPicture.vue'
import KeptInput from '@/shared/ui/KeptInput.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'

const { t } = useI18n()
const props = defineProps<{ visit: string; fact?: string }>()
const catalogue = useCatalogue()

const OF = [
  { id: 'panel_diagram', title: t('PhotoStrip.panelDiagram') },
  { id: 'splice', title: t('PhotoStrip.splices') },
  { id: 'board_setting', title: t('PhotoStrip.boardSetting') },
  { id: 'thermostat', title: t('PhotoStrip.thermostat') },
  { id: 'other', title: t('PhotoStrip.somethingElse') },
]
const {
  value: kept,
  problem: unread,
  again: list,
} = useQuestion('photos', () => props.visit, api.photos, { follows: false })
const photos = computed(() => kept.value?.photos ?? [])
const problem = shallowRef<Problem | null>(null)
const of = ref('panel_diagram')
const fact = ref(props.fact ?? '')
const busy = ref(0)

const factTitle = (key: string | null) => catalogue.value?.facts.find((one) => one.key === key)?.title ?? ''
const shown = computed(() => photos.value.filter((one) => !props.fact || one.fact_key === props.fact))

/** Several at once are kept one after another. */
let queue: Promise<unknown> = Promise.resolve()
function keep(file: File) {
  problem.value = null
  busy.value += 1
  queue = queue.then(async () => {
    const answer = await api.keepPhoto(props.visit, crypto.randomUUID(), await shrunk(file), {
      of: of.value,
      ...(fact.value ? { fact: fact.value } : {}),
    })
    busy.value -= 1
    if (answer.state === 'failed') problem.value = answer.problem
    await list()
  })
}

async function note(photo: Photo, text: string) {
  const answer = await api.notePhoto(photo.id, text)
  if (answer.state === 'failed') problem.value = answer.problem
}

async function part(photo: Photo) {
  const answer = await api.deletePhoto(photo.id)
  if (answer.state === 'failed') problem.value = answer.problem
  await list()
}
</script>

<template>
  <section class="photos" :aria-label="$t('PhotoStrip.photos')">
    <div class="add">
      <span class="about-it"
        >{{ $t('PhotoStrip.aPhotoOf') }}
        <PickOne v-model="of" :options="OF" :label="$t('PhotoStrip.aPhotoOf')" data-testid="photo-of"
      /></span>
      <span v-if="catalogue && !props.fact" class="about-it"
        >{{ $t('PhotoStrip.forTheFact') }}
        <PickOne
          v-model="fact"
          :options="catalogue.facts.map((one) => ({ id: one.key, title: one.title }))"
          :none="$t('PhotoStrip.noneInParticular')"
          :label="$t('PhotoStrip.forTheFact2')"
      /></span>
      <PickFile
        accept="image/jpeg,image/png,image/webp,image/heic,image/heif"
        multiple
        :label="$t('PhotoStrip.addPhoto')"
        :busy="busy > 0"
        data-testid="photo"
        @picked="keep"
      />
    </div>
    <ProblemNote v-if="problem ?? unread" :problem="(problem ?? unread)!" />
    <p v-if="!shown.length" class="quiet">
      {{ $t('PhotoStrip.noPhotoYetTheyAre') }}
    </p>
    <ul v-else>
      <li v-for="photo in shown" :key="photo.id">
        <a :href="`/api/photos/${photo.id}`" target="_blank" rel="noopener"
          ><KeptPicture
            :photo="photo.id"
            :alt="photo.note || OF.find((one) => one.id === photo.of)?.title || ''"
        /></a>
        <span class="about"
          >{{ OF.find((one) => one.id === photo.of)?.title
          }}<template v-if="photo.fact_key">, {{ factTitle(photo.fact_key) }}</template></span
        >
        <KeptInput
          :value="photo.note"
          maxlength="200"
          :placeholder="$t('PhotoStrip.whatItShows')"
          :aria-label="$t('PhotoStrip.whatItShows2')"
          @keep="(text) => note(photo, text)"
        />
        <SureButton
          :asks="$t('PhotoStrip.deleteThisPhotoForGood')"
          :yes="$t('PhotoStrip.delete')"
          @sure="part(photo)"
          >{{ $t('PhotoStrip.delete') }}</SureButton
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.add {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding-bottom: 8px;
  color: var(--ink-soft);
}

.about-it {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}

.about-it .el-select {
  width: 220px;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  width: 160px;
}

img {
  display: block;
  border: 1px solid var(--rule-strong);
  object-fit: cover;
}

.about,
.quiet {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
