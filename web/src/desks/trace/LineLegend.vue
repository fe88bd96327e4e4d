<template>
  <ul class="lines" :aria-label="$t('LineLegend.lineStyles')">
    <li><i class="sample live"></i> {{ $t('LineLegend.live') }}</li>
    <li><i class="sample home"></i> {{ $t('LineLegend.common') }}</li>
    <li><i class="sample dead"></i> {{ $t('LineLegend.dead') }}</li>
    <li><i class="sample floating"></i> {{ $t('LineLegend.floats') }}</li>
    <li><i class="sample between"></i> {{ $t('LineLegend.between') }}</li>
    <li><b>≠</b> {{ $t('LineLegend.broken') }}</li>
  </ul>
</template>

<style scoped>
.lines {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 0 auto 0 0;
  padding: 0;
  list-style: none;
  color: var(--ink-soft);
  font-size: 14px;
}

li {
  display: inline-flex;
  align-items: center;
  gap: 7px;
}

b {
  color: var(--alarm);
}

.sample {
  display: inline-block;
  width: 30px;
  border-top: 2px solid var(--dead);
}

.sample.live {
  border-top: 6px solid var(--live);
}

.sample.home {
  border-top: 6px double var(--home);
}

.sample.floating {
  border-top: 3px dotted var(--dead);
}

.sample.between {
  border-top: 4px dashed var(--between);
}
</style>
