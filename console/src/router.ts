import { createRouter, createWebHistory } from 'vue-router'
import { PLACE } from './api/place'
import { useSession } from './composables/session'

export const router = createRouter({
  history: createWebHistory(PLACE || undefined),
  routes: [
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('./pages/sign-in/SignInPage.vue'),
      meta: { open: true },
    },
    { path: '/', name: 'home', component: () => import('./pages/home/HomePage.vue') },
    { path: '/model', name: 'model', component: () => import('./pages/model/ModelPage.vue') },
    {
      path: '/model/routes/:route',
      name: 'route',
      component: () => import('./pages/model/RoutePage.vue'),
      props: true,
    },
    {
      path: '/model/:object',
      name: 'object',
      component: () => import('./pages/model/ObjectPage.vue'),
      props: true,
    },
    {
      path: '/packages',
      name: 'packages',
      component: () => import('./pages/packages/PackagesPage.vue'),
    },
    {
      path: '/packages/file/:path(.*)',
      name: 'file',
      component: () => import('./pages/packages/FilePage.vue'),
      props: true,
    },
    {
      path: '/data/:object?',
      name: 'data',
      component: () => import('./pages/data/DataPage.vue'),
      props: true,
    },
    {
      path: '/data/:object/record/:key',
      name: 'record',
      component: () => import('./pages/data/RecordPage.vue'),
      props: true,
    },
    {
      path: '/data/:object/new',
      name: 'new-record',
      component: () => import('./pages/data/RecordPage.vue'),
      props: true,
    },
    {
      path: '/services/:service?',
      name: 'services',
      component: () => import('./pages/services/ServicesPage.vue'),
      props: true,
    },
    {
      path: '/services/:service/design',
      name: 'design',
      component: () => import('./pages/services/DesignPage.vue'),
      props: true,
    },
    {
      path: '/activity/:trace?',
      name: 'activity',
      component: () => import('./pages/activity/ActivityPage.vue'),
      props: true,
    },
    {
      path: '/requirements',
      name: 'requirements',
      component: () => import('./pages/requirements/RequirementsPage.vue'),
    },
    {
      path: '/requirements/write/:path(.*)',
      name: 'requirement-writer',
      component: () => import('./pages/requirements/WriterPage.vue'),
    },
    {
      path: '/connections',
      name: 'connections',
      component: () => import('./pages/connections/ConnectionsPage.vue'),
    },
    {
      path: '/connections/:name',
      name: 'connection',
      component: () => import('./pages/connections/ConnectionPage.vue'),
      props: true,
    },
    {
      path: '/webhooks',
      name: 'webhooks',
      component: () => import('./pages/webhooks/WebhooksPage.vue'),
    },
    { path: '/access', name: 'access', component: () => import('./pages/access/AccessPage.vue') },
    { path: '/releases', name: 'releases', component: () => import('./pages/releases/ReleasesPage.vue') },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./pages/NowherePage.vue') },
  ],
})

router.beforeEach(async (to) => {
  const { me, load } = useSession()
  await load()
  if (PLACE && me.value === null) {
    // People sign in to the service itself.
    location.replace('/sign-in')
    return false
  }
  if (!to.meta.open && (me.value === null || me.value.temporary)) {
    return { name: 'sign-in', query: to.fullPath === '/' ? {} : { then: to.fullPath } }
  }
  return true
})
