<script setup lang="ts">
/** What stands before everything else: one sheet with a thermostat wire's eight conductors on its edge. */
defineProps<{ title: string }>()
const CONDUCTORS = ['red', 'blue', 'yellow', 'green', 'orange', 'white', 'brown', 'black']
</script>

<template>
  <main class="door">
    <div class="cable" aria-hidden="true">
      <i v-for="color in CONDUCTORS" :key="color" :style="{ background: `var(--wire-${color})` }"></i>
    </div>
    <div class="sheet">
      <h1>{{ title }}</h1>
      <slot />
    </div>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  grid-template-columns: auto minmax(0, 460px);
  justify-content: center;
  align-content: start;
  gap: 0 28px;
  padding: clamp(24px, 9vh, 96px) 16px 40px;
}

.cable {
  display: flex;
  gap: 5px;
  padding-right: 10px;
  border-right: 3px solid var(--ink);
}

.cable i {
  width: 6px;
  border: 1px solid var(--wire-outline);
}

.sheet {
  display: grid;
  gap: 14px;
  align-content: start;
  min-height: 380px;
}

h1 {
  font-size: 32px;
  line-height: 1.1;
}

@media (max-width: 600px) {
  .door {
    grid-template-columns: 1fr;
    gap: 16px;
  }

  .cable {
    flex-direction: column;
    padding: 0 0 10px;
    border-right: 0;
    border-bottom: 3px solid var(--ink);
  }

  .cable i {
    width: auto;
    height: 6px;
  }
}
</style>
