import * as yup from 'yup'
import type { StepRecord } from '../../procedure'
import { slug, strictObject } from '../../schema'
import type { Outcome } from '../outcome'
import { standingAnswer } from '../measure'
import { because, notRecorded, type Reason, saying } from '../reason'
import type { TestRun } from '../types'
import { itemFields } from './fields'

const schema = strictObject({
  ...itemFields('answer'),
  accept: yup
    .array(slug().required())
    .strict(true)
    .min(1)
    .required('an answer needs “accept”: the answers that are wanted'),
})
type Item = yup.InferType<typeof schema>

/** What was seen, of a closed list: no value, no uncertainty. */
export const answer = {
  schema,
  recorded: true,
  restsOn: () => [],
  judge: (item: Item, run: TestRun, blocked: Reason | undefined) => {
    const given = standingAnswer(run, item.id)
    if (!given) return { outcome: 'not-assessed' as const, ...saying(notRecorded) }
    const accepted = item.accept.includes(given.answer)
    const outcome: Outcome = blocked ? 'not-assessed' : accepted ? 'pass' : 'fail'
    return {
      outcome,
      answer: given.label,
      ...saying(
        blocked ??
          because(
            accepted ? 'accepted' : 'rejected-answer',
            accepted ? given.label : (item.says ?? item.reason ?? given.label),
            { answer: given.answer },
          ),
      ),
    }
  },
  faults: (item: Item, record: StepRecord): string[] => {
    const known = (record.answers ?? []).map((a) => a.id)
    return item.accept
      .filter((a) => !known.includes(a))
      .map((a) => `“${a}” is not an answer of ${item.id}: ${known.join(', ')}`)
  },
}
