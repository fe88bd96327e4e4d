<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Setting, type SettingsAnswer } from '@/shared/api/client'
import BenchList, { type Seen } from '@/desks/thermostat/BenchList.vue'
import FindingList from '@/shared/ui/FindingList.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SettingRow from '@/desks/thermostat/SettingRow.vue'
import StagingPanel from '@/desks/thermostat/StagingPanel.vue'
import { useQuestion } from '@/shared/api/useQuestion'
import { useHistory } from '@/shared/ui/useHistory'
import VisitHead from '@/shared/ui/VisitHead.vue'
import { useVisit } from '@/shared/ui/useVisit'
import type { Problem } from '@/shared/model/outcome'
import { SIGNS } from '@/shared/model/visitPages'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickTab from '@/shared/ui/kit/PickTab.vue'

const { t } = useI18n()
const props = defineProps<{ id: string }>()
const { visit, problem: keeping, saved, load, held, keepDesk, newer } = useVisit()
const history = useHistory<Record<string, unknown>>({})
const problem = shallowRef<Problem | null>(null)
const { value: listed, again: listProfiles } = useQuestion('setting_profiles', true, api.settingProfiles, {
  follows: false,
})
const profiles = computed(() => listed.value?.profiles ?? [])
const profile = ref<string | null>(null)
const name = ref('')
const ready = ref(false)

const TABS = [
  { id: 'stages', title: t('ThermostatPage.stagesOverTime') },
  { id: 'bench', title: t('ThermostatPage.atTheBench') },
] as const
const tab = ref<(typeof TABS)[number]['id']>('stages')
const settings = history.current
const { value: answer, problem: refusal } = useQuestion<
  { settings: Record<string, unknown>; rig: string | undefined },
  SettingsAnswer
>(
  `settings.${props.id}`,
  () => (ready.value ? { settings: settings.value, rig: visit.value?.rig_revision_id } : null),
  ({ settings }) => api.settings(props.id, settings),
)
watch(refusal, (now) => (problem.value = now))
const labels = computed(() => (held('thermostat').labels ?? {}) as Record<string, string>)
const ORDER: Record<Setting['verdict'], number> = { disagrees: 0, look: 1, agrees: 2, assumed: 2 }
const items = computed(() =>
  [...(answer.value?.items ?? [])].sort((a, b) => ORDER[a.verdict] - ORDER[b.verdict]),
)
const tally = computed(() => {
  const all = answer.value?.items ?? []
  const count = (verdict: string) => all.filter((one) => one.verdict === verdict).length
  return t('ThermostatPage.tally', { disagree: count('disagrees'), unread: count('assumed') })
})

watch(
  () => props.id,
  async (id) => {
    if (visit.value?.id !== id) await load(id)
    if (!visit.value) return
    history.restart((held('thermostat').settings ?? {}) as Record<string, unknown>)
    ready.value = true
  },
  { immediate: true },
)

watch(
  () => newer.value.thermostat,
  (version) => version && history.restart((held('thermostat').settings ?? {}) as Record<string, unknown>),
)

async function keep(next: Record<string, unknown>) {
  history.set(next)
  await keepAsIs()
}
async function keepAsIs() {
  await keepDesk('thermostat', { settings: settings.value })
}
const set = (key: string, value: unknown) => keep({ ...settings.value, [key]: value })
const clear = (key: string) =>
  keep(Object.fromEntries(Object.entries(settings.value).filter(([one]) => one !== key)))
const step = (by: 'undo' | 'redo') => {
  history[by]()
  return keepAsIs()
}

const keepLabels = (all: Record<string, string>) => keepDesk('thermostat', { labels: all })

async function label(key: string, text: string) {
  const rest = Object.fromEntries(Object.entries(labels.value).filter(([one]) => one !== key))
  await keepLabels(text.trim() ? { ...rest, [key]: text.trim() } : rest)
}

async function useProfile() {
  const chosen = profiles.value.find((one) => one.id === profile.value)
  if (chosen) await keepLabels({ ...labels.value, ...chosen.labels })
}
async function keepProfile() {
  const kept = await api.keepSettingProfile(crypto.randomUUID(), name.value.trim(), labels.value)
  problem.value = kept.state === 'failed' ? kept.problem : null
  if (kept.state !== 'ready') return
  name.value = ''
  profile.value = kept.value.id
  await listProfiles()
}
</script>

<template>
  <main class="thermostat">
    <VisitHead page="thermostat" :visit="visit" :kept="saved && !keeping">
      <p class="tally" data-testid="tally">
        {{ answer ? tally : '' }}
      </p>
      <el-button class="key" :disabled="!history.canUndo.value" data-testid="undo" @click="step('undo')">
        {{ $t('ThermostatPage.undo') }}
      </el-button>
      <el-button class="key" :disabled="!history.canRedo.value" data-testid="redo" @click="step('redo')">
        {{ $t('ThermostatPage.redo') }}
      </el-button>
    </VisitHead>
    <ProblemNote v-if="problem ?? keeping" :problem="(problem ?? keeping)!" />
    <p v-if="!answer && !problem" class="quiet">{{ $t('ThermostatPage.solvingEveryCall') }}</p>
    <div v-if="answer && visit && ready" class="work">
      <section class="settings" :aria-label="$t('ThermostatPage.settingsAgainstTheEquipment')">
        <SettingRow
          v-for="item in items"
          :key="item.key"
          :item="item"
          :read="item.key in settings"
          :label="labels[item.key] ?? ''"
          @set="(value) => set(item.key, value)"
          @clear="clear(item.key)"
          @label="(text) => label(item.key, text)"
        />
        <div class="profiles">
          <span class="ask"
            >{{ $t('ThermostatPage.makersNumbersFrom') }}
            <PickOne
              v-model="profile"
              :options="profiles.map((one) => ({ id: one.id, title: one.name }))"
              :placeholder="profiles.length ? $t('ThermostatPage.choose') : $t('ThermostatPage.noneKeptYet')"
              :label="$t('ThermostatPage.makersNumbersFrom')"
              data-testid="profile"
          /></span>
          <el-button class="key" :disabled="!profile" data-testid="use-profile" @click="useProfile">{{
            $t('ThermostatPage.use')
          }}</el-button>
          <label
            >{{ $t('ThermostatPage.keepTheseNumbersAs') }}
            <el-input
              v-model="name"
              maxlength="80"
              :placeholder="$t('ThermostatPage.wallModelRoundDial')"
              data-testid="profile-name"
          /></label>
          <el-button
            class="key"
            :disabled="!name.trim() || !Object.keys(labels).length"
            data-testid="keep-profile"
            @click="keepProfile"
          >
            {{ $t('ThermostatPage.keep') }}
          </el-button>
        </div>
      </section>
      <div class="right">
        <FindingList :findings="answer.findings" />
        <p
          v-if="answer.standing.mark !== 'disagrees'"
          :class="['fine', answer.standing.mark]"
          data-testid="settings-standing"
        >
          {{ SIGNS[answer.standing.mark] }} {{ answer.standing.says }}
        </p>
        <PickTab
          class="tabs"
          :tabs="TABS"
          :tab="tab"
          :label="$t('ThermostatPage.whatToLookAt')"
          @choose="(one) => (tab = one)"
        >
          <StagingPanel v-if="tab === 'stages'" :visit="visit" :settings="settings" />
          <BenchList
            v-else
            :lines="answer.bench"
            :terminals="answer.terminals"
            :seen="(held('thermostat').bench ?? {}) as Record<string, Seen>"
            @seen="(bench) => keepDesk('thermostat', { bench })"
          />
        </PickTab>
      </div>
    </div>
  </main>
</template>

<style scoped>
.thermostat {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 40px;
}

.tally {
  flex: none;
  width: 200px; /* the same before it is reckoned and after */
  color: var(--ink-soft);
}

.work {
  display: grid;
  grid-template-columns: minmax(0, 540px) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}

.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}

.profiles {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding-top: 12px;
  color: var(--ink-soft);
}

.profiles .el-select,
.profiles .el-input {
  width: 200px;
}

.fine {
  padding: 8px 12px;
  border-left: 6px solid var(--agrees);
  background: var(--panel);
}

.fine.so_far,
.fine.untouched {
  border-left-style: dashed;
  border-left-color: var(--between);
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 1040px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }

  .right {
    order: -1;
    align-content: start; /* rows are as high as what is in them, also while the rest is on its way */
    min-height: 100vh; /* a screen of its own, so that the settings under it do not move when it comes */
  }
}
</style>
