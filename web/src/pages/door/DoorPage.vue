<script setup lang="ts">
import SignInForm from '@/pages/door/SignInForm.vue'
import DoorFrame from '@/pages/door/DoorFrame.vue'
import { useSession } from '@/shared/ui/useSession'

const { session } = useSession()
</script>

<template>
  <DoorFrame :title="$t('DoorPage.whoIsAtTheUnit')">
    <p v-if="session?.local" class="local" data-testid="local-hint">
      {{ $t('DoorPage.thisServerIsForThis') }} <b class="mono">{{ $t('DoorPage.binStart') }}</b>
      {{ $t('DoorPage.hasPrintedOnceItsOwner') }}
    </p>
    <SignInForm />
    <p class="lost">{{ $t('DoorPage.passwordLostTheOwnerOf') }}</p>
  </DoorFrame>
</template>

<style scoped>
.local {
  padding: 8px 12px;
  border-left: 6px solid var(--focus);
  background: var(--note-soft);
}

.lost {
  color: var(--ink-soft);
}
</style>
