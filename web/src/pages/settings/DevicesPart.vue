<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import ShownOnce from '@/pages/settings/ShownOnce.vue'
import type { Problem } from '@/shared/model/outcome'
import { ago } from '@/shared/model/when'

const { t } = useI18n()
const SCOPES = [
  { id: 'readings', title: t('DevicesPart.readingsOfAMeter') },
  { id: 'log_rows', title: t('DevicesPart.rowsOfALogger') },
  { id: 'stand_in', title: t('DevicesPart.aStandInFor') },
] as const
const { value: list, outcome, again } = useQuestion('devices', true, api.devices, { follows: false })
const name = ref('')
const scope = ref<(typeof SCOPES)[number]['id']>('readings')
const token = shallowRef<{ name: string; text: string } | null>(null)
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
/** One id until it was answered: a retry makes no second device. */
let id = crypto.randomUUID()

async function make() {
  if (busy.value || !name.value.trim()) return
  busy.value = true
  const answer = await api.makeDevice(id, name.value.trim(), scope.value)
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  id = crypto.randomUUID()
  token.value = { name: answer.value.device.name, text: answer.value.token }
  name.value = ''
  await again()
}

async function revoke(device: string) {
  const answer = await api.revokeDevice(device)
  problem.value = answer.state === 'failed' ? answer.problem : null
  await again()
}
</script>

<template>
  <div>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <section>
      <h2>{{ $t('DevicesPart.letADeviceWrite') }}</h2>
      <p class="settings-note">
        {{ $t('DevicesPart.itGetsATokenOf') }}
      </p>
      <form class="settings-row" @submit.prevent="make">
        <el-input
          v-model="name"
          class="name"
          maxlength="80"
          :placeholder="$t('DevicesPart.whatYouCallIt')"
          :aria-label="$t('DevicesPart.whatYouCallTheDevice')"
          data-testid="device-name"
        />
        <PickButtons
          v-model="scope"
          :options="SCOPES"
          :label="$t('DevicesPart.whatItMayWrite')"
          testid="device-scope"
        />
        <el-button
          class="key solid"
          native-type="submit"
          :loading="busy"
          :disabled="!name.trim()"
          data-testid="device-make"
          >{{ $t('DevicesPart.makeAToken') }}</el-button
        >
      </form>
      <ShownOnce
        v-if="token"
        :says="$t('DevicesPart.tokenOf', { name: token.name })"
        :text="token.text"
        @done="token = null"
      />
      <ProblemNote v-if="problem" :problem="problem" />
    </section>
    <section v-if="list">
      <h2>{{ $t('DevicesPart.devices') }}</h2>
      <p v-if="!list.devices.length" class="settings-note">{{ $t('DevicesPart.noneYet') }}</p>
      <ul class="devices" data-testid="devices">
        <li v-for="one in list.devices" :key="one.id" :class="{ gone: one.revoked_at }">
          <span class="what"
            ><b>{{ one.name }}</b
            ><small
              >{{ SCOPES.find((scoped) => scoped.id === one.scope)?.title }};
              {{
                one.revoked_at
                  ? $t('DevicesPart.revoked', { ago: ago(one.revoked_at) })
                  : one.last_seen_at
                    ? $t('DevicesPart.lastHeard', { ago: ago(one.last_seen_at) })
                    : $t('DevicesPart.neverHeardOfYet')
              }}</small
            ></span
          >
          <SureButton
            v-if="!one.revoked_at"
            solid
            :asks="$t('DevicesPart.revokeWhatItWroteStays', { name: one.name })"
            :yes="$t('DevicesPart.revoke')"
            testid="device-revoke"
            @sure="revoke(one.id)"
            >{{ $t('DevicesPart.revoke') }}</SureButton
          >
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.name {
  flex: 1 1 200px;
  max-width: 320px;
}

.devices {
  margin: 0;
  padding: 0;
  list-style: none;
}

.devices li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 8px 0;
}

.devices li + li {
  border-top: 1px solid var(--rule);
}

.what {
  flex: 1 1 220px;
  overflow-wrap: anywhere;
}

.gone b {
  text-decoration: line-through;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
}
</style>
