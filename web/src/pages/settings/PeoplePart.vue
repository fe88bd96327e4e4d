<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
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

const { t } = useI18n()
const ROLES = [
  { id: 'technician', title: t('PeoplePart.technician') },
  { id: 'apprentice', title: t('PeoplePart.apprentice') },
  { id: 'owner', title: t('PeoplePart.owner') },
]
const MAY: Record<string, string> = {
  technician: t('PeoplePart.beginsVisitsKeepsWhat'),
  apprentice: t('PeoplePart.readsAndPracticesChanges'),
  owner: t('PeoplePart.looksAfterPeopleAnd'),
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

const invite = () => showLink(api.invite(role.value), t('PeoplePart.linkForOne', { role: role.value }))
const wayBack = (person: Person) =>
  showLink(api.makeWayBack(person.id), t('PeoplePart.linkForPerson', { name: person.name }))
</script>

<template>
  <div>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <div v-if="!crew && outcome.state !== 'failed'" class="until-there" />
    <section v-if="crew">
      <h2>{{ $t('PeoplePart.inviteSomebody') }}</h2>
      <p v-if="needsPassword" class="settings-note" data-testid="password-first">
        {{ $t('PeoplePart.setYourOwnPasswordFirst') }}
        <RouterLink to="/settings/account">{{ $t('PeoplePart.myAccount') }}</RouterLink>{{
          $t('PeoplePart.withASecondAccountThe')
        }}
      </p>
      <template v-else>
        <div class="settings-row">
          <PickButtons
            v-model="role"
            :options="ROLES"
            :label="$t('PeoplePart.asWhatTheyComeIn')"
            testid="invite-as"
          />
          <el-button class="key solid" :loading="busy" data-testid="invite" @click="invite">{{
            $t('PeoplePart.makeALink')
          }}</el-button>
        </div>
        <p class="settings-note">{{ ROLES.find((one) => one.id === role)?.title }}: {{ MAY[role] }}.</p>
      </template>
      <ShownOnce v-if="shown" :says="shown.says" :text="shown.text" @done="shown = null" />
      <ProblemNote v-if="problem" :problem="problem" />
      <ul v-if="crew.invitations.length" class="open" data-testid="invitations">
        <li v-for="one in crew.invitations" :key="one.id">
          <span>{{
            $t('PeoplePart.until', {
              for: one.for
                ? $t('PeoplePart.aWayBackFor', { for: one.for })
                : $t('PeoplePart.one', { role: one.role }),
              moment: moment(one.expires_at),
            })
          }}</span>
          <el-button class="key quiet" @click="act(api.revokeInvitation(one.id))">{{
            $t('PeoplePart.takeItBack')
          }}</el-button>
        </li>
      </ul>
    </section>
    <section v-if="crew">
      <h2>{{ $t('PeoplePart.inThisCrew') }}</h2>
      <ul class="people" data-testid="people">
        <li v-for="person in crew.people" :key="person.id">
          <span class="who"
            ><b>{{ person.name }}</b
            ><small>{{
              $t('PeoplePart.joined', {
                sign_in_name: person.sign_in_name ?? $t('PeoplePart.noNameToSignIn'),
                ago: ago(person.since),
              })
            }}</small></span
          >
          <PickOne
            :model-value="person.role"
            :options="ROLES"
            :label="$t('PeoplePart.roleOf', { name: person.name })"
            @update:model-value="(to: string) => to !== person.role && act(api.giveRole(person.id, to))"
          />
          <template v-if="person.id !== viewer?.id">
            <el-button class="key" @click="wayBack(person)">{{ $t('PeoplePart.newPassword') }}</el-button>
            <SureButton
              :asks="$t('PeoplePart.closeTheAccountOfWhat', { name: person.name })"
              :yes="$t('PeoplePart.closeIt')"
              @sure="act(api.closeAccount(person.id))"
              >{{ $t('PeoplePart.close') }}</SureButton
            >
          </template>
          <span v-else class="you">{{ $t('PeoplePart.you') }}</span>
        </li>
      </ul>
    </section>
    <CrewMark v-if="crew" />
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
