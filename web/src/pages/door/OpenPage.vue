<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import DoorFrame from '@/pages/door/DoorFrame.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'

/** Where the start's own link leads: it opens and is gone from the address. */
const props = defineProps<{ openingKey: string }>()
const { openLocally, viewer } = useSession()
const router = useRouter()
const { t } = useI18n()
const busy = ref(false)
const problem = shallowRef<Problem | null>(null)
// Only who was refused has a link that is none; any other answer says nothing against it.
const refused = computed(() => [403, 422].includes(problem.value?.status ?? 0))
const title = computed(() => {
  if (!problem.value) return t('OpenPage.opening')
  return refused.value ? t('OpenPage.thisLinkOpensNothing') : t('OpenPage.notOpenedYet')
})

async function open() {
  busy.value = true
  problem.value = await openLocally(props.openingKey)
  busy.value = false
  if (!problem.value || viewer.value) void router.replace('/')
}

onMounted(open)
</script>

<template>
  <DoorFrame :title="title">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="problem && !refused">
      <el-button class="key solid" :loading="busy" data-testid="open-again" @click="open">{{
        $t('OpenPage.again')
      }}</el-button>
    </p>
    <p v-if="problem">
      <RouterLink class="key" to="/">{{ $t('OpenPage.signIn') }}</RouterLink>
    </p>
  </DoorFrame>
</template>
