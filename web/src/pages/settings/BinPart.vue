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
      <h2>{{ $t('BinPart.inTheBin') }}</h2>
      <p class="settings-note">
        {{ $t('BinPart.whatLiesHereIsOut') }}
      </p>
      <p v-if="list && !list.binned.length" data-testid="bin-empty">{{ $t('BinPart.nothingLiesHere') }}</p>
      <ul v-if="list?.binned.length" data-testid="bin">
        <li v-for="one in list.binned" :key="one.kind + one.id">
          <span class="what"
            ><b>{{ one.title }}</b
            ><small>{{
              $t('BinPart.thrownAwayGoesInDays', {
                kind: one.kind.slice(0, -1),
                ago: ago(one.binned_at),
                by: one.by ? $t('BinPart.by', { by: one.by }) : '',
                days: days(one),
              })
            }}</small></span
          >
          <el-button
            v-if="mayChange"
            class="key"
            data-testid="take-out"
            @click="act(api.takeOut(one.kind, one.id))"
            >{{ $t('BinPart.takeItOut') }}</el-button
          >
          <SureButton
            v-if="viewer?.owner"
            :asks="$t('BinPart.deleteItNowWithAll')"
            :yes="$t('BinPart.deleteForGood')"
            @sure="act(api.deleteForGood(one.kind, one.id))"
            >{{ $t('BinPart.deleteNow') }}</SureButton
          >
        </li>
      </ul>
    </section>
    <section v-if="sites">
      <h2>{{ $t('BinPart.sitesAndUnits') }}</h2>
      <p v-if="!sites.sites.length">{{ $t('BinPart.noSiteYetOneIs') }}</p>
      <ul data-testid="sites">
        <li v-for="site in sites.sites" :key="site.id">
          <span class="what"
            ><b>{{ site.name }}</b></span
          >
          <SureButton
            v-if="mayChange"
            :asks="$t('BinPart.putInTheBinWith', { name: site.name })"
            :yes="$t('BinPart.intoTheBin')"
            :label="$t('BinPart.throwAway2', { name: site.name })"
            @sure="act(api.throwAway('sites', site.id))"
            >{{ $t('BinPart.throwAway') }}</SureButton
          >
          <ul>
            <li v-for="unit in site.units" :key="unit.id">
              <span class="what">{{ unit.name }}</span>
              <SureButton
                v-if="mayChange"
                :asks="$t('BinPart.putInTheBinWith2', { name: unit.name })"
                :yes="$t('BinPart.intoTheBin')"
                :label="$t('BinPart.throwAwayOf', { name: unit.name, name2: site.name })"
                @sure="act(api.throwAway('units', unit.id))"
                >{{ $t('BinPart.throwAway') }}</SureButton
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
