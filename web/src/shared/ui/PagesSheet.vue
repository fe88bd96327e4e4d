<script setup lang="ts">
import type { Visit } from '@/shared/api/client'
import SideSheet from '@/shared/ui/kit/SideSheet.vue'
import { MEANS, PAGES, SIGNS } from '@/shared/model/visitPages'

/** The pages of a visit in the order of work, each with how it stands: one below the other, for a thumb. */
defineProps<{ id: string; here: keyof Visit['marks'] | null; marks: Visit['marks'] | null }>()
const open = defineModel<boolean>({ required: true })
const pages = PAGES.filter((one) => one.path)
</script>

<template>
  <SideSheet v-model="open" :title="$t('PagesSheet.pagesOfTheVisit')" below class="pages-drawer">
    <el-steps direction="vertical" :active="pages.findIndex((one) => one.id === here)">
      <el-step v-for="page in pages" :key="page.id">
        <template #icon>
          <span :class="['sign', marks?.[page.id]]" aria-hidden="true">{{
            SIGNS[marks?.[page.id] ?? 'untouched']
          }}</span>
        </template>
        <template #title>
          <RouterLink
            :to="`/visits/${id}/${page.path}`"
            :aria-current="page.id === here ? 'page' : undefined"
            :data-testid="`page-${page.id}`"
            @click="open = false"
            ><b>{{ page.title }}</b>
            <span class="quiet">{{ marks && MEANS[marks[page.id]] }}</span></RouterLink
          >
        </template>
      </el-step>
    </el-steps>
  </SideSheet>
</template>

<style scoped>
a {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 12px;
  min-height: var(--target);
  padding-top: 10px;
  color: var(--ink);
  font-size: 18px;
  text-decoration: none;
}

a[aria-current] b {
  border-bottom: 4px solid var(--live);
}

.quiet {
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

:deep(.el-step.is-vertical .el-step__head) {
  width: 32px;
}

:deep(.el-step.is-vertical .el-step__icon) {
  width: 32px;
  height: var(--target);
  background: var(--panel);
}

:deep(.el-step__line) {
  display: none; /* between two signs it reads as one of them */
}

:deep(.el-step__main) {
  padding-left: 10px;
}

.sign {
  font-size: 22px;
  font-weight: 800;
}

.sign.disagrees {
  color: var(--alarm);
}
</style>
