<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { api, type Person } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { useSession } from '@/shared/ui/useSession'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import CrewMark from '@/pages/settings/CrewMark.vue'
import ShownOnce from '@/pages/settings/ShownOnce.vue'
import type { Outcome, Problem } from '@/shared/model/outcome'
import { ago, moment } from '@/shared/model/when'

const ROLES = [
  { id: 'technician', title: 'Technician' },
  { id: 'apprentice', title: 'Apprentice' },
  { id: 'owner', title: 'Owner' },
]
const MAY: Record<string, string> = {
  technician: 'begins visits, keeps what is found',
  apprentice: 'reads and practices, changes nothing',
  owner: 'looks after people and devices too',
}

const { viewer } = useSession()
const { value: crew, outcome, again } = useQuestion('people', true, api.people, { follows: false })
const role = ref<string>('technician')
const shown = shallowRef<{ says: string; text: string } | null>(null)
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
const needsPassword = computed(() =>
  (crew.value?.people ?? []).some((one) => one.id === viewer.value?.id && !one.signs_in),
)

async function act<T>(asking: Promise<Outcome<T>>): Promise<T | null> {
  busy.value = true
  const answer = await asking
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  await again()
  return answer.state === 'ready' ? answer.value : null
}

async function showLink(asking: ReturnType<typeof api.invite>, says: string) {
  const link = await act(asking)
  if (link) shown.value = { says, text: location.origin + link.path }
}

const invite = () =>
  showLink(api.invite(role.value), `For one ${role.value}, once, within seven days. Hand it over yourself:`)
const wayBack = (person: Person) =>
  showLink(api.makeWayBack(person.id), `For ${person.name}, once, within a day: a new password.`)
</script>

<template>
  <div>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <section>
      <h2>Invite somebody</h2>
      <p v-if="needsPassword" class="settings-note" data-testid="password-first">
        Set your own password first, under
        <RouterLink to="/settings/account">My account</RouterLink>: with a second account the start's link
        opens nothing any more.
      </p>
      <template v-else>
        <div class="settings-row">
          <PickButtons v-model="role" :options="ROLES" label="As what they come in" testid="invite-as" />
          <el-button class="key solid" :loading="busy" data-testid="invite" @click="invite"
            >Make a link</el-button
          >
        </div>
        <p class="settings-note">{{ ROLES.find((one) => one.id === role)?.title }}: {{ MAY[role] }}.</p>
      </template>
      <ShownOnce v-if="shown" :says="shown.says" :text="shown.text" @done="shown = null" />
      <ProblemNote v-if="problem" :problem="problem" />
      <ul v-if="crew?.invitations.length" class="open" data-testid="invitations">
        <li v-for="one in crew.invitations" :key="one.id">
          <span
            >{{ one.for ? `A way back for ${one.for}` : `One ${one.role}` }}, until
            {{ moment(one.expires_at) }}</span
          >
          <el-button class="key quiet" @click="act(api.revokeInvitation(one.id))">Take it back</el-button>
        </li>
      </ul>
    </section>
    <section v-if="crew">
      <h2>In this crew</h2>
      <ul class="people" data-testid="people">
        <li v-for="person in crew.people" :key="person.id">
          <span class="who"
            ><b>{{ person.name }}</b
            ><small
              >{{ person.sign_in_name ?? 'no name to sign in by yet' }}, joined {{ ago(person.since) }}</small
            ></span
          >
          <PickOne
            :model-value="person.role"
            :options="ROLES"
            :label="`Role of ${person.name}`"
            @update:model-value="(to: string) => to !== person.role && act(api.giveRole(person.id, to))"
          />
          <template v-if="person.id !== viewer?.id">
            <el-button class="key" @click="wayBack(person)">New password</el-button>
            <SureButton
              :asks="`Close the account of ${person.name}? What they read stays under their name.`"
              yes="Close it"
              @sure="act(api.closeAccount(person.id))"
              >Close</SureButton
            >
          </template>
          <span v-else class="you">you</span>
        </li>
      </ul>
    </section>
    <CrewMark />
  </div>
</template>

<style scoped>
.open,
.people {
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
}

.open li,
.people li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}

.open span,
.who {
  flex: 1 1 220px;
  overflow-wrap: anywhere;
}

.people :deep(.pick) {
  flex: 0 0 170px;
}

.people li:first-child {
  border-top: 0;
}

b {
  font-size: 18px;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
}

.you {
  flex: 0 0 auto;
  min-width: var(--target);
  color: var(--ink-soft);
}
</style>
