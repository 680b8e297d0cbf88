import { describe, expect, it } from 'vitest'
import { randomNumbers } from '../testing/random'
import {
  ATMOSPHERE_KPA,
  coldWater,
  FluidError,
  FluidModel,
  GRAVITY,
  gasDensityPerKpa,
  naturalGas,
  type Link,
  type Network,
} from '.'

const GPM = 6.30901964e-5
const PSI = 6.894757293168
const valve = (id: string, from: string, to: string, cv: number, opening = 1): Link => ({
  type: 'valve',
  id,
  from,
  to,
  cv,
  opening,
})
const supply = { id: 'supply', pressureKpa: 60 * PSI }
const air = { id: 'air', pressureKpa: 0 }
const water = (rest: Omit<Network, 'medium'>): Network => ({ medium: coldWater, ...rest })

describe('steady flow of water', () => {
  it('passes Cv·√(Δp/SG) gpm through one orifice', () => {
    const model = new FluidModel(
      water({
        volumes: [{ id: 'body', volumeM3: 1e-3 }],
        reservoirs: [supply, air],
        links: [valve('wide', 'supply', 'body', 1e4), valve('orifice', 'body', 'air', 3)],
      }),
    )
    model.settle()
    const expected = 3 * Math.sqrt(60 / 0.9997) * GPM * 999.7
    expect(model.flow('orifice') / expected).toBeCloseTo(1, 4)
  })

  it('shares the pressure between two orifices in series as 1 ÷ Cv²', () => {
    const model = new FluidModel(
      water({
        volumes: [{ id: 'middle', volumeM3: 1e-3 }],
        reservoirs: [supply, air],
        links: [valve('a', 'supply', 'middle', 2), valve('b', 'middle', 'air', 1)],
      }),
    )
    model.settle()
    expect(model.pressure('middle') / (60 * PSI)).toBeCloseTo(4 / 5, 4)
    expect(model.flow('a') / model.flow('b')).toBeCloseTo(1, 9)
  })

  it('keeps the content of a volume that nothing reaches', () => {
    const model = new FluidModel(
      water({
        volumes: [{ id: 'trapped', volumeM3: 1e-3, startKpa: 333 }],
        reservoirs: [supply],
        links: [valve('shut', 'supply', 'trapped', 5, 0)],
      }),
    )
    model.settle()
    expect(model.pressure('trapped')).toBeCloseTo(333, 6)
  })
})

describe('a check that closes', () => {
  it('holds its spring load as static differential', () => {
    const model = new FluidModel(
      water({
        volumes: [
          { id: 'before', volumeM3: 1e-3, elasticityPerKpa: 1e-6, startKpa: 400 },
          { id: 'behind', volumeM3: 1e-3, elasticityPerKpa: 1e-6, startKpa: 100 },
        ],
        reservoirs: [supply],
        links: [
          valve('feed', 'supply', 'before', 10),
          {
            type: 'check',
            id: 'check',
            from: 'before',
            to: 'behind',
            cv: 50,
            loadKpa: 7 * PSI,
            fullLiftKpa: 20,
          },
        ],
      }),
    )
    model.advance(60)
    const held = (model.pressure('before') - model.pressure('behind')) / PSI
    expect(held).toBeGreaterThan(7 * 0.995)
    expect(held).toBeLessThan(7 * 1.005)
  })
})

describe('a column of water open to air', () => {
  it('presses by ρ·g·h, as in a U-tube', () => {
    const model = new FluidModel(
      water({
        volumes: [{ id: 'port', volumeM3: 1e-4, startKpa: 200 }],
        reservoirs: [{ id: 'open end', pressureKpa: 0, elevationM: 0.7 }],
        links: [valve('hose', 'port', 'open end', 0.3)],
      }),
    )
    model.settle()
    expect(model.pressure('port')).toBeCloseTo((999.7 * GRAVITY * 0.7) / 1000, 3)
  })
})

describe('blow-down of a gas volume', () => {
  /** Isothermal, choked: ln(p0/p) = (choked conductance) · t / V. */
  it('falls exponentially while it is choked', () => {
    const volumeM3 = 0.2
    const cv = 1.5
    const model = new FluidModel({
      medium: naturalGas,
      volumes: [{ id: 'vessel', volumeM3, startKpa: 1500 }],
      reservoirs: [air],
      links: [valve('vent', 'vessel', 'air', cv)],
    })
    const t = 4
    model.advance(t)
    const choked = (naturalGas.gamma / 1.4) * naturalGas.xT
    const density = gasDensityPerKpa(naturalGas)
    const perCv = (GPM / Math.sqrt(PSI)) * Math.sqrt(1000 * density)
    const rate = (cv * perCv * (2 / 3) * Math.sqrt(choked)) / (volumeM3 * density)
    const expected = (1500 + ATMOSPHERE_KPA) * Math.exp(-rate * t)
    expect((model.pressure('vessel') + ATMOSPHERE_KPA) / expected).toBeGreaterThan(0.995)
    expect((model.pressure('vessel') + ATMOSPHERE_KPA) / expected).toBeLessThan(1.005)
    expect(expected - ATMOSPHERE_KPA).toBeGreaterThan(300)
  })

  it('meets the choked flow formula of IEC 60534: 1360·Cv·p1·(2/3)·√(Fγ·xT/(Gg·T1·Z)) scfh', () => {
    const model = new FluidModel({
      medium: naturalGas,
      volumes: [{ id: 'pipe', volumeM3: 1 }],
      reservoirs: [{ id: 'main', pressureKpa: 100 * PSI }, air],
      links: [valve('wide', 'main', 'pipe', 1e5), valve('vent', 'pipe', 'air', 2)],
    })
    model.settle()
    const { gamma, xT, specificGravity } = naturalGas
    const psia = 100 + 14.696
    const scfh =
      1360 * 2 * psia * (2 / 3) * Math.sqrt(((gamma / 1.4) * xT) / (specificGravity * 288.15 * 1.8))
    // A standard cubic foot of gas at 60 °F and 14.696 psia weighs SG × 0.0346 kg.
    const standardDensity =
      gasDensityPerKpa({ ...naturalGas, temperatureK: 288.7056 }) * ATMOSPHERE_KPA
    const kgPerS = (scfh * 0.028316846592 * standardDensity) / 3600
    expect(model.flow('vent') / kgPerS).toBeGreaterThan(0.995)
    expect(model.flow('vent') / kgPerS).toBeLessThan(1.005)
  })
})

describe('draining water from an elastic volume', () => {
  /** C·dp/dt = −k·√p gives √p falling in a straight line. */
  it('follows the closed solution', () => {
    const volumeM3 = 2e-3
    const elasticity = 1e-5
    const model = new FluidModel(
      water({
        volumes: [{ id: 'hose', volumeM3, elasticityPerKpa: elasticity, startKpa: 400 }],
        reservoirs: [air],
        links: [valve('bleed', 'hose', 'air', 0.002)],
      }),
    )
    const capacity = volumeM3 * 999.7 * (elasticity + 1 / coldWater.bulkModulusKpa)
    const k = 0.002 * (GPM / Math.sqrt(PSI)) * Math.sqrt(999.7 * 1000)
    const emptyAt = (2 * Math.sqrt(400) * capacity) / k
    for (const part of [0.25, 0.5, 0.75]) {
      model.advance(emptyAt * 0.25)
      const expected = (Math.sqrt(400) * (1 - part)) ** 2
      expect(model.pressure('hose') / expected).toBeGreaterThan(0.995)
      expect(model.pressure('hose') / expected).toBeLessThan(1.005)
    }
  })
})

function randomNetwork(seed: number): Network {
  const random = randomNumbers(seed)
  const count = 3 + Math.floor(random() * 8)
  const gas = random() < 0.4
  const volumes = Array.from({ length: count }, (_, n) => ({
    id: `v${n}`,
    volumeM3: 10 ** (-5 + 4 * random()),
    elasticityPerKpa: random() < 0.5 ? 10 ** (-7 + 2 * random()) : 0,
    airM3: 0,
    startKpa: 800 * random(),
  }))
  const place = () => `v${Math.floor(random() * count)}`
  const links: Link[] = []
  for (let n = 0; n < count * 2; n++) {
    const from = place()
    const to = place()
    if (from === to) continue
    const cv = 10 ** (-3 + 4 * random())
    const id = `l${n}`
    const kind = random()
    if (kind < 0.5) links.push(valve(id, from, to, cv, random()))
    else if (kind < 0.8)
      links.push({
        type: 'check',
        id,
        from,
        to,
        cv,
        loadKpa: 80 * random(),
        fullLiftKpa: 1 + 60 * random(),
        leakCv: random() < 0.3 ? 0.05 * cv : 0,
      })
    else
      links.push({
        type: 'relief',
        id,
        from,
        to,
        senseHigh: place(),
        senseLow: place(),
        opensBelowKpa: 40 * random(),
        fullLiftKpa: 1 + 20 * random(),
        hysteresisKpa: 5 * random(),
        cv,
      })
  }
  links.push(valve('in', 'supply', 'v0', 5), valve('out', `v${count - 1}`, 'air', 0.5))
  return { medium: gas ? naturalGas : coldWater, volumes, reservoirs: [supply, air], links }
}

describe('any network', () => {
  it.each(Array.from({ length: 60 }, (_, n) => n + 1))(
    'conserves mass to a millionth, seed %i',
    (seed) => {
      const model = new FluidModel(randomNetwork(seed))
      const before = model.totalMass()
      let through = 0
      for (let n = 0; n < 20; n++) {
        model.advance(0.25)
        through = Math.abs(model.passedThrough('in')) + Math.abs(model.passedThrough('out'))
      }
      const gained = model.passedThrough('in') - model.passedThrough('out')
      expect(Math.abs(model.totalMass() - before - gained)).toBeLessThan(1e-6 * (through + before))
      for (const volume of randomNetwork(seed).volumes) {
        expect(Number.isFinite(model.pressure(volume.id))).toBe(true)
      }
    },
  )

  it('comes to the same rest by waiting as by asking for it', () => {
    for (const seed of [3, 8, 21]) {
      const plain = randomNetwork(seed)
      const network = { ...plain, links: plain.links.filter((l) => l.type !== 'relief') }
      const waited = new FluidModel(network)
      waited.advance(3000)
      const asked = new FluidModel(network)
      asked.settle()
      expect(Math.abs(waited.flow('out') - asked.flow('out'))).toBeLessThan(
        1e-4 + 1e-3 * Math.abs(asked.flow('out')),
      )
    }
  })
})

describe('a relief', () => {
  const network = (fall: number): Network =>
    water({
      volumes: [{ id: 'zone', volumeM3: 1e-3, elasticityPerKpa: 1e-6, startKpa: fall }],
      reservoirs: [{ id: 'inlet', pressureKpa: 400 }, air],
      links: [
        {
          type: 'relief',
          id: 'relief',
          from: 'zone',
          to: 'air',
          senseHigh: 'inlet',
          senseLow: 'zone',
          opensBelowKpa: 17,
          fullLiftKpa: 6,
          hysteresisKpa: 3,
          cv: 5,
        },
      ],
    })
  it('stays shut while the differential is above its opening point', () => {
    const model = new FluidModel(network(400 - 17.1))
    model.advance(30)
    expect(model.passedThrough('relief')).toBe(0)
  })
  it('opens below it, and shuts above it by its hysteresis', () => {
    const model = new FluidModel(network(400 - 15))
    model.advance(30)
    expect(model.passedThrough('relief')).toBeGreaterThan(0)
    const rest = 400 - model.pressure('zone')
    expect(rest).toBeGreaterThan(17 + 3 - 0.3)
    expect(rest).toBeLessThan(17 + 3 + 0.3)
  })
})

describe('a bad network is refused with the name of the element', () => {
  const good: Network = water({
    volumes: [{ id: 'body', volumeM3: 1e-3 }],
    reservoirs: [supply],
    links: [valve('feed', 'supply', 'body', 1)],
  })
  it.each<[string, Network]>([
    ['body', { ...good, volumes: [{ id: 'body', volumeM3: 0 }] }],
    ['body', { ...good, volumes: [{ id: 'body', volumeM3: Number.NaN }] }],
    ['feed', { ...good, links: [valve('feed', 'supply', 'nowhere', 1)] }],
    ['feed', { ...good, links: [valve('feed', 'supply', 'body', -1)] }],
    ['feed', { ...good, links: [valve('feed', 'supply', 'body', 1, 1.5)] }],
    ['feed', { ...good, links: [...good.links, valve('feed', 'body', 'supply', 1)] }],
    ['supply', { ...good, reservoirs: [{ id: 'supply', pressureKpa: Infinity }] }],
    ['body', { ...good, volumes: [...good.volumes, ...good.volumes] }],
  ])('%s', (element, network) => {
    expect(() => new FluidModel(network)).toThrow(FluidError)
    expect(() => new FluidModel(network)).toThrow(element)
  })
  it('refuses a time that is none', () => {
    expect(() => new FluidModel(good).advance(Number.NaN)).toThrow(FluidError)
  })
})
