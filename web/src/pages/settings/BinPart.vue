<script setup lang="ts">
import { shallowRef } from 'vue'
import { api, type Binned } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { useSession } from '@/shared/ui/useSession'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import type { Outcome, Problem } from '@/shared/model/outcome'
import { ago } from '@/shared/model/when'

const { viewer, mayChange } = useSession()
const { value: list, outcome, again } = useQuestion('bin', true, api.bin, { follows: false })
const { value: sites, again: listSites } = useQuestion('sites', true, api.sites, { follows: false })
const problem = shallowRef<Problem | null>(null)

async function act(asking: Promise<Outcome<{ title: string }>>) {
  const answer = await asking
  problem.value = answer.state === 'failed' ? answer.problem : null
  await Promise.all([again(), listSites()])
}

const days = (one: Binned) => Math.max(0, Math.ceil((Date.parse(one.goes_at) - Date.now()) / 86_400_000))
</script>

<template>
  <div>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <ProblemNote v-if="problem" :problem="problem" />
    <section>
      <h2>In the bin</h2>
      <p class="settings-note">
        What lies here is out of sight with all that belongs to it. After thirty days it goes for good,
        readings and photos too. A single visit is thrown away at the foot of its Intake page.
      </p>
      <p v-if="list && !list.binned.length" data-testid="bin-empty">Nothing lies here.</p>
      <ul v-if="list?.binned.length" data-testid="bin">
        <li v-for="one in list.binned" :key="one.kind + one.id">
          <span class="what"
            ><b>{{ one.title }}</b
            ><small
              >{{ one.kind.slice(0, -1) }}, thrown away {{ ago(one.binned_at)
              }}{{ one.by ? ` by ${one.by}` : '' }}; goes in {{ days(one) }} days</small
            ></span
          >
          <el-button
            v-if="mayChange"
            class="key"
            data-testid="take-out"
            @click="act(api.takeOut(one.kind, one.id))"
            >Take it out</el-button
          >
          <SureButton
            v-if="viewer?.owner"
            asks="Delete it now, with all that belongs to it? Nothing brings it back."
            yes="Delete for good"
            @sure="act(api.deleteForGood(one.kind, one.id))"
            >Delete now</SureButton
          >
        </li>
      </ul>
    </section>
    <section v-if="sites">
      <h2>Sites and units</h2>
      <p v-if="!sites.sites.length">No site yet: one is made with its first visit.</p>
      <ul data-testid="sites">
        <li v-for="site in sites.sites" :key="site.id">
          <span class="what"
            ><b>{{ site.name }}</b></span
          >
          <SureButton
            v-if="mayChange"
            :asks="`Put ${site.name} in the bin, with its units and their visits?`"
            yes="Into the bin"
            :label="`Throw away ${site.name}`"
            @sure="act(api.throwAway('sites', site.id))"
            >Throw away</SureButton
          >
          <ul>
            <li v-for="unit in site.units" :key="unit.id">
              <span class="what">{{ unit.name }}</span>
              <SureButton
                v-if="mayChange"
                :asks="`Put ${unit.name} in the bin, with its visits?`"
                yes="Into the bin"
                :label="`Throw away ${unit.name} of ${site.name}`"
                @sure="act(api.throwAway('units', unit.id))"
                >Throw away</SureButton
              >
            </li>
          </ul>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
ul {
  flex: 1 0 100%;
  margin: 0;
  padding: 0;
  list-style: none;
}

ul ul {
  padding-left: 22px;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 4px 0;
}

section > ul > li + li {
  border-top: 1px solid var(--rule);
}

.what {
  flex: 1 1 200px;
  overflow-wrap: anywhere;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
}
</style>
