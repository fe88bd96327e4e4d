<template>
  <main class="nowhere">
    <h1>Nothing lands here</h1>
    <p>This address leads to no page. <RouterLink to="/">Back to the day sheet</RouterLink></p>
  </main>
</template>

<style scoped>
.nowhere {
  max-width: 700px;
  margin: 0 auto;
  padding: 60px 16px;
}
</style>
