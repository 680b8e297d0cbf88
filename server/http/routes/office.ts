import { api } from '@uvanta/contract'
import type { App } from '../../context'
import { listAudit } from '../../service/audit'
import { listHeads } from '../../service/integrity/dailyHead'
import * as gauges from '../../service/instruments/gauges'
import { createApiKey, listApiKeys, revokeApiKey } from '../../service/people/apiKeys'
import * as people from '../../service/people/people'
import { removeSecondFactor } from '../../service/people/secondFactor'
import * as customers from '../../service/register/customers'
import * as register from '../../service/register/equipment'
import { importEquipment } from '../../service/register/importing/importEquipment'
import { changeService } from '../../service/register/service'
import * as sites from '../../service/register/sites'
import { adoptProgramme, adoptRulePack, listStarters } from '../../service/settings/starters'
import { changeSettings, readSettings } from '../../service/settings/utility'
import * as stock from '../../service/stock/stock'
import { isOnThisMachine } from '../ownHost'
import type { Bind } from '../route'

/** People, gauges, stock, the register and the audit trail. */
export function bindOffice(app: App, bind: Bind): void {
  bind(api.audit.list, ({ query }) => listAudit(app, query))
  bind(api.audit.heads, ({ query }) => listHeads(app, query))
  bind(api.gauges.link, ({ req }) => ({
    // It answers on this machine: a browser elsewhere would look for it on its own.
    url: (isOnThisMachine(req) && app.config.gaugeUrl) || null,
  }))
  bind(api.apiKeys.list, async () => ({ items: await listApiKeys(app) }))
  bind(api.apiKeys.create, ({ actor, body }) => createApiKey(app, actor(), body))
  bind(api.apiKeys.revoke, ({ actor, params }) => revokeApiKey(app, actor(), params.id))
  bind(api.people.list, async () => ({ items: await people.listPeople(app) }))
  bind(api.people.create, ({ actor, body }) => people.addPerson(app, actor(), body))
  bind(api.people.change, ({ actor, params, version, body }) =>
    people.changePerson(app, actor(), params.id, version, body),
  )
  bind(api.people.addLicence, ({ actor, params, body }) =>
    people.addLicence(app, actor(), params.id, body),
  )
  bind(api.people.removeSecondFactor, ({ actor, params }) =>
    removeSecondFactor(app, actor(), params.id),
  )
  bind(api.people.changeLicence, ({ actor, params, version, body }) =>
    people.changeLicence(app, actor(), params.id, version, body),
  )

  bind(api.gauges.list, async () => ({ items: await gauges.listGauges(app) }))
  bind(api.gauges.create, ({ actor, body }) => gauges.createGauge(app, actor(), body))
  bind(api.gauges.change, ({ actor, params, version, body }) =>
    gauges.changeGauge(app, actor(), params.id, version, body),
  )
  bind(api.gauges.addCalibration, ({ actor, params, body }) =>
    gauges.addCalibration(app, actor(), params.id, body),
  )

  bind(api.settings.starters, () => listStarters(app))
  bind(api.settings.adoptRulePack, ({ actor, body }) => adoptRulePack(app, actor(), body))
  bind(api.settings.adoptProgramme, ({ actor, body }) => adoptProgramme(app, actor(), body))
  bind(api.settings.read, () => readSettings(app))
  bind(api.settings.change, ({ actor, version, body }) =>
    changeSettings(app, actor(), version, body),
  )

  bind(api.stock.list, async () => ({ items: await stock.listStock(app) }))
  bind(api.stock.move, async ({ actor, body }) => ({
    items: await stock.moveStock(app, actor(), body),
  }))

  bind(api.register.listEquipment, ({ query }) => register.searchEquipment(app, query))
  bind(api.register.station, async ({ params }) => ({
    items: await register.readStation(app, params.id),
  }))
  bind(api.register.readEquipment, ({ params }) => register.readEquipment(app, params.id))
  bind(api.register.createEquipment, ({ actor, body }) =>
    register.createEquipment(app, actor(), body),
  )
  bind(api.register.importEquipment, async ({ actor, body }) => ({
    items: await importEquipment(app, actor(), body),
  }))
  bind(api.register.changeEquipment, ({ actor, params, version, body }) =>
    register.changeEquipment(app, actor(), params.id, version, body),
  )
  bind(api.register.changeService, ({ actor, params, version, body }) =>
    changeService(app, actor(), params.id, version, body),
  )
  bind(api.register.listCustomers, ({ actor, query }) =>
    customers.listCustomers(app, actor(), query),
  )
  bind(api.register.createCustomer, ({ actor, body }) =>
    customers.createCustomer(app, actor(), body),
  )
  bind(api.register.changeCustomer, ({ actor, params, version, body }) =>
    customers.changeCustomer(app, actor(), params.id, version, body),
  )
  bind(api.register.listSites, async ({ actor, query }) => ({
    items: await sites.listSites(app, actor(), query.q, query.customer),
  }))
  bind(api.register.createSite, ({ actor, body }) => sites.createSite(app, actor(), body))
  bind(api.register.changeSite, ({ actor, params, version, body }) =>
    sites.changeSite(app, actor(), params.id, version, body),
  )
}
