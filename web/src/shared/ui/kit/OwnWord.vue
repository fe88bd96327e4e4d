<script setup lang="ts">
/** A word of ours where it is first met: what it means comes by pointing at it, by the keyboard or by a tap. */
defineProps<{ means: string }>()
</script>

<template>
  <el-tooltip :content="means" :trigger="['hover', 'focus', 'click']" popper-class="own-word" placement="top">
    <dfn tabindex="0"><slot /></dfn>
  </el-tooltip>
</template>

<style scoped>
dfn {
  font-style: normal;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
  cursor: help;
}
</style>
