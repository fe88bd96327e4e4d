<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { api, type Photo } from '@/shared/api/client'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import type { Problem } from '@/shared/model/outcome'
import { shrunk } from '@/shared/model/picture'
import KeptInput from '@/shared/ui/KeptInput.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{ visit: string; fact?: string }>()
const catalogue = useCatalogue()

const OF = [
  { id: 'panel_diagram', title: 'panel diagram' },
  { id: 'splice', title: 'splices' },
  { id: 'board_setting', title: 'board setting' },
  { id: 'thermostat', title: 'thermostat' },
  { id: 'other', title: 'something else' },
]
const photos = shallowRef<Photo[]>([])
const problem = shallowRef<Problem | null>(null)
const of = ref('panel_diagram')
const fact = ref(props.fact ?? '')
const busy = ref(0)
const parting = ref<string | null>(null)
const picker = ref<HTMLInputElement | null>(null)

const factTitle = (key: string | null) => catalogue.value?.facts.find((one) => one.key === key)?.title ?? ''
const shown = computed(() => photos.value.filter((one) => !props.fact || one.fact_key === props.fact))

async function list() {
  const answer = await api.photos(props.visit)
  if (answer.state === 'ready') photos.value = answer.value.photos
  else if (answer.state === 'failed') problem.value = answer.problem
}
void list()

async function keep(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  problem.value = null
  for (const file of files) {
    busy.value += 1
    const answer = await api.keepPhoto(props.visit, crypto.randomUUID(), await shrunk(file), {
      of: of.value,
      ...(fact.value ? { fact: fact.value } : {}),
    })
    busy.value -= 1
    if (answer.state === 'failed') problem.value = answer.problem
  }
  input.value = ''
  await list()
}

async function note(photo: Photo, text: string) {
  const answer = await api.notePhoto(photo.id, text)
  if (answer.state === 'failed') problem.value = answer.problem
}

/** Gone for good, so it takes two presses. */
async function part(photo: Photo) {
  if (parting.value !== photo.id) {
    parting.value = photo.id
    return
  }
  const answer = await api.deletePhoto(photo.id)
  if (answer.state === 'failed') problem.value = answer.problem
  parting.value = null
  await list()
}
</script>

<template>
  <section class="photos" aria-label="Photos">
    <div class="add">
      <label
        >A photo of
        <select v-model="of" data-testid="photo-of">
          <option v-for="one in OF" :key="one.id" :value="one.id">{{ one.title }}</option>
        </select></label
      >
      <label v-if="catalogue && !props.fact"
        >for the fact
        <select v-model="fact">
          <option value="">none in particular</option>
          <option v-for="one in catalogue.facts" :key="one.key" :value="one.key">{{ one.title }}</option>
        </select></label
      >
      <button class="key" type="button" :disabled="busy > 0" @click="picker?.click()">
        {{ busy ? 'Keeping …' : 'Add photo' }}
      </button>
      <input
        ref="picker"
        class="hidden-label"
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        aria-label="Photo"
        tabindex="-1"
        data-testid="photo"
        @change="keep"
      />
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!shown.length" class="quiet">
      No photo yet. They are shrunk, and where they were taken is left out.
    </p>
    <ul v-else>
      <li v-for="photo in shown" :key="photo.id">
        <a :href="`/api/photos/${photo.id}`" target="_blank" rel="noopener"
          ><img
            :src="`/api/photos/${photo.id}/small`"
            :alt="photo.note || OF.find((one) => one.id === photo.of)?.title"
            width="160"
            height="120"
            loading="lazy"
        /></a>
        <span class="about"
          >{{ OF.find((one) => one.id === photo.of)?.title
          }}<template v-if="photo.fact_key">, {{ factTitle(photo.fact_key) }}</template></span
        >
        <KeptInput
          :value="photo.note"
          maxlength="200"
          placeholder="what it shows"
          aria-label="What it shows"
          @keep="(text) => note(photo, text)"
        />
        <button class="key quiet" type="button" @click="part(photo)">
          {{ parting === photo.id ? 'Delete for good?' : 'Delete' }}
        </button>
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

select {
  max-width: 220px;
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

li input {
  min-height: var(--target);
  padding: 0 6px;
  border: 1px solid var(--rule);
  background: var(--panel);
}

.about,
.quiet {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
