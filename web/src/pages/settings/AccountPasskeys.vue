<script setup lang="ts">
import { reactive, ref, shallowRef } from 'vue'
import { api, type Account } from '@/shared/api/client'
import { usePasskeys } from '@/shared/ui/usePasskeys'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import type { Problem } from '@/shared/model/outcome'
import { ago } from '@/shared/model/when'

/** Devices that open the account by knowing their person. */
const props = defineProps<{ account: Account }>()
const emit = defineEmits<{ changed: [] }>()
const { known } = usePasskeys()
const fields = reactive({ name: '', password: '' })
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)

/** The problem that came of it, if any. */
async function made(): Promise<Problem | null> {
  const asked = await api.askToMakePasskey(fields.password)
  if (asked.state !== 'ready') return asked.state === 'failed' ? asked.problem : null
  const passkeys = await import('@/shared/api/passkeys')
  const given = await passkeys.made(asked.value)
  if ('problem' in given) return given.problem
  const kept = await api.keepPasskey({ name: fields.name, challenge: asked.value.challenge, ...given })
  return kept.state === 'failed' ? kept.problem : null
}

async function make() {
  if (busy.value) return
  busy.value = true
  problem.value = await made()
  busy.value = false
  if (problem.value) return
  Object.assign(fields, { name: '', password: '' })
  emit('changed')
}

async function takeOff(id: string) {
  const gone = await api.removePasskey(id)
  problem.value = gone.state === 'failed' ? gone.problem : null
  emit('changed')
}
</script>

<template>
  <section data-testid="passkeys">
    <h2>{{ $t('AccountPasskeys.passkeys') }}</h2>
    <p class="settings-note">{{ $t('AccountPasskeys.aDeviceThatKnowsYou') }}</p>
    <ul v-if="props.account.passkeys.length" class="devices">
      <li v-for="one in props.account.passkeys" :key="one.id">
        <span>
          <b>{{ one.name }}</b>
          {{
            one.last_use
              ? $t('AccountPasskeys.opens', {
                  host: one.host,
                  since: ago(one.since),
                  last_use: ago(one.last_use),
                })
              : $t('AccountPasskeys.opensNever', { host: one.host, since: ago(one.since) })
          }}
        </span>
        <SureButton
          :asks="$t('AccountPasskeys.sure', { name: one.name })"
          :yes="$t('AccountPasskeys.takeOff')"
          testid="passkey-off"
          @sure="takeOff(one.id)"
          >{{ $t('AccountPasskeys.takeOff') }}</SureButton
        >
      </li>
    </ul>
    <p v-if="!known">{{ $t('AccountPasskeys.notHere') }}</p>
    <form v-else class="settings-row" @submit.prevent="make">
      <el-input
        v-model="fields.name"
        class="short"
        maxlength="60"
        :placeholder="$t('AccountPasskeys.name')"
        :aria-label="$t('AccountPasskeys.name')"
        data-testid="passkey-name"
      />
      <el-input
        v-model="fields.password"
        class="short"
        type="password"
        autocomplete="current-password"
        :placeholder="$t('AccountPasskeys.password')"
        :aria-label="$t('AccountPasskeys.password')"
        data-testid="passkey-password"
      />
      <el-button
        class="key"
        native-type="submit"
        :loading="busy"
        :disabled="!fields.name || !fields.password"
        data-testid="passkey-make"
        >{{ $t('AccountPasskeys.make') }}</el-button
      >
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.devices {
  display: grid;
  gap: 8px;
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
}

.devices li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px 16px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}

.short {
  max-width: 260px;
}
</style>
