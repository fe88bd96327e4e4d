<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ShownOnce from '@/pages/settings/ShownOnce.vue'
import type { Problem } from '@/shared/model/outcome'
import { ago } from '@/shared/model/when'

const { value: list, outcome, again } = useQuestion('crews', true, api.crews, { follows: false })
const name = ref('')
const link = shallowRef<{ crew: string; text: string } | null>(null)
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)

async function make() {
  if (busy.value || !name.value.trim()) return
  busy.value = true
  const answer = await api.makeCrew(name.value.trim())
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  link.value = { crew: name.value.trim(), text: location.origin + answer.value.path }
  name.value = ''
  await again()
}
</script>

<template>
  <div>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <section>
      <h2>{{ $t('CrewsPart.anotherCrewOnThisServer') }}</h2>
      <p class="settings-note">
        {{ $t('CrewsPart.itHasItsOwnSites') }}
      </p>
      <form class="settings-row" @submit.prevent="make">
        <el-input
          v-model="name"
          class="name"
          maxlength="80"
          :placeholder="$t('CrewsPart.nameOfTheCrew')"
          :aria-label="$t('CrewsPart.nameOfTheCrew2')"
          data-testid="crew-name"
        />
        <el-button
          class="key solid"
          native-type="submit"
          :loading="busy"
          :disabled="!name.trim()"
          data-testid="crew-make"
          >{{ $t('CrewsPart.makeIt') }}</el-button
        >
      </form>
      <ShownOnce
        v-if="link"
        :says="$t('CrewsPart.linkForOwner', { crew: link.crew })"
        :text="link.text"
        @done="link = null"
      />
      <ProblemNote v-if="problem" :problem="problem" />
    </section>
    <section v-if="list">
      <h2>{{ $t('CrewsPart.crews') }}</h2>
      <ul data-testid="crews">
        <li v-for="one in list.crews" :key="one.id">
          <b>{{ one.name }}</b>{{
            $t('CrewsPart.since', {
              people: one.people,
              people2: one.people === 1 ? $t('CrewsPart.person') : $t('CrewsPart.people'),
              ago: ago(one.since),
            })
          }}
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

ul {
  margin: 0;
  padding-left: 20px;
}

li {
  padding: 4px 0;
  overflow-wrap: anywhere;
}
</style>
