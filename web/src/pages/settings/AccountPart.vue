<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import type { FormInstance } from 'element-plus'
import { ElMessageBox } from 'element-plus/es/components/message-box/index'
import 'element-plus/es/components/message-box/style/css'
import { notSent } from '@/shared/kept/pocket'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { useSession } from '@/shared/ui/useSession'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import AccountCode from '@/pages/settings/AccountCode.vue'
import AccountPasskeys from '@/pages/settings/AccountPasskeys.vue'
import { usePasskeys } from '@/shared/ui/usePasskeys'
import { NAME_RULE, PASSWORD_RULE } from '@/shared/model/signInRules'
import type { Problem } from '@/shared/model/outcome'
import { ago } from '@/shared/model/when'

const { t } = useI18n()
const { viewer, signOut } = useSession()
const { possible } = usePasskeys()
const { value: account, outcome, again } = useQuestion('account', true, api.account, { follows: false })
const form = ref<FormInstance | null>(null)
const fields = reactive({ sign_in_name: '', current_password: '', password: '' })
const rules = computed(() => ({
  sign_in_name: account.value?.sign_in_name ? [] : NAME_RULE,
  current_password: account.value?.has_password
    ? [{ required: true, message: t('AccountPart.giveTheOneOf') }]
    : [],
  password: PASSWORD_RULE,
}))
const problem = shallowRef<Problem | null>(null)
const kept = ref(false)
const busy = ref(false)

async function keep() {
  if (busy.value || !(await form.value?.validate().catch(() => false))) return
  busy.value = true
  const answer = await api.setPassword({
    password: fields.password,
    sign_in_name: fields.sign_in_name || undefined,
    current_password: fields.current_password || undefined,
  })
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  kept.value = answer.state === 'ready'
  if (answer.state !== 'ready') return
  Object.assign(fields, { sign_in_name: '', current_password: '', password: '' })
  await again()
}

/** What was never sent goes with the person: that is asked first. */
async function leave() {
  if (notSent.value) {
    const says = t('AccountPart.neverSent', { count: notSent.value })
    const sure = await ElMessageBox.confirm(says, t('AccountPart.notSentYet'), {
      confirmButtonText: t('AccountPart.signOutAndLose'),
      cancelButtonText: t('AccountPart.staySignedIn'),
    }).catch(() => null)
    if (!sure) return
  }
  problem.value = await signOut()
}

async function signOutElsewhere() {
  const answer = await api.signOutEverywhere()
  problem.value = answer.state === 'failed' ? answer.problem : null
  await again()
}

/** What a browser calls itself, in the words that people know it by. */
function device(agent: string): string {
  const system = ['Android', 'iPhone', 'iPad', 'Windows', 'Mac OS', 'Linux'].find((one) =>
    agent.includes(one),
  )
  const browser = ['Firefox', 'Edg', 'Chrome', 'Safari'].find((one) => agent.includes(one))
  return [browser?.replace('Edg', 'Edge'), system].filter(Boolean).join(' on ') || 'A browser'
}
</script>

<template>
  <div>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <section v-if="account">
      <h2>{{ $t('AccountPart.of', { name: account.name, role: viewer?.role, crew: viewer?.crew }) }}</h2>
      <div class="settings-row">
        <el-button class="key" data-testid="sign-out" @click="leave">{{
          $t('AccountPart.signOut')
        }}</el-button>
      </div>
    </section>
    <section v-if="account">
      <h2>
        {{ account.has_password ? $t('AccountPart.anotherPassword') : $t('AccountPart.nameAndPassword') }}
      </h2>
      <p v-if="!account.has_password" class="settings-note">
        {{ $t('AccountPart.soFarThisBrowserCame') }}
      </p>
      <p v-else class="settings-note">
        {{ $t('AccountPart.youSignInAs') }} <b class="mono">{{ account.sign_in_name }}</b>{{
          $t('AccountPart.withAnotherPasswordEveryOther')
        }}
      </p>
      <el-form
        ref="form"
        :model="fields"
        :rules="rules"
        :validate-on-rule-change="false"
        label-position="top"
        @submit.prevent="keep"
      >
        <el-form-item
          v-if="!account.sign_in_name"
          :label="$t('AccountPart.nameToSignInBy')"
          prop="sign_in_name"
          for="account-name"
        >
          <el-input
            id="account-name"
            v-model="fields.sign_in_name"
            autocomplete="username"
            autocapitalize="none"
            spellcheck="false"
            data-testid="account-name"
          />
        </el-form-item>
        <el-form-item
          v-if="account.has_password"
          :label="$t('AccountPart.passwordOfNow')"
          prop="current_password"
          for="account-now"
        >
          <el-input
            id="account-now"
            v-model="fields.current_password"
            type="password"
            show-password
            autocomplete="current-password"
            data-testid="account-now"
          />
        </el-form-item>
        <el-form-item
          :label="$t('AccountPart.newPasswordTenCharactersOr')"
          prop="password"
          for="account-password"
        >
          <el-input
            id="account-password"
            v-model="fields.password"
            type="password"
            show-password
            autocomplete="new-password"
            data-testid="account-password"
          />
        </el-form-item>
        <ProblemNote v-if="problem" :problem="problem" />
        <div class="settings-row">
          <el-button class="key solid" native-type="submit" :loading="busy" data-testid="account-keep">{{
            $t('AccountPart.keepIt')
          }}</el-button>
          <span v-if="kept" role="status" data-testid="account-kept">{{
            $t('AccountPart.keptItHoldsFromNow')
          }}</span>
        </div>
      </el-form>
    </section>
    <AccountCode v-if="account?.has_password" :account="account" @changed="again" />
    <AccountPasskeys v-if="account?.has_password && possible" :account="account" @changed="again" />
    <section v-if="account">
      <h2>{{ $t('AccountPart.whereYouAreSignedIn') }}</h2>
      <ul class="sessions" data-testid="sessions">
        <li v-for="one in account.sessions" :key="one.since + one.agent">
          {{
            $t('AccountPart.sinceLastUsed', {
              device: device(one.agent),
              ago: ago(one.since),
              ago2: ago(one.last_use),
            })
          }}
        </li>
      </ul>
      <div v-if="account.sessions.length > 1" class="settings-row">
        <el-button class="key" data-testid="sign-out-everywhere" @click="signOutElsewhere">{{
          $t('AccountPart.signOutEverywhereButHere')
        }}</el-button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.sessions {
  margin: 0;
  padding-left: 20px;
}
</style>
