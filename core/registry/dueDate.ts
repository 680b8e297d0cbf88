import * as yup from 'yup'
import { lawfulUntil, nextDue } from '../programme'
import { integer, localDate, strictObject } from '../schema'
import { computation } from './computation'

export const dueDate = computation({
  name: 'due-date',
  title: 'Next due date',
  summary:
    'When a test falls due again under a programme, and the last day on which it is still lawful.',
  source:
    'The latest anchor date that is still lawful; 49 CFR 192.739 for a test in each calendar year at 15 months at most.',
  input: strictObject({
    intervalMonths: integer(1, 240).required(),
    maximumMonths: integer(1, 240).required(),
    eachCalendarYear: yup.boolean().strict(true),
    anchor: localDate().required(),
    testedOn: localDate().required(),
  }),
  output: yup.object({ dueOn: yup.string().required(), lawfulUntil: yup.string().required() }),
  example: {
    intervalMonths: 12,
    maximumMonths: 15,
    eachCalendarYear: true,
    anchor: '2026-09-10',
    testedOn: '2026-08-20',
  },
  run({ anchor, testedOn, eachCalendarYear = false, ...programme }) {
    const rule = { ...programme, eachCalendarYear }
    return { dueOn: nextDue(rule, anchor, testedOn), lawfulUntil: lawfulUntil(rule, testedOn) }
  },
})
