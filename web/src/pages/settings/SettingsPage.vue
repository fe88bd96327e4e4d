<script setup lang="ts">
import { computed, defineAsyncComponent, type Component } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import DevicePart from '@/pages/settings/DevicePart.vue'
import PickTab from '@/shared/ui/kit/PickTab.vue'
import { useSession } from '@/shared/ui/useSession'

const { t } = useI18n()
/** What is set on this device and for the person; the crew's people, devices and their trail are its owner's. */
const props = defineProps<{ part: string }>()
const { viewer } = useSession()
const router = useRouter()

const PARTS: Record<string, { title: string; owner?: true; server?: true; component: Component }> = {
  device: { title: t('SettingsPage.thisDevice'), component: DevicePart },
  account: {
    title: t('SettingsPage.myAccount'),
    component: defineAsyncComponent(() => import('@/pages/settings/AccountPart.vue')),
  },
  people: {
    title: t('SettingsPage.people'),
    owner: true,
    component: defineAsyncComponent(() => import('@/pages/settings/PeoplePart.vue')),
  },
  bin: {
    title: t('SettingsPage.sitesAndBin'),
    component: defineAsyncComponent(() => import('@/pages/settings/BinPart.vue')),
  },
  archive: {
    title: t('SettingsPage.archives'),
    component: defineAsyncComponent(() => import('@/pages/settings/ArchivePart.vue')),
  },
  devices: {
    title: t('SettingsPage.metersAndLoggers'),
    owner: true,
    component: defineAsyncComponent(() => import('@/pages/settings/DevicesPart.vue')),
  },
  crews: {
    title: t('SettingsPage.crews'),
    server: true,
    component: defineAsyncComponent(() => import('@/pages/settings/CrewsPart.vue')),
  },
  trail: {
    title: t('SettingsPage.whoDidWhat'),
    owner: true,
    component: defineAsyncComponent(() => import('@/pages/settings/TrailPart.vue')),
  },
}
const tabs = computed(() =>
  Object.entries(PARTS)
    .filter(([, one]) => (!one.owner || viewer.value?.owner) && (!one.server || viewer.value?.server_owner))
    .map(([id, one]) => ({ id, title: one.title })),
)
const part = computed(() => (tabs.value.some((one) => one.id === props.part) ? props.part : 'device'))
</script>

<template>
  <main class="settings">
    <h1>{{ $t('SettingsPage.settings') }}</h1>
    <PickTab
      :tabs="tabs"
      :tab="part"
      :label="$t('SettingsPage.partsOfTheSettings')"
      testid="settings"
      @choose="(id) => router.push(`/settings/${id}`)"
    >
      <component :is="PARTS[part]!.component" />
    </PickTab>
  </main>
</template>

<style>
.settings {
  max-width: 1000px;
  margin: 0 auto;
  padding: 16px 16px 40px;
}

.settings h1 {
  padding-bottom: 10px;
  font-size: 26px;
}

.settings h2 {
  padding: 14px 0 8px;
  font-size: 18px;
}

.settings section {
  margin-top: 18px;
  border-top: 3px solid var(--ink);
}

.settings .el-form {
  max-width: 460px;
}

.settings-row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding-top: 8px;
}

.settings-note {
  max-width: 68ch;
  padding: 6px 0 10px;
  color: var(--ink-soft);
}

/* Something that is shown once and never again. */
.settings-once {
  display: grid;
  gap: 8px;
  margin-top: 12px;
  padding: 10px 14px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.settings-once code {
  overflow-wrap: anywhere;
  font-family: var(--font-mono);
  font-size: 16px;
}
</style>
