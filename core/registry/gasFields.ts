import * as yup from 'yup'
import { number, strictObject } from '../schema'

/** A gas as the sizing of valves needs it. */
export const gasInput = () =>
  strictObject({
    specificGravity: number(0.05, 5).required(),
    gamma: number(1.05, 1.7).required(),
    temperatureK: number(150, 500).required(),
    z: number(0.2, 1.5).required(),
  })

/** Cv with xT, or Cg with C1, or all four. */
export const coefficients = {
  cv: number(1e-4, 1e5),
  xT: number(0.05, 1),
  cg: number(1e-3, 1e7),
  c1: number(10, 50),
}
export const valveInput = () => strictObject(coefficients)

/** Natural gas at 15 °C. */
export const EXAMPLE_GAS = { specificGravity: 0.6, gamma: 1.31, temperatureK: 288.15, z: 1 }

export const flowOutput = () => yup.number().required()
