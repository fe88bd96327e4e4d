<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { away, outbox, pictureHere } from '@/shared/kept/pocket'

/** A picture of a visit, small or whole: the server's, or, while it waits or there is no signal, the one that lies here. */
const props = defineProps<{ photo: string; alt: string; whole?: boolean }>()
const here = ref('')
const waits = computed(() => outbox.value.some((one) => one.chain === `photo.${props.photo}` && one.picture))

function letGo() {
  if (here.value) URL.revokeObjectURL(here.value)
  here.value = ''
}
watch(
  [() => props.photo, away, waits],
  async () => {
    const blob = away.value || waits.value ? await pictureHere(props.photo) : null
    letGo()
    if (blob) here.value = URL.createObjectURL(blob)
  },
  { immediate: true },
)
onBeforeUnmount(letGo)
</script>

<template>
  <img v-if="whole" :src="here || `/api/photos/${photo}`" :alt="alt" />
  <img
    v-else
    :src="here || `/api/photos/${photo}/small`"
    :alt="alt"
    width="160"
    height="120"
    loading="lazy"
  />
</template>
