import { beforeEach, expect, it, vi } from 'vitest'
import { api } from '@/api/client'
import { caller, callerToken } from './caller'

vi.mock('@/api/client', () => ({ api: { POST: vi.fn() }, unwrap: (one: unknown) => one }))

beforeEach(() => {
  vi.mocked(api.POST).mockReset()
  let count = 0
  vi.mocked(api.POST).mockImplementation((() =>
    Promise.resolve({ token: `t${++count}`, seconds: 600 })) as never)
})

it('gets a token for a client once, and another when it runs out or the client is another', async () => {
  caller.value = ''
  expect(await callerToken(0)).toBeUndefined()
  caller.value = 'ferry'
  expect(await callerToken(0)).toBe('t1')
  expect(await callerToken(560_000)).toBe('t1')
  expect(await callerToken(580_000)).toBe('t2')
  caller.value = 'crane'
  expect(await callerToken(580_000)).toBe('t3')
})
