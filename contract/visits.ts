import * as yup from 'yup'
import { instant, localDate, prose, slug, strictObject, timeOfDay, uuid } from '@uvanta/core/schema'
import {
  draftSchema,
  equipmentSnapshot,
  type EventKind,
  eventKinds,
  purposes,
  type Station,
  stations,
} from '@uvanta/core/visit'
import { endpoint } from './endpoint'
import { idParams, list, page, pageQuery, password } from './fields'
import { MOST_EVENTS } from './limits'

export const visitStates = ['planned', 'under-way', 'signed', 'stopped'] as const
export type VisitStateName = (typeof visitStates)[number]

const stationList = yup.array(yup.string<Station>().oneOf(stations).required()).required()

export const visitRowSchema = yup.object({
  id: uuid<'visit'>().required(),
  plannedOn: localDate().required(),
  purpose: yup.string().oneOf(purposes).required(),
  technicianId: uuid<'person'>().required(),
  technician: yup.string().required(),
  state: yup.string().oneOf(visitStates).required(),
  done: stationList,
  skipped: stationList,
  outcome: yup.string().nullable().defined(),
  certificateId: yup.string().nullable().defined(),
  certificateNumber: yup.string().nullable().defined(),
  equipment: equipmentSnapshot.required(),
  count: yup.number().integer().required(),
  /** Time of day at which the customer expects us, as 08:30. */
  time: yup.string().nullable().defined(),
  /** When the office planned it, or planned it otherwise. */
  replannedAt: yup.string().nullable().defined(),
  /** What the technician asked the office for, while it is open. */
  replanAsked: yup.string().nullable().defined(),
  /** Whom to call, and how to get in. */
  arrival: yup
    .object({
      contact: yup.string().defined(),
      phone: yup.string().defined(),
      access: yup.string().defined(),
    })
    .required(),
})
export type VisitRow = yup.InferType<typeof visitRowSchema>

export const loggedEventSchema = yup.object({
  id: uuid<'event'>().required(),
  kind: yup.string<EventKind>().oneOf(eventKinds).required(),
  payload: yup.mixed<object>().required(),
  /** Form of the payload; absent for the first. */
  version: yup.number(),
  deviceTime: yup.string().required(),
  deviceOffset: yup.number().required(),
  personId: uuid<'person'>().required(),
  personName: yup.string().required(),
  seq: yup.number().integer().required(),
  serverTime: yup.string().required(),
  /** By how much the device’s clock was ahead of the server’s when it sent, s; absent while that is little. */
  clockAheadS: yup.number(),
  hash: yup.string().required(),
})

export const visitSchema = visitRowSchema.shape({
  events: yup.array(loggedEventSchema.required()).required(),
})
export type Visit = yup.InferType<typeof visitSchema>

/** Number of events the sender knew of. */
const eventCount = yup.number().strict(true).integer().min(0).max(1e6).required()

/** An event that counts only with the password of whoever makes it. */
const attestedBody = strictObject({
  expected: eventCount,
  password: password().required(),
  event: draftSchema.required(),
})

const photoParams = strictObject({
  id: uuid<'visit'>().required(),
  photo: uuid<'photo'>().required(),
})

export const visits = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/visits',
    summary: 'Visits of a day or a state',
    tag: 'Visits',
    access: 'signed-in',
    query: strictObject({
      ...pageQuery,
      on: localDate(),
      /** From this day on. */
      from: localDate(),
      before: localDate(),
      state: yup.string().strict(true).oneOf(visitStates),
      technician: uuid<'person'>(),
      scope: yup
        .string()
        .strict(true)
        .oneOf(['mine', 'all'] as const),
    }),
    response: page(visitRowSchema),
  }),
  read: endpoint({
    method: 'get',
    path: '/api/v1/visits/{id}',
    summary: 'A visit with its log',
    tag: 'Visits',
    access: 'signed-in',
    params: idParams<'visit'>(),
    response: visitSchema,
  }),
  plan: endpoint({
    method: 'post',
    path: '/api/v1/visits',
    summary: 'Plan a visit',
    tag: 'Visits',
    access: ['planner', 'technician', 'administrator'],
    body: strictObject({
      id: uuid<'visit'>().required(),
      equipmentId: uuid<'equipment'>().required(),
      technicianId: uuid<'person'>().required(),
      plannedOn: localDate().required(),
      purpose: yup.string().strict(true).oneOf(purposes).required(),
      time: timeOfDay(),
      /** Of kinds that have a field test. */
      rulePack: slug(),
    }),
    response: visitSchema,
  }),
  doubts: endpoint({
    method: 'get',
    path: '/api/v1/visit-doubts',
    summary:
      'What speaks against a plan: licence, gauge, kit, a visit that is planned already, the day',
    tag: 'Visits',
    access: ['planner', 'technician', 'administrator'],
    query: strictObject({
      equipmentId: uuid<'equipment'>().required(),
      technicianId: uuid<'person'>().required(),
      plannedOn: localDate().required(),
      rulePack: slug(),
      /** The visit that is planned otherwise: it does not speak against itself. */
      visit: uuid<'visit'>(),
    }),
    response: list(yup.object({ says: yup.string().required() })),
  }),
  replan: endpoint({
    method: 'post',
    path: '/api/v1/visits/{id}/plan',
    summary: 'Move a visit to another day or time, or hand it to another technician',
    tag: 'Visits',
    access: ['planner', 'administrator'],
    params: idParams<'visit'>(),
    body: strictObject({
      plannedOn: localDate().required(),
      time: timeOfDay(),
      technicianId: uuid<'person'>().required(),
      why: prose(500),
    }),
    response: visitSchema,
  }),
  append: endpoint({
    method: 'post',
    path: '/api/v1/visits/{id}/events',
    summary: 'Append events to the log; sending the same event twice does no harm',
    tag: 'Visits',
    access: ['technician', 'reviewer', 'planner', 'administrator'],
    params: idParams<'visit'>(),
    body: strictObject({
      expected: eventCount,
      /** What the clock of the device says while it sends: entries of a clock that is off are marked. */
      sentAt: instant(),
      /** Who made the entries: they are taken under that name or not at all. */
      as: uuid<'person'>(),
      events: yup.array(draftSchema.required()).strict(true).min(1).max(MOST_EVENTS).required(),
    }),
    response: list(loggedEventSchema),
  }),
  sign: endpoint({
    method: 'post',
    path: '/api/v1/visits/{id}/sign',
    summary: 'Sign a visit with drawn signature and password; issues the certificate',
    tag: 'Visits',
    access: ['technician'],
    params: idParams<'visit'>(),
    body: attestedBody,
    response: visitSchema,
  }),
  correct: endpoint({
    method: 'post',
    path: '/api/v1/visits/{id}/correct',
    summary: 'Correct an entry of a signed visit, by its tester with the password',
    tag: 'Visits',
    access: ['technician'],
    params: idParams<'visit'>(),
    body: attestedBody,
    response: visitSchema,
  }),
  keepPhoto: endpoint({
    method: 'put',
    path: '/api/v1/visits/{id}/photos/{photo}',
    summary: 'Keep a photograph of a visit',
    tag: 'Visits',
    access: ['technician'],
    params: photoParams,
    upload: ['image/jpeg', 'image/png', 'image/webp'],
  }),
  photo: endpoint({
    method: 'get',
    path: '/api/v1/visits/{id}/photos/{photo}',
    summary: 'A photograph of a visit',
    tag: 'Visits',
    access: 'signed-in',
    params: photoParams,
    file: 'image/*',
  }),
}
