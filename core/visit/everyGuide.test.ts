import { describe, expect, it } from 'vitest'
import { combinationsOf, serves } from '../guide'
import { Job } from '../testing/job'
import { shippedLibrary } from '../testing/library'
import { outcomeOf } from '.'

const PACK = 'larkhaven-relief-first'
const pack = shippedLibrary.rulePacks.find((p) => p.id === PACK)
const jobs = shippedLibrary.guides.flatMap((guide) =>
  shippedLibrary.families
    .filter((f) => serves(guide, f.id))
    .flatMap((family) =>
      family.kinds.flatMap((kind) =>
        guide.variants.flatMap((v) =>
          combinationsOf((guide.jobs ?? []).map((j) => j.id)).map((jobs) => ({
            guide,
            family: family.id,
            kind,
            variant: v.id,
            jobs,
          })),
        ),
      ),
    ),
)

describe('every guide, in every variant and combination of sub-jobs, on every kind it serves', () => {
  it.each(
    jobs.map(
      (j) =>
        [
          `${j.guide.id}, ${[j.variant, ...j.jobs].join(' and ')}, ${j.family} ${j.kind}`,
          j,
        ] as const,
    ),
  )(
    '%s: to its end, with valves, proofs, kit and waiting times',
    (_, { guide, family, kind, variant, jobs: chosen }) => {
      const tested = pack?.tests.some((t) => t.kind === kind) ?? false
      const job = new Job({ family, kind, ...(tested ? { packId: PACK } : {}) })
      job.choose(guide, variant, true, chosen).toMakeSafe().toAsLeft()
      expect(job.run.tray.filter((p) => !p.offAtTest)).toEqual([])
      if (tested) return
      // Without a field test the function check decides.
      job.must('checked', { run: 'as-left', outcome: 'works', text: 'Works both ways' })
      job.carryOut('as-left')
      expect(outcomeOf(job.state, shippedLibrary)).toBe('pass')
      job.must('signed', { signature: 'M 0 0', name: 'P', outcome: 'pass' })
    },
  )
})
