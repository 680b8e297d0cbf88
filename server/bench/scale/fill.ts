import type { Sequelize } from 'sequelize'

/** How large a utility is made. */
export interface Size {
  readonly sites: number
  readonly equipment: number
  readonly visits: number
  readonly eventsOfVisit: number
  readonly audit: number
}

/** A utility of 200,000 pieces of equipment, two million entries in its logs. */
export const UTILITY: Size = {
  sites: 20_000,
  equipment: 200_000,
  visits: 91_000,
  eventsOfVisit: 22,
  audit: 300_000,
}

const NAMES = ['Seagate', 'Ropewalk', 'Mill', 'Harbour', 'Foundry', 'Orchard', 'Quarry', 'Chapel']
const WHAT = ['Hospital', 'Bath', 'Laundry', 'School', 'Bakery', 'Brewery', 'Depot', 'Nursery']
const KINDS = ['RP', 'DC', 'PVB', 'SVB', 'DCDA', 'RPDA']

/** One of a list by a number that spreads them. */
const pick = (list: readonly string[], seq: string) =>
  `ELT(1 + MOD(${seq}, ${list.length}), ${list.map((w) => `'${w}'`).join(', ')})`
/** Ids of a kind, by number. */
const id = (kind: number, seq: string) =>
  `CAST(CONCAT('00000000-0000-7000-${kind}-', LPAD(HEX(${seq}), 12, '0')) AS UUID)`
const numbers = (count: number) => `seq_1_to_${count} n`

/** Statements that fill a register of that size beside what is there, in the database’s own rows. */
export function fillStatements(size: Size, today: string): string[] {
  const { sites, equipment, visits, eventsOfVisit, audit } = size
  const siteOf = (seq: string) => `1 + MOD(${seq} * 7919, ${sites})`
  const siteName = (seq: string) =>
    `CONCAT(${pick(NAMES, seq)}, ' ', ${pick(WHAT, `${seq} DIV 8`)}, ' ', ${seq})`
  const planned = `DATE_SUB('${today}', INTERVAL MOD(n.seq * 13, 1500) DAY)`
  return [
    `INSERT INTO customer (id, name) SELECT ${id(8001, 'n.seq')}, CONCAT('Customer ', n.seq) FROM ${numbers(Math.ceil(sites / 4))}`,
    `INSERT INTO site (id, customer_id, name, address, district)
     SELECT ${id(8002, 'n.seq')}, ${id(8001, '1 + n.seq DIV 5')}, ${siteName('n.seq')},
       CONCAT(n.seq, ' ', ${pick(NAMES, 'n.seq DIV 3')}, ' Street'), ${pick(NAMES, 'n.seq DIV 64')}
     FROM ${numbers(sites)}`,
    `INSERT INTO equipment (id, site_id, tag, family, kind, size_in, serial, maker, service, position,
       programme, anchor_on, search_text, site_name)
     SELECT ${id(8003, 'n.seq')}, ${id(8002, siteOf('n.seq'))}, CONCAT(${pick(KINDS, 'n.seq')}, '-S', LPAD(n.seq, 6, '0')),
       'reduced-pressure-assembly', ${pick(KINDS, 'n.seq')}, '2', CONCAT('L', n.seq * 7), 'Maker A', 'water', 'Plant room',
       'backflow-annual', DATE_SUB(DATE_ADD('${today}', INTERVAL MOD(n.seq, 420) DAY), INTERVAL 60 DAY),
       CONCAT_WS(' ', CONCAT(${pick(KINDS, 'n.seq')}, '-S', LPAD(n.seq, 6, '0')), CONCAT('L', n.seq * 7), ${pick(KINDS, 'n.seq')},
         'Maker A reduced-pressure-assembly Plant room', s.name, s.address, s.district),
       s.name
     FROM ${numbers(equipment)} JOIN site s ON s.id = ${id(8002, siteOf('n.seq'))}`,
    `INSERT INTO equipment_status (equipment_id, \`condition\`, due_on, last_tested_on, repair_by)
     SELECT ${id(8003, 'n.seq')}, IF(MOD(n.seq, 50) = 0, 'failed', 'in-order'),
       DATE_SUB(DATE_ADD('${today}', INTERVAL MOD(n.seq, 420) DAY), INTERVAL 60 DAY), DATE_SUB('${today}', INTERVAL MOD(n.seq, 300) DAY),
       IF(MOD(n.seq, 50) = 0, DATE_ADD('${today}', INTERVAL MOD(n.seq, 30) DAY), NULL)
     FROM ${numbers(equipment)}`,
    `INSERT INTO visit (id, equipment_id, technician_id, planned_on, purpose, state, done, skipped, outcome,
       certificate_id, certificate_number, equipment, event_count, head_hash)
     SELECT ${id(8004, 'n.seq')}, ${id(8003, `1 + MOD(n.seq * 31, ${equipment})`)}, p.id, ${planned},
       'periodic-test', IF(MOD(n.seq, 400) = 0, 'planned', 'signed'), '["prepare"]', '[]', 'pass', ${id(8005, 'n.seq')},
       CONCAT('SC-2026-', LPAD(n.seq, 6, '0')),
       JSON_OBJECT('id', ${id(8003, `1 + MOD(n.seq * 31, ${equipment})`)}, 'tag', 'RP', 'family', 'reduced-pressure-assembly',
         'kind', 'RP', 'sizeIn', '2', 'service', 'water', 'serial', 'L1', 'maker', 'Maker A', 'position', 'Plant room',
         'site', 'Seagate', 'address', '1 Seagate', 'customer', 'Customer 1'),
       ${eventsOfVisit}, SHA2(n.seq, 256)
     FROM ${numbers(visits)} JOIN (SELECT id FROM person WHERE roles LIKE '%technician%' ORDER BY username LIMIT 1) p`,
    `INSERT INTO visit_event (visit_id, seq, id, kind, payload, person_id, person_name, device_time, device_offset, server_time, hash)
     SELECT ${id(8004, 'n.seq')}, m.seq, ${id(8006, `n.seq * 1000 + m.seq`)}, 'note',
       '{"station":"prepare","text":"Grit on the disc of check 1, wiped clean; the seat is sound"}', p.id, p.name,
       '2026-06-01T08:00:00.000Z', 0, '2026-06-01T08:00:01.000Z', SHA2(CONCAT(n.seq, m.seq), 256)
     FROM ${numbers(visits)} JOIN seq_1_to_${eventsOfVisit} m JOIN (SELECT id, name FROM person LIMIT 1) p`,
    `INSERT INTO certificate (id, number, year, serial, code, visit_id, equipment_id, issued_at, outcome, tag, site, technician, payload, jws)
     SELECT ${id(8005, 'n.seq')}, CONCAT('SC-2026-', LPAD(n.seq, 6, '0')), 1900, n.seq, CONCAT('scale-', n.seq),
       ${id(8004, 'n.seq')}, ${id(8003, `1 + MOD(n.seq * 31, ${equipment})`)}, ${planned}, 'pass',
       CONCAT('RP-S', LPAD(n.seq, 6, '0')), ${siteName('n.seq')}, 'Odda', CONCAT('{"readings":[', REPEAT('"7.2",', 500), '"7.2"]}'), REPEAT('x', 3000)
     FROM ${numbers(visits)}`,
    `INSERT INTO certificate_status (certificate_id, state, changed_at)
     SELECT ${id(8005, 'n.seq')}, IF(MOD(n.seq, 500) = 0, 'void', 'current'), NOW() FROM ${numbers(visits)}`,
    `INSERT INTO stock_move (id, at, number, holder_id, \`change\`, reason, visit_id, person)
     SELECT ${id(8007, 'n.seq')}, NOW(), CONCAT('K-', MOD(n.seq, 40)), p.id, -1, 'Taken on a visit', ${id(8004, 'n.seq')}, p.name
     FROM ${numbers(visits)} JOIN (SELECT id, name FROM person WHERE roles LIKE '%technician%' ORDER BY username LIMIT 1) p`,
    `INSERT INTO audit (at, person, action, subject)
     SELECT NOW(), 'Petra', 'changed name of a site', CONCAT('Site ', n.seq) FROM ${numbers(audit)}`,
    'ANALYZE TABLE customer, site, equipment, equipment_status, visit, visit_event, certificate, certificate_status, audit, stock_move',
  ]
}

/** Fills it. @param said hears each statement before it runs */
export async function fill(
  db: Sequelize,
  size: Size,
  today: string,
  said: (statement: string) => void = () => undefined,
): Promise<void> {
  for (const statement of fillStatements(size, today)) {
    said(statement)
    await db.query(statement)
  }
}
