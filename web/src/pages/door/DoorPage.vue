<script setup lang="ts">
import SignInForm from '@/pages/door/SignInForm.vue'
import DoorFrame from '@/pages/door/DoorFrame.vue'
import { useSession } from '@/shared/ui/useSession'

const { session } = useSession()
</script>

<template>
  <DoorFrame title="Who is at the unit?">
    <p v-if="session?.local" class="local" data-testid="local-hint">
      This server is for this machine alone. It opens by the link that <b class="mono">bin/start</b> has
      printed; once its owner has a password, by that too.
    </p>
    <SignInForm />
    <p class="lost">Password lost? The owner of your crew makes you a new way in, under Settings, People.</p>
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
