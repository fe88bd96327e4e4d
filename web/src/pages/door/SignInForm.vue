<script setup lang="ts">
import { nextTick, ref, shallowRef } from 'vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useSession } from '@/shared/ui/useSession'
import { usePasskeys } from '@/shared/ui/usePasskeys'
import type { Problem } from '@/shared/model/outcome'

const emit = defineEmits<{ signedIn: [] }>()
const { signIn, signInByPasskey } = useSession()
const { possible, known } = usePasskeys()
const name = ref('')
const password = ref('')
const code = ref('')
/** The account asks for a one-time code too; told once the password was right. */
const wantsCode = ref(false)
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
const codeField = ref<{ focus(): void } | null>(null)

async function go() {
  if (busy.value) return
  busy.value = true
  const refused = await signIn(name.value, password.value, wantsCode.value ? code.value : null)
  busy.value = false
  const asksForCode = refused?.type.endsWith('code_wanted') ?? false
  problem.value = asksForCode ? null : refused
  if (asksForCode) {
    wantsCode.value = true
    await nextTick()
    codeField.value?.focus()
  } else if (!refused) {
    emit('signedIn')
  }
}

async function byPasskey() {
  if (busy.value) return
  busy.value = true
  problem.value = await signInByPasskey()
  busy.value = false
  if (!problem.value) emit('signedIn')
}
</script>

<template>
  <el-form class="door-form" label-position="top" @submit.prevent="go">
    <el-form-item :label="$t('SignInForm.name')" for="sign-in-name">
      <el-input
        id="sign-in-name"
        v-model="name"
        autocomplete="username"
        autocapitalize="none"
        spellcheck="false"
        autofocus
        data-testid="sign-in-name"
      />
    </el-form-item>
    <el-form-item :label="$t('SignInForm.password')" for="sign-in-password">
      <el-input
        id="sign-in-password"
        v-model="password"
        type="password"
        show-password
        autocomplete="current-password"
        data-testid="sign-in-password"
      />
    </el-form-item>
    <el-form-item v-if="wantsCode" :label="$t('SignInForm.codeThatYourDeviceShows')" for="sign-in-code">
      <el-input
        id="sign-in-code"
        ref="codeField"
        v-model="code"
        class="mono"
        autocomplete="one-time-code"
        inputmode="text"
        data-testid="sign-in-code"
      />
    </el-form-item>
    <ProblemNote v-if="problem" :problem="problem" />
    <el-button
      class="key solid wide"
      native-type="submit"
      :loading="busy"
      :disabled="!name || !password"
      data-testid="sign-in"
      >{{ $t('SignInForm.signIn') }}</el-button
    >
    <el-button
      v-if="possible && known"
      class="key wide by-passkey"
      :disabled="busy"
      data-testid="sign-in-passkey"
      @click="byPasskey"
      >{{ $t('SignInForm.byPasskey') }}</el-button
    >
  </el-form>
</template>

<style scoped>
.by-passkey {
  margin: 10px 0 0;
}
</style>
