import { onBeforeUnmount, ref } from 'vue'

/** Whether a media query holds, as it changes. */
export function useScreen(query: string) {
  const media = matchMedia(query)
  const holds = ref(media.matches)
  const update = () => (holds.value = media.matches)
  media.addEventListener('change', update)
  onBeforeUnmount(() => media.removeEventListener('change', update))
  return holds
}
