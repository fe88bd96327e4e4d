<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useQuestion } from '@/shared/api/useQuestion'
import type { Problem } from '@/shared/model/outcome'
import { useSession } from '@/shared/ui/useSession'
import { chooseUnit, QUANTITIES, unitChosen, unitsOf, type Quantity } from '@/shared/model/units'
import { storedTheme, storeTheme, type Theme } from '@/pages/settings/theme'

const { t } = useI18n()
const THEMES: { id: Theme; title: string }[] = [
  { id: 'light', title: t('DevicePart.lightForSun') },
  { id: 'dark', title: t('DevicePart.darkForTheAttic') },
  { id: 'system', title: t('DevicePart.asTheDevice') },
]
const TITLES: Record<Quantity, string> = {
  temperature: t('DevicePart.temperatures'),
  pressure: t('DevicePart.pressures'),
  length: t('DevicePart.cableLengths'),
}

const { viewer } = useSession()
const theme = ref(storedTheme())
const { outcome: demo, again } = useQuestion('demo', true, api.demo, { follows: false })
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)

function choose(id: Theme) {
  theme.value = id
  storeTheme(id)
}

async function act(asking: typeof api.restoreDemo) {
  busy.value = true
  const answer = await asking()
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  await again()
}
</script>

<template>
  <div>
    <section>
      <h2>{{ $t('DevicePart.lightAndDark') }}</h2>
      <div class="settings-row" role="group" :aria-label="$t('DevicePart.theme')">
        <el-button
          v-for="one in THEMES"
          :key="one.id"
          class="key"
          :aria-pressed="theme === one.id"
          @click="choose(one.id)"
        >
          {{ one.title }}
        </el-button>
      </div>
    </section>
    <section>
      <h2>{{ $t('DevicePart.units') }}</h2>
      <div
        v-for="quantity in QUANTITIES"
        :key="quantity"
        class="settings-row unit"
        role="group"
        :aria-label="TITLES[quantity]"
      >
        <span>{{ TITLES[quantity] }}</span>
        <el-button
          v-for="unit in unitsOf(quantity)"
          :key="unit"
          class="key"
          :aria-pressed="unitChosen(quantity) === unit"
          :data-testid="`unit-${unit}`"
          @click="chooseUnit(quantity, unit)"
        >
          {{ unit }}
        </el-button>
      </div>
    </section>
    <section v-if="viewer?.owner">
      <h2>{{ $t('DevicePart.demoData') }}</h2>
      <p>
        {{ $t('DevicePart.theMadeUpVillageOf') }}
      </p>
      <div v-if="demo.state === 'ready'" class="settings-row">
        <el-button
          v-if="demo.value.present"
          class="key"
          :disabled="busy"
          data-testid="demo-remove"
          @click="act(api.removeDemo)"
        >
          {{ $t('DevicePart.removeTheDemoData') }}
        </el-button>
        <el-button
          v-else
          class="key"
          :disabled="busy"
          data-testid="demo-restore"
          @click="act(api.restoreDemo)"
        >
          {{ $t('DevicePart.bringItBack') }}
        </el-button>
      </div>
      <ProblemNote v-if="problem" :problem="problem" />
    </section>
  </div>
</template>

<style scoped>
.unit + .unit {
  margin-top: 6px;
}

.unit span {
  min-width: 9em;
}
</style>
