<script setup lang="ts">
/** What comes over a page from its edge. Its head is a heading and a key: the library's own would be one more banner. */
defineOptions({ inheritAttrs: false })
defineProps<{ title: string; below?: boolean }>()
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <el-drawer
    v-model="open"
    :direction="below ? 'btt' : 'rtl'"
    :size="below ? 'auto' : 'min(520px, 100vw)'"
    :title="title"
    :with-header="false"
    append-to-body
    v-bind="$attrs"
  >
    <div class="sheet-head">
      <h2>{{ title }}</h2>
      <el-button
        class="key shut"
        :aria-label="$t('SideSheet.close')"
        data-testid="sheet-close"
        @click="open = false"
        ><span aria-hidden="true">×</span></el-button
      >
    </div>
    <slot />
  </el-drawer>
</template>

<style scoped>
.sheet-head {
  position: sticky;
  top: calc(-1 * var(--el-drawer-padding-primary));
  z-index: 1;
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin: calc(-1 * var(--el-drawer-padding-primary)) 0 8px;
  padding: 6px 0;
  background: var(--panel);
}

h2 {
  font-size: 18px;
}

.shut {
  min-width: var(--target);
  font-size: 22px;
}
</style>
