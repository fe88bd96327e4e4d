<script setup lang="ts">
import { computed, reactive, shallowRef } from 'vue'
import { api, type Account } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ShownOnce from '@/pages/settings/ShownOnce.vue'
import type { Outcome, Problem } from '@/shared/model/outcome'

/** A one-time code from a device beside the password. */
const props = defineProps<{ account: Account }>()
const emit = defineEmits<{ changed: [] }>()
const secret = shallowRef<{ secret: string; svg: string } | null>(null)
const codes = shallowRef<string[] | null>(null)
const fields = reactive({ code: '', password: '' })
const problem = shallowRef<Problem | null>(null)
const picture = computed(() => `data:image/svg+xml,${encodeURIComponent(secret.value?.svg ?? '')}`)
const spaced = computed(() => secret.value?.secret.replace(/(.{4})/g, '$1 ').trim() ?? '')

function take<T>(answer: Outcome<T>): T | null {
  problem.value = answer.state === 'failed' ? answer.problem : null
  return answer.state === 'ready' ? answer.value : null
}

const begin = async () => (secret.value = take(await api.makeCodeSecret()))

async function keep() {
  const kept = take(
    await api.keepCodeSecret({
      secret: secret.value!.secret,
      code: fields.code,
      password: fields.password,
    }),
  )
  if (!kept) return
  codes.value = kept.recovery_codes
  secret.value = null
  Object.assign(fields, { code: '', password: '' })
  emit('changed')
}

async function drop() {
  if (!take(await api.dropCode(fields.password))) return
  fields.password = ''
  emit('changed')
}
</script>

<template>
  <section>
    <h2>{{ $t('AccountCode.oneTimeCode') }}</h2>
    <p class="settings-note">
      {{
        props.account.code
          ? $t('AccountCode.askedForAtEverySign', { recovery_codes_left: props.account.recovery_codes_left })
          : $t('AccountCode.aSecondThingThatOnly')
      }}
    </p>
    <ShownOnce
      v-if="codes"
      :says="$t('AccountCode.recoveryCodesForTheDay')"
      :text="codes.join('\n')"
      @done="codes = null"
    />
    <div v-if="!props.account.code && !secret" class="settings-row">
      <el-button class="key" data-testid="code-begin" @click="begin">{{
        $t('AccountCode.setItUp')
      }}</el-button>
    </div>
    <form v-if="secret" class="set-up" @submit.prevent="keep">
      <img :src="picture" :alt="$t('AccountCode.theSecretAsAPicture')" width="180" height="180" />
      <div>
        <p>
          {{ $t('AccountCode.scanThePictureOrType') }} <code data-testid="code-secret">{{ spaced }}</code>
        </p>
        <el-input
          v-model="fields.code"
          class="mono"
          :placeholder="$t('AccountCode.codeThatItShows')"
          :aria-label="$t('AccountCode.codeThatTheDeviceShows')"
          autocomplete="one-time-code"
          inputmode="numeric"
          data-testid="code-now"
        />
        <el-input
          v-model="fields.password"
          type="password"
          :placeholder="$t('AccountCode.yourPassword')"
          :aria-label="$t('AccountCode.yourPassword2')"
          autocomplete="current-password"
          data-testid="code-password"
        />
        <el-button class="key solid" native-type="submit" data-testid="code-keep">{{
          $t('AccountCode.askForItFromNow')
        }}</el-button>
      </div>
    </form>
    <form v-if="props.account.code" class="settings-row" @submit.prevent="drop">
      <el-input
        v-model="fields.password"
        class="drop"
        type="password"
        :placeholder="$t('AccountCode.yourPassword')"
        :aria-label="$t('AccountCode.yourPassword2')"
        autocomplete="current-password"
        data-testid="code-drop-password"
      />
      <el-button class="key" native-type="submit" data-testid="code-drop">{{
        $t('AccountCode.askForItNoMore')
      }}</el-button>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.set-up {
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
}

.set-up img {
  border: 2px solid var(--ink);
  background: var(--on-probe);
}

.set-up div {
  display: grid;
  flex: 1 1 260px;
  gap: 8px;
  max-width: 460px;
}

code {
  font-family: var(--font-mono);
  overflow-wrap: anywhere;
}

.drop {
  max-width: 260px;
}
</style>
