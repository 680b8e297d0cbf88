/** Of the equipment, visits and certificates that are filled in, the twelfth. */
const one = (kind: number) => `00000000-0000-7000-${kind}-00000000000c`

/** What somebody opens. */
export interface Read {
  readonly name: string
  /** `{today}` stands for the day. */
  readonly path: string
  /** Whether there is more than a page of it, in an order that has its index. */
  readonly pages: boolean
  /** Who opens it: a planner, where nothing is said. */
  readonly by?: 'technician' | 'administrator'
}

/** What people open, the first thing of a day first. */
export const READS: readonly Read[] = [
  {
    name: 'today, technician',
    path: '/api/v1/visits?on={today}&limit=200',
    pages: false,
    by: 'technician',
  },
  { name: 'today, planner', path: '/api/v1/visits?on={today}&limit=200', pages: false },
  {
    name: 'today, left under way',
    path: '/api/v1/visits?before={today}&state=under-way&limit=50',
    pages: false,
  },
  {
    name: 'today, left planned',
    path: '/api/v1/visits?before={today}&state=planned&limit=50',
    pages: false,
  },
  { name: 'a piece of equipment', path: `/api/v1/equipment/${one(8003)}`, pages: false },
  { name: 'its history', path: `/api/v1/equipment/${one(8003)}/history`, pages: false },
  { name: 'a visit', path: `/api/v1/visits/${one(8004)}`, pages: false },
  { name: 'a certificate', path: `/api/v1/certificates/${one(8005)}`, pages: false },
  { name: 'stock', path: '/api/v1/stock', pages: false },
  { name: 'equipment, by tag', path: '/api/v1/equipment', pages: true },
  { name: 'equipment, by site', path: '/api/v1/equipment?sort=site', pages: true },
  { name: 'equipment, by due date', path: '/api/v1/equipment?sort=due', pages: true },
  { name: 'equipment, latest due first', path: '/api/v1/equipment?sort=-due', pages: true },
  { name: 'due board, overdue', path: '/api/v1/equipment?due=overdue&sort=due', pages: true },
  { name: 'due board, soon', path: '/api/v1/equipment?due=soon&sort=due', pages: true },
  {
    name: 'failed, by repair date',
    path: '/api/v1/equipment?condition=failed&sort=repair',
    pages: false,
  },
  {
    name: 'equipment of a family',
    path: '/api/v1/equipment?family=reduced-pressure-assembly',
    pages: true,
  },
  { name: 'search: serial', path: '/api/v1/equipment?q=L700007', pages: false },
  { name: 'search: tag', path: '/api/v1/equipment?q=RP-S000012', pages: false },
  { name: 'search: address and number', path: '/api/v1/equipment?q=hospital+4242', pages: false },
  { name: 'certificates', path: '/api/v1/certificates', pages: true },
  { name: 'certificates, current', path: '/api/v1/certificates?state=current', pages: true },
  { name: 'certificates, void', path: '/api/v1/certificates?state=void', pages: false },
  { name: 'certificates, by number', path: '/api/v1/certificates?q=SC-2026-000017', pages: false },
  { name: 'certificates, by site', path: '/api/v1/certificates?q=Laundry', pages: true },
  { name: 'visits', path: '/api/v1/visits?scope=all', pages: true },
  { name: 'visits, signed', path: '/api/v1/visits?scope=all&state=signed', pages: true },
  { name: 'visits, planned', path: '/api/v1/visits?scope=all&state=planned', pages: false },
  { name: 'sites', path: '/api/v1/sites', pages: false },
  { name: 'sites, by words', path: '/api/v1/sites?q=Laundry', pages: false },
  { name: 'customers', path: '/api/v1/customers', pages: true },
  { name: 'customers, by words', path: '/api/v1/customers?q=Laundry', pages: false },
  { name: 'audit', path: '/api/v1/audit', pages: true, by: 'administrator' },
  {
    name: 'audit, of a person',
    path: '/api/v1/audit?person=0f6ce408-d5bd-7e27-9b55-17e0dbc7d612',
    pages: false,
    by: 'administrator',
  },
]
