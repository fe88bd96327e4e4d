<script setup lang="ts">
import { ElButton } from 'element-plus/es/components/button/index'
import 'element-plus/es/components/button/style/css'
import { ElDialog } from 'element-plus/es/components/dialog/index'
import 'element-plus/es/components/dialog/style/css'
import type { RigFile } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'

/** Two people changed the same things of one rig: whose word stands is for a person to say. */
defineProps<{ problem: Problem }>()
defineEmits<{ stands: [rig: RigFile]; later: [] }>()
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="$t('RigMeanwhile.somebodyChangedTheSameMeanwhile')"
    width="min(640px, calc(100vw - 24px))"
    :close-on-click-modal="false"
    :show-close="false"
    data-testid="meanwhile"
    @close="$emit('later')"
  >
    <table>
      <thead>
        <tr>
          <th scope="col">{{ $t('RigMeanwhile.what') }}</th>
          <th scope="col">{{ $t('RigMeanwhile.theirs') }}</th>
          <th scope="col">{{ $t('RigMeanwhile.mine') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in problem.both" :key="one.field">
          <th scope="row">{{ one.title }}</th>
          <td>{{ one.before ?? $t('RigMeanwhile.notThere') }}</td>
          <td>{{ one.after ?? $t('RigMeanwhile.notThere') }}</td>
        </tr>
      </tbody>
    </table>
    <p>{{ $t('RigMeanwhile.allElseThatEitherOf') }}</p>
    <template #footer>
      <div class="choices">
        <ElButton size="large" data-testid="later" @click="$emit('later')">{{
          $t('RigMeanwhile.notYet')
        }}</ElButton>
        <ElButton
          size="large"
          :disabled="!problem.theirs_stand"
          data-testid="theirs"
          @click="problem.theirs_stand && $emit('stands', problem.theirs_stand)"
          >{{ $t('RigMeanwhile.theirsStands') }}</ElButton
        >
        <ElButton
          size="large"
          type="primary"
          :disabled="!problem.mine_stands"
          data-testid="mine"
          @click="problem.mine_stands && $emit('stands', problem.mine_stands)"
          >{{ $t('RigMeanwhile.mineStands') }}</ElButton
        >
      </div>
    </template>
  </ElDialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 8px 10px;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
  overflow-wrap: anywhere;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
}

.choices > * {
  min-height: var(--target);
  margin: 0;
}

p {
  margin-top: 10px;
  color: var(--ink-soft);
}
</style>
