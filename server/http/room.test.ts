import express from 'express'
import supertest from 'supertest'
import { describe, expect, it, vi } from 'vitest'
import { roomOn, withRoom } from './room'

const disk = (blocks: number) => ({ bavail: blocks, bsize: 4_096 })
const served = (blocks: number) => {
  const server = express()
  server.use(withRoom(roomOn('/somewhere', () => Promise.resolve(disk(blocks)))))
  server.all('/', (_req, res) => void res.json('done'))
  return supertest(server)
}

describe('a disk without room', () => {
  it('takes nothing, says why, and is still read from', async () => {
    const { body } = await served(100).post('/').expect(503)
    expect(body).toMatchObject({ type: 'urn:uvanta:problem:disk-full' })
    expect(body.detail).toMatch(/disk of the server is full.*kept on this device/)
    await served(100).get('/').expect(200)
  })
  it('is none while there is room, or where nobody can look', async () => {
    await served(1_000_000).post('/').expect(200)
    const nobody = roomOn('/somewhere', () => Promise.reject(new Error('no such place')))
    expect(await nobody()).toBe(true)
  })
  it('is looked at once a second and not for every request', async () => {
    vi.useFakeTimers()
    const look = vi.fn(() => Promise.resolve(disk(1)))
    const hasRoom = roomOn('/somewhere', look)
    expect([await hasRoom(), await hasRoom()]).toEqual([false, false])
    expect(look).toHaveBeenCalledTimes(1)
    vi.advanceTimersByTime(1_100)
    look.mockResolvedValueOnce(disk(1_000_000))
    expect(await hasRoom()).toBe(true)
    vi.useRealTimers()
  })
})
