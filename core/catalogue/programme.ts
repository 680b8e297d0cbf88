import * as yup from 'yup'
import { integer, line, slug, strictObject } from '../schema'

export const programmeSchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  title: line(120).required(),
  /** Months between two due dates. */
  intervalMonths: integer(1, 240).required(),
  /** Longest stretch between a test and the due date it leads to. */
  maximumMonths: integer(1, 240).required(),
  /** A test is wanted in each calendar year, whatever the months say. */
  eachCalendarYear: yup.boolean().strict(true),
  graceDays: integer(0, 365).required(),
  firstNoticeDays: integer(0, 365).required(),
  secondNoticeDays: integer(0, 365).required(),
  repairWithinDays: integer(1, 365).required(),
})
export type Programme = yup.InferType<typeof programmeSchema>
