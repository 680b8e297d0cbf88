import { expect, it } from 'vitest'
import { inOrderOfDay } from './orderOfDay'

const visit = (site: string, time: string | null, state: 'planned' | 'under-way' | 'signed') => ({
  state,
  time,
  equipment: { site },
})

it('a day is in the order in which the customers expect us, what is closed at its end', () => {
  const day = [
    visit('Quay 4', null, 'planned'),
    visit('Bath', '08:00', 'signed'),
    visit('Bakehouse', null, 'planned'),
    visit('Works', '13:30', 'under-way'),
    visit('School', '09:15', 'planned'),
  ]
  const before = [...day]
  expect(inOrderOfDay(day).map((v) => v.equipment.site)).toEqual([
    'School',
    'Works',
    'Bakehouse',
    'Quay 4',
    'Bath',
  ])
  expect(day).toEqual(before)
})
