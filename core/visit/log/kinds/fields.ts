import * as yup from 'yup'
import { type Station, stations } from '../stations'
import { type RunName, runNames } from '../words'

export const station = () => yup.string<Station>().strict(true).oneOf(stations)
export const run = () => yup.string<RunName>().strict(true).oneOf(runNames)
