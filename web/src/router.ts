import type { Role } from '@uvanta/contract'
import {
  createRouter,
  createWebHistory,
  type RouteLocation,
  type RouteRecordRaw,
  type Router,
} from 'vue-router'
import { useSession } from './stores/session'

declare module 'vue-router' {
  interface RouteMeta {
    /** Anyone may see it, signed in or not. */
    public?: boolean
    roles?: readonly Role[]
  }
}

const office: RouteRecordRaw['meta'] = { roles: ['administrator'] }

export const routes: RouteRecordRaw[] = [
  { path: '/', name: 'today', component: () => import('./views/today/TodayView.vue') },
  {
    path: '/sign-in',
    name: 'sign-in',
    component: () => import('./views/account/SignInView.vue'),
    meta: { public: true },
  },
  { path: '/account', name: 'account', component: () => import('./views/account/AccountView.vue') },
  {
    path: '/equipment',
    name: 'equipment-list',
    component: () => import('./views/equipment/EquipmentListView.vue'),
  },
  {
    path: '/equipment/new',
    name: 'equipment-new',
    component: () => import('./views/equipment/EquipmentFormView.vue'),
    meta: { roles: ['planner', 'administrator'] },
  },
  {
    path: '/equipment/import',
    name: 'equipment-import',
    component: () => import('./views/equipment/importing/ImportView.vue'),
    meta: { roles: ['planner', 'administrator'] },
  },
  {
    path: '/equipment/:id',
    name: 'equipment',
    component: () => import('./views/equipment/EquipmentView.vue'),
    props: true,
  },
  {
    path: '/equipment/:id/change',
    name: 'equipment-change',
    component: () => import('./views/equipment/EquipmentFormView.vue'),
    props: true,
    meta: { roles: ['planner', 'administrator'] },
  },
  {
    path: '/visits/:id',
    name: 'visit',
    component: () => import('./views/visit/VisitView.vue'),
    props: true,
  },
  {
    path: '/visits/:id/paper/:run(as-found|as-left)',
    name: 'paper-form',
    component: () => import('./views/visit/PaperFormView.vue'),
    props: true,
  },
  {
    path: '/visits/:id/provisional',
    name: 'provisional',
    component: () => import('./views/visit/ProvisionalView.vue'),
    props: true,
  },
  {
    path: '/visits/:id/record',
    name: 'visit-record',
    component: () => import('./views/visit/RecordView.vue'),
    props: true,
  },
  {
    path: '/waiting',
    name: 'waiting',
    component: () => import('./views/waiting/WaitingView.vue'),
  },
  {
    path: '/certificates',
    name: 'certificate-list',
    component: () => import('./views/certificate/CertificateListView.vue'),
  },
  {
    path: '/certificates/:id',
    name: 'certificate',
    component: () => import('./views/certificate/CertificateView.vue'),
    props: true,
  },
  {
    path: '/verify/:code?',
    name: 'verify',
    component: () => import('./views/verify/VerifyView.vue'),
    props: true,
    meta: { public: true },
  },
  {
    path: '/library',
    name: 'library',
    component: () => import('./views/library/LibraryView.vue'),
  },
  {
    path: '/library/guides/:id',
    name: 'guide',
    component: () => import('./views/library/GuideView.vue'),
    props: true,
  },
  {
    path: '/library/machines/:id',
    name: 'machine',
    component: () => import('./views/library/MachineView.vue'),
    props: true,
  },
  {
    path: '/library/packs/:id',
    name: 'pack',
    component: () => import('./views/library/PackView.vue'),
    props: true,
  },
  {
    path: '/library/procedures/:id',
    name: 'procedure',
    component: () => import('./views/library/ProcedureView.vue'),
    props: true,
  },
  {
    path: '/library/sheets/:id',
    name: 'sheet',
    component: () => import('./views/library/SheetView.vue'),
    props: true,
  },
  {
    path: '/stock',
    name: 'stock',
    component: () => import('./views/office/StockView.vue'),
    meta: { roles: ['planner', 'administrator', 'technician'] },
  },
  {
    path: '/workbench',
    name: 'workbench',
    component: () => import('./views/workbench/WorkbenchView.vue'),
  },
  {
    path: '/office/people',
    name: 'people',
    component: () => import('./views/office/PeopleView.vue'),
    meta: office,
  },
  {
    path: '/office/customers',
    name: 'customers',
    component: () => import('./views/office/CustomersView.vue'),
    meta: { roles: ['planner', 'administrator'] },
  },
  {
    path: '/office/gauges',
    name: 'gauges',
    component: () => import('./views/office/GaugesView.vue'),
    meta: office,
  },
  {
    path: '/office/keys',
    name: 'keys',
    component: () => import('./views/office/KeysView.vue'),
    meta: office,
  },
  {
    path: '/office/settings',
    name: 'settings',
    component: () => import('./views/office/SettingsView.vue'),
    meta: office,
  },
  {
    path: '/office/audit',
    name: 'audit',
    component: () => import('./views/office/AuditView.vue'),
    meta: office,
  },
  {
    path: '/:rest(.*)*',
    name: 'nowhere',
    component: () => import('./views/NowhereView.vue'),
    meta: { public: true },
  },
]

/** Has the code of a place fetched while it is still asked who is there. */
function fetchView({ matched }: RouteLocation): void {
  for (const { components } of matched) {
    const view = components?.default
    // What cannot be fetched is said where the place opens.
    if (typeof view === 'function') (view as () => Promise<unknown>)().catch(() => undefined)
  }
}

export function makeRouter(): Router {
  const router = createRouter({
    history: createWebHistory(),
    routes,
    // What is opened first is at its top: nothing has to be measured for that.
    scrollBehavior: (_to, from) => (from.matched.length === 0 ? false : { top: 0 }),
  })
  router.beforeEach(async (to) => {
    if (to.meta.public) return true
    const session = useSession()
    if (!session.known) {
      fetchView(to)
      await session.load().catch(() => undefined)
    }
    if (!session.person) return { name: 'sign-in', query: { to: to.fullPath } }
    // Until the own sign-in is in order, nothing opens but the page where it is seen to.
    const { mustChangePassword, mustSetSecondFactor } = session.person
    if ((mustChangePassword || mustSetSecondFactor) && to.name !== 'account')
      return { name: 'account' }
    // The first administrator says what the utility is before anything else.
    if (to.name === 'today' && !session.isSetUp && session.has('administrator'))
      return { name: 'settings' }
    if (to.meta.roles && !session.has(...to.meta.roles)) return { name: 'today' }
    return true
  })
  return router
}
