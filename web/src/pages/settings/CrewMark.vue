<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { api } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import type { Problem } from '@/shared/model/outcome'

/** The picture that stands on the crew's reports. */
const problem = shallowRef<Problem | null>(null)
const says = ref('')

async function keep(file: File) {
  const answer = await api.keepCrewMark(file)
  problem.value = answer.state === 'failed' ? answer.problem : null
  says.value = answer.state === 'ready' ? '= On every report from now on.' : ''
}
async function drop() {
  const answer = await api.dropCrewMark()
  problem.value = answer.state === 'failed' ? answer.problem : null
  says.value = answer.state === 'ready' ? '= Reports carry no mark.' : ''
}
</script>

<template>
  <section>
    <h2>{{ $t('CrewMark.theCrewsMark') }}</h2>
    <p class="settings-note">{{ $t('CrewMark.aPictureForTheHead') }}</p>
    <p class="keys">
      <PickFile
        accept="image/*"
        :label="$t('CrewMark.chooseAPicture')"
        data-testid="crew-mark"
        @picked="keep"
      />
      <el-button class="key quiet" data-testid="no-mark" @click="drop">{{
        $t('CrewMark.withoutAMark')
      }}</el-button>
    </p>
    <p v-if="says" role="status">{{ says }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
