/** One statement each way: data definition commits by itself, so a migration is one statement. */
export interface Step {
  readonly name: string
  readonly up: string
  readonly down: string
}

const table = (name: string, columns: string): Step => ({
  name: `create-${name.replaceAll('_', '-')}`,
  up: `CREATE TABLE ${name} (${columns}) ENGINE=InnoDB`,
  down: `DROP TABLE ${name}`,
})

/** A row of this table, once written, stays as it is. */
const immutable = (name: string, event: 'UPDATE' | 'DELETE'): Step => ({
  name: `${name.replaceAll('_', '-')}-refuses-${event.toLowerCase()}`,
  up: `CREATE TRIGGER ${name}_no_${event.toLowerCase()} BEFORE ${event} ON ${name} FOR EACH ROW
       SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${name} is append-only'`,
  down: `DROP TRIGGER ${name}_no_${event.toLowerCase()}`,
})

/** In order; never edited once released, only followed by further ones. */
export const steps: readonly Step[] = [
  table(
    'person',
    `id UUID PRIMARY KEY, username VARCHAR(40) NOT NULL UNIQUE, name VARCHAR(120) NOT NULL,
     roles JSON NOT NULL, password_hash VARCHAR(255) NOT NULL, active BOOLEAN NOT NULL DEFAULT TRUE,
     version INT NOT NULL DEFAULT 1`,
  ),
  table(
    'licence',
    `id UUID PRIMARY KEY, person_id UUID NOT NULL, kind VARCHAR(80) NOT NULL, number VARCHAR(40) NOT NULL,
     issued_on DATE NOT NULL, expires_on DATE NOT NULL, version INT NOT NULL DEFAULT 1,
     FOREIGN KEY (person_id) REFERENCES person (id)`,
  ),
  table(
    'gauge',
    `id UUID PRIMARY KEY, tag VARCHAR(40) NOT NULL UNIQUE, serial VARCHAR(60) NOT NULL, maker VARCHAR(80) NOT NULL,
     span DECIMAL(12,4) NOT NULL, span_unit VARCHAR(12) NOT NULL, resolution DECIMAL(12,6) NOT NULL,
     accuracy_percent DECIMAL(8,4) NOT NULL, accuracy_of VARCHAR(8) NOT NULL,
     active BOOLEAN NOT NULL DEFAULT TRUE, version INT NOT NULL DEFAULT 1`,
  ),
  table(
    'calibration',
    `id UUID PRIMARY KEY, gauge_id UUID NOT NULL, calibrated_on DATE NOT NULL, valid_until DATE NOT NULL,
     certificate VARCHAR(60) NOT NULL, FOREIGN KEY (gauge_id) REFERENCES gauge (id)`,
  ),
  table(
    'customer',
    `id UUID PRIMARY KEY, name VARCHAR(120) NOT NULL, contact VARCHAR(120) NOT NULL DEFAULT '',
     phone VARCHAR(40) NOT NULL DEFAULT '', version INT NOT NULL DEFAULT 1, INDEX (name)`,
  ),
  table(
    'site',
    `id UUID PRIMARY KEY, customer_id UUID NOT NULL, name VARCHAR(120) NOT NULL, address VARCHAR(200) NOT NULL,
     district VARCHAR(60) NOT NULL, access VARCHAR(500) NOT NULL DEFAULT '', version INT NOT NULL DEFAULT 1,
     INDEX (name), FOREIGN KEY (customer_id) REFERENCES customer (id)`,
  ),
  table(
    'equipment',
    `id UUID PRIMARY KEY, site_id UUID NOT NULL, tag VARCHAR(40) NOT NULL UNIQUE, family VARCHAR(80) NOT NULL,
     kind VARCHAR(30) NOT NULL, size_in VARCHAR(12) NOT NULL, serial VARCHAR(60) NOT NULL, maker VARCHAR(80) NOT NULL,
     model VARCHAR(80) NOT NULL DEFAULT '', service VARCHAR(12) NOT NULL, position VARCHAR(200) NOT NULL,
     set_point JSON, programme VARCHAR(80) NOT NULL, spec_sheet VARCHAR(80), installed_on DATE,
     anchor_on DATE NOT NULL, search_text TEXT NOT NULL, virtual_site JSON, version INT NOT NULL DEFAULT 1,
     INDEX (family, tag), FULLTEXT (search_text), FOREIGN KEY (site_id) REFERENCES site (id)`,
  ),
  table(
    'equipment_status',
    `equipment_id UUID PRIMARY KEY, \`condition\` VARCHAR(20) NOT NULL, due_on DATE, last_tested_on DATE,
     repair_by DATE, last_visit_id UUID, INDEX (due_on, equipment_id), INDEX (\`condition\`, equipment_id),
     FOREIGN KEY (equipment_id) REFERENCES equipment (id)`,
  ),
  table(
    'visit',
    `id UUID PRIMARY KEY, equipment_id UUID NOT NULL, technician_id UUID NOT NULL, planned_on DATE NOT NULL,
     purpose VARCHAR(30) NOT NULL, state VARCHAR(20) NOT NULL, done JSON NOT NULL, skipped JSON NOT NULL,
     outcome VARCHAR(20), certificate_id UUID, certificate_number VARCHAR(40), equipment JSON NOT NULL,
     event_count INT NOT NULL, head_hash CHAR(64) NOT NULL,
     INDEX (planned_on, id), INDEX (technician_id, planned_on), INDEX (equipment_id, planned_on),
     FOREIGN KEY (equipment_id) REFERENCES equipment (id), FOREIGN KEY (technician_id) REFERENCES person (id)`,
  ),
  table(
    'visit_event',
    `visit_id UUID NOT NULL, seq INT NOT NULL, id UUID NOT NULL UNIQUE, kind VARCHAR(40) NOT NULL,
     payload LONGTEXT NOT NULL, person_id UUID NOT NULL, person_name VARCHAR(120) NOT NULL,
     device_time VARCHAR(30) NOT NULL, device_offset INT NOT NULL, server_time VARCHAR(30) NOT NULL,
     hash CHAR(64) NOT NULL, PRIMARY KEY (visit_id, seq), FOREIGN KEY (visit_id) REFERENCES visit (id)`,
  ),
  table(
    'certificate',
    `id UUID PRIMARY KEY, number VARCHAR(40) NOT NULL UNIQUE, year INT NOT NULL, serial INT NOT NULL,
     code VARCHAR(60) NOT NULL UNIQUE, visit_id UUID NOT NULL, equipment_id UUID NOT NULL,
     issued_at DATETIME(3) NOT NULL, outcome VARCHAR(20) NOT NULL, tag VARCHAR(40) NOT NULL, site VARCHAR(120) NOT NULL,
     technician VARCHAR(120) NOT NULL, supersedes UUID, payload LONGTEXT NOT NULL, jws LONGTEXT NOT NULL,
     UNIQUE (year, serial), INDEX (equipment_id), FOREIGN KEY (visit_id) REFERENCES visit (id)`,
  ),
  table(
    'certificate_status',
    `certificate_id UUID PRIMARY KEY, state VARCHAR(12) NOT NULL, reason VARCHAR(500), superseded_by UUID,
     changed_at DATETIME(3) NOT NULL, changed_by VARCHAR(120), INDEX (state),
     FOREIGN KEY (certificate_id) REFERENCES certificate (id)`,
  ),
  table(
    'certificate_pdf',
    `certificate_id UUID PRIMARY KEY, pdf LONGBLOB NOT NULL,
     FOREIGN KEY (certificate_id) REFERENCES certificate (id)`,
  ),
  table('certificate_counter', 'year INT PRIMARY KEY, last INT NOT NULL'),
  table(
    'signing_key',
    'kid VARCHAR(60) PRIMARY KEY, public_jwk JSON NOT NULL, created_at DATETIME(3) NOT NULL',
  ),
  table(
    'audit',
    `id INT AUTO_INCREMENT PRIMARY KEY, at DATETIME(3) NOT NULL, person_id UUID, person VARCHAR(120) NOT NULL,
     action VARCHAR(80) NOT NULL, subject VARCHAR(200) NOT NULL`,
  ),
  table(
    'session',
    'sid VARCHAR(64) PRIMARY KEY, expires DATETIME(3), data TEXT, created_at DATETIME(3), updated_at DATETIME(3)',
  ),
  immutable('visit_event', 'UPDATE'),
  immutable('visit_event', 'DELETE'),
  immutable('certificate', 'UPDATE'),
  immutable('certificate', 'DELETE'),
  table(
    'library_version',
    `kind VARCHAR(20) NOT NULL, id VARCHAR(80) NOT NULL, version INT NOT NULL, hash CHAR(64) NOT NULL,
     content LONGTEXT NOT NULL, first_seen_at DATETIME(3) NOT NULL, PRIMARY KEY (kind, id, version)`,
  ),
  immutable('library_version', 'UPDATE'),
  immutable('library_version', 'DELETE'),
  table(
    'stock_move',
    `id UUID PRIMARY KEY, at DATETIME(3) NOT NULL, number VARCHAR(60) NOT NULL, holder_id UUID NOT NULL,
     \`change\` INT NOT NULL, reason VARCHAR(200) NOT NULL, visit_id UUID, person VARCHAR(120) NOT NULL,
     INDEX (number, holder_id), FOREIGN KEY (holder_id) REFERENCES person (id)`,
  ),
  immutable('stock_move', 'UPDATE'),
  immutable('stock_move', 'DELETE'),
  table(
    'photo',
    `id UUID PRIMARY KEY, visit_id UUID NOT NULL, mime VARCHAR(40) NOT NULL, content LONGBLOB NOT NULL,
     person_id UUID NOT NULL, at DATETIME(3) NOT NULL, INDEX (visit_id),
     FOREIGN KEY (visit_id) REFERENCES visit (id)`,
  ),
  table(
    'seal',
    'kind VARCHAR(12) NOT NULL, id VARCHAR(40) NOT NULL, seal CHAR(64) NOT NULL, PRIMARY KEY (kind, id)',
  ),
  table('seal_total', 'kind VARCHAR(12) PRIMARY KEY, total INT NOT NULL, seal CHAR(64) NOT NULL'),
  table(
    'wrong_password',
    'subject VARCHAR(120) PRIMARY KEY, count INT NOT NULL, since DATETIME(3) NOT NULL',
  ),
  immutable('audit', 'UPDATE'),
  immutable('audit', 'DELETE'),
  immutable('photo', 'UPDATE'),
  immutable('photo', 'DELETE'),
  {
    name: 'visit_event-version',
    up: 'ALTER TABLE visit_event ADD COLUMN version SMALLINT NOT NULL DEFAULT 1',
    down: 'ALTER TABLE visit_event DROP COLUMN version',
  },
]
