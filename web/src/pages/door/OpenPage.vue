<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import DoorFrame from '@/pages/door/DoorFrame.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'

/** Where the start's own link leads: it opens and is gone from the address. */
const props = defineProps<{ openingKey: string }>()
const { openLocally, viewer } = useSession()
const router = useRouter()
const problem = shallowRef<Problem | null>(null)

onMounted(async () => {
  problem.value = await openLocally(props.openingKey)
  if (!problem.value || viewer.value) void router.replace('/')
})
</script>

<template>
  <DoorFrame :title="problem ? $t('OpenPage.thisLinkOpensNothing') : $t('OpenPage.opening')">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="problem">
      <RouterLink class="key" to="/">{{ $t('OpenPage.signIn') }}</RouterLink>
    </p>
  </DoorFrame>
</template>
