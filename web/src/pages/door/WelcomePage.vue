<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import type { FormInstance, FormRules } from 'element-plus'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import DoorFrame from '@/pages/door/DoorFrame.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'
import { NAME_RULE, PASSWORD_RULE } from '@/shared/model/signInRules'

const { t } = useI18n()
/** A one-time link of an owner: somebody new comes in, or somebody comes back by a new password. */
const props = defineProps<{ token: string }>()
const { accept, viewer } = useSession()
const router = useRouter()
const { outcome } = useQuestion('invitation', () => props.token, api.lookAtInvitation, { follows: false })
const look = computed(() => (outcome.value.state === 'ready' ? outcome.value.value : null))
const comesBack = computed(() => look.value?.for ?? null)
const form = ref<FormInstance | null>(null)
const fields = reactive({ name: '', sign_in_name: '', password: '' })
const rules: FormRules = {
  name: [{ required: true, message: t('WelcomePage.readingsStandUnderThis') }],
  sign_in_name: NAME_RULE,
  password: PASSWORD_RULE,
}
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)

async function go() {
  if (busy.value || !(await form.value?.validate().catch(() => false))) return
  busy.value = true
  problem.value = await accept({
    token: props.token,
    password: fields.password,
    name: fields.name || undefined,
    sign_in_name: fields.sign_in_name || undefined,
  })
  busy.value = false
  if (!problem.value) void router.replace('/')
}
</script>

<template>
  <DoorFrame
    :title="
      look
        ? comesBack
          ? $t('WelcomePage.backAgain', { comesBack })
          : $t('WelcomePage.join', { crew: look.crew })
        : $t('WelcomePage.aWayIn')
    "
  >
    <p v-if="outcome.state === 'failed'">
      {{ $t('WelcomePage.thisLinkOpensNothingAny') }}
    </p>
    <template v-if="look">
      <p v-if="viewer" class="other">
        {{ $t('WelcomePage.youAreSignedInAs', { name: viewer.name }) }}
      </p>
      <p v-if="comesBack">
        {{ $t('WelcomePage.setANewPasswordAll') }}
      </p>
      <p v-else>
        {{ $t('WelcomePage.youComeInAs') }} <b>{{ look.role }}</b>.
        {{
          look.role === 'apprentice'
            ? $t('WelcomePage.youReadAndPracticeWhat')
            : look.role === 'owner'
              ? $t('WelcomePage.youLookAfterThePeople')
              : $t('WelcomePage.youBeginVisitsAndKeep')
        }}
      </p>
      <el-form ref="form" :model="fields" :rules="rules" label-position="top" @submit.prevent="go">
        <el-form-item
          v-if="!comesBack"
          :label="$t('WelcomePage.yourNameAsTheCrew')"
          prop="name"
          for="welcome-name"
        >
          <el-input
            id="welcome-name"
            v-model="fields.name"
            maxlength="80"
            autocomplete="name"
            data-testid="welcome-name"
          />
        </el-form-item>
        <el-form-item
          v-if="!look.sign_in_name"
          :label="$t('WelcomePage.nameToSignInBy')"
          prop="sign_in_name"
          for="welcome-sign-in-name"
        >
          <el-input
            id="welcome-sign-in-name"
            v-model="fields.sign_in_name"
            autocomplete="username"
            autocapitalize="none"
            spellcheck="false"
            data-testid="welcome-sign-in-name"
          />
        </el-form-item>
        <p v-else class="known">
          {{ $t('WelcomePage.youSignInAs') }} <b class="mono">{{ look.sign_in_name }}</b>
        </p>
        <el-form-item
          :label="$t('WelcomePage.passwordTenCharactersOrMore')"
          prop="password"
          for="welcome-password"
        >
          <el-input
            id="welcome-password"
            v-model="fields.password"
            type="password"
            show-password
            autocomplete="new-password"
            data-testid="welcome-password"
          />
        </el-form-item>
        <ProblemNote v-if="problem" :problem="problem" />
        <el-button class="key solid wide" native-type="submit" :loading="busy" data-testid="welcome-go">{{
          $t('WelcomePage.comeIn')
        }}</el-button>
      </el-form>
    </template>
  </DoorFrame>
</template>

<style scoped>
.other {
  padding: 8px 12px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.known {
  padding-bottom: 12px;
}
</style>
