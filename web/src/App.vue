<script setup lang="ts">
import { computed, onMounted, watch } from 'vue'
import { useRoute } from 'vue-router'
import { signedOut } from '@/shared/api/client'
import { renewed, somebodyElse, waiting } from '@/shared/api/patient'
import { answers } from '@/shared/api/useQuestion'
import { away, sessionEnded } from '@/shared/kept/pocket'
import { newVersion, reloadAnew } from '@/shared/kept/shell'
import AppHeader from '@/shared/ui/AppHeader.vue'
import DoorPage from '@/pages/door/DoorPage.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SignInForm from '@/pages/door/SignInForm.vue'
import { useSession } from '@/shared/ui/useSession'

const route = useRoute()
const { session, problem, load } = useSession()
onMounted(load)
// What waits is its person's to send.
watch(sessionEnded, (ended) => ended && (signedOut.value = true))
// What could not be answered is asked again when there is signal.
watch(away, (now) => {
  if (!now) void answers.refetchQueries({ predicate: (query) => query.state.status === 'error' })
})

/** Pages that lead in are for anybody; every other one is for who has come in. */
const shows = computed(() => {
  if (route.meta.door) return 'page'
  if (!session.value) return problem.value ? 'problem' : 'nothing'
  return session.value.signed_in || signedOut.value ? 'page' : 'door'
})
</script>

<template>
  <AppHeader />
  <div class="over">
    <p v-if="waiting" class="waiting" role="status" data-testid="waiting">
      {{ $t('App.noAnswerFromTheServer') }}
    </p>
    <p v-if="somebodyElse" class="waiting" role="alert" data-testid="somebody-else">
      {{ $t('App.somebodyElseHasSignedIn') }}
      <el-button class="key" @click="reloadAnew">{{ $t('App.loadThePageAnew') }}</el-button>
    </p>
    <p v-if="renewed || newVersion" class="waiting" role="status" data-testid="renewed">
      {{ $t('App.gorvantHasBeenRenewedSince') }}
      <el-button class="key" @click="reloadAnew">{{ $t('App.reloadIt') }}</el-button>
    </p>
  </div>
  <RouterView v-if="shows === 'page'" v-slot="{ Component, route: shown }">
    <component :is="Component" :key="(shown.meta.stays as string) ?? shown.path" />
  </RouterView>
  <DoorPage v-else-if="shows === 'door'" />
  <ProblemNote v-else-if="shows === 'problem'" :problem="problem!" />
  <el-dialog
    v-if="shows === 'page'"
    :model-value="signedOut"
    :title="$t('App.yourSessionHasEnded')"
    width="min(460px, calc(100vw - 24px))"
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    data-testid="signed-out"
  >
    <p class="stays">{{ $t('App.whatYouTypedStaysOn') }}</p>
    <SignInForm />
  </el-dialog>
</template>

<style scoped>
/* Over the page and not in it: nothing moves under the finger. */
.over {
  position: sticky;
  top: 0;
  z-index: 30;
  height: 0;
}

.stays {
  padding-bottom: 12px;
}

.waiting {
  padding: 8px 16px;
  border-bottom: 3px dashed var(--between);
  background: var(--note-soft);
  color: var(--ink);
  font-weight: 650;
}
</style>
