import * as yup from 'yup'
import { type Station, stations } from '../stations'
import { type RunName, runNames } from '../words'

export const station = () => yup.string<Station>().strict(true).oneOf(stations)
/** Time of day, as 08:30. */
export const clock = () =>
  yup
    .string()
    .strict(true)
    .matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of day, as 08:30')
export const run = () => yup.string<RunName>().strict(true).oneOf(runNames)
