<template>
  <main class="nowhere">
    <h1>{{ $t('NowherePage.nothingLandsHere') }}</h1>
    <p>
      {{ $t('NowherePage.thisAddressLeadsToNo') }}
      <RouterLink to="/">{{ $t('NowherePage.backToTheDaySheet') }}</RouterLink>
    </p>
  </main>
</template>

<style scoped>
.nowhere {
  max-width: 700px;
  margin: 0 auto;
  padding: 60px 16px;
}
</style>
