import { createRouter, createWebHistory } from 'vue-router'
import type { Component } from 'vue'
import VisitsPage from '@/pages/visits/VisitsPage.vue'
import { bringWords, say } from '@/words'

/** A page with the words of its area, both fetched when it is first gone to. */
const page = (area: string, load: () => Promise<{ default: Component }>) => async () => {
  const [loaded] = await Promise.all([load(), bringWords(area)])
  return loaded
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: VisitsPage, meta: { title: say('router.visits') } },
    {
      path: '/visits/new',
      component: () => import('@/pages/visits/NewVisitPage.vue'),
      meta: { title: say('router.beginAVisit') },
    },
    {
      path: '/visits/:id/intake',
      component: page('intake', () => import('@/desks/intake/IntakePage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.intake') },
    },
    {
      path: '/visits/:id/fitted',
      component: page('fitted', () => import('@/desks/fitted/FittedPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.fitted') },
    },
    {
      path: '/visits/:id/wiring',
      component: page('wiring', () => import('@/desks/wiring/WiringPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.wiring') },
    },
    {
      path: '/visits/:id/thermostat',
      component: page('thermostat', () => import('@/desks/thermostat/ThermostatPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.thermostat') },
    },
    {
      path: '/visits/:id/defrost',
      component: page('defrost', () => import('@/desks/defrost/DefrostPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.defrost') },
    },
    {
      path: '/visits/:id/trace',
      component: page('trace', () => import('@/desks/trace/TracePage.vue')),
      props: (route) => ({ kind: 'visit', id: String(route.params.id) }),
      meta: { title: say('router.trace') },
    },
    {
      path: '/visits/:id/find',
      component: page('find', () => import('@/desks/find/FindPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.find') },
    },
    {
      path: '/visits/:id/close-out',
      component: page('close_out', () => import('@/desks/close_out/CloseOutPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.closeOut') },
    },
    {
      path: '/visits/:id/report/:number?',
      component: page('close_out', () => import('@/desks/close_out/ReportPage.vue')),
      props: (route) => ({
        id: String(route.params.id),
        number: route.params.number ? Number(route.params.number) : null,
      }),
      meta: { title: say('router.report') },
    },
    {
      path: '/visits/:id/road-map',
      component: page('find', () => import('@/desks/find/RoadMapPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.roadMap') },
    },
    {
      path: '/visits/:id/print',
      component: () => import('@/pages/PrintPage.vue'),
      props: (route) => ({ kind: 'visit', id: String(route.params.id) }),
      meta: { title: say('router.print') },
    },
    {
      path: '/rigs/:id/print',
      component: () => import('@/pages/PrintPage.vue'),
      props: (route) => ({ kind: 'rig', id: String(route.params.id) }),
      meta: { title: say('router.print') },
    },
    {
      path: '/recurring',
      component: () => import('@/pages/visits/RecurringPage.vue'),
      meta: { title: say('router.whatRecurs') },
    },
    {
      path: '/units/:id',
      component: page('units', () => import('@/pages/units/UnitPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.unit') },
    },
    {
      path: '/sites/:id',
      component: page('units', () => import('@/pages/units/SitePage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.site') },
    },
    {
      path: '/rigs',
      component: page('rigs', () => import('@/pages/rigs/RigsPage.vue')),
      meta: { title: say('router.rigs') },
    },
    {
      path: '/rigs/new',
      component: page('fitted', () => import('@/desks/fitted/ComposerPage.vue')),
      props: { id: null },
      meta: { title: say('router.composeARig') },
    },
    {
      path: '/rigs/new/rungs',
      component: page('rigs', () => import('@/pages/rigs/RungsPage.vue')),
      props: { id: null },
      meta: { title: say('router.typeRungs') },
    },
    {
      path: '/rigs/:id/rungs',
      component: page('rigs', () => import('@/pages/rigs/RungsPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.rungs') },
    },
    {
      path: '/rigs/:id',
      component: page('fitted', () => import('@/desks/fitted/ComposerPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.whatIsFitted') },
    },
    {
      path: '/rigs/:id/trace',
      component: page('trace', () => import('@/desks/trace/TracePage.vue')),
      props: (route) => ({ kind: 'rig', id: String(route.params.id) }),
      meta: { title: say('router.trace') },
    },
    {
      path: '/practice',
      component: page('practice', () => import('@/pages/practice/PracticePage.vue')),
      meta: { title: say('router.practice') },
    },
    {
      path: '/practice/tries/:id',
      component: page('practice', () => import('@/pages/practice/TryPage.vue')),
      props: (route) => ({ id: String(route.params.id) }),
      meta: { title: say('router.drill') },
    },
    {
      path: '/settings/:part?',
      component: page('settings', () => import('@/pages/settings/SettingsPage.vue')),
      props: (route) => ({ part: String(route.params.part || 'device') }),
      meta: { title: say('router.settings'), stays: 'settings' },
    },
    {
      path: '/open/:key',
      component: () => import('@/pages/door/OpenPage.vue'),
      props: (route) => ({ openingKey: String(route.params.key) }),
      meta: { title: say('router.opening'), door: true },
    },
    {
      path: '/welcome/:token',
      component: () => import('@/pages/door/WelcomePage.vue'),
      props: (route) => ({ token: String(route.params.token) }),
      meta: { title: say('router.welcome'), door: true },
    },
    {
      path: '/:anything(.*)*',
      component: () => import('@/pages/NowherePage.vue'),
      meta: { title: say('router.notFound') },
    },
  ],
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title ?? 'Gorvant')} · Gorvant`
})
