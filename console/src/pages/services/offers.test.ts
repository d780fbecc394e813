import { describe, expect, it } from 'vitest'
import type { ResourceView, ServiceView } from '@/api/client'
import { functionsOf, offersOf } from './offers'

const resource = (operations: object, calls: object[] = []) =>
  ({ name: 'stays', operations, calls }) as unknown as ResourceView

describe('what of a resource can be called', () => {
  it('is what its definition offers, in the order of use', () => {
    const offers = offersOf(resource({ remove: [], read: ['code'], query: ['code'] }))
    expect(offers.map((one) => one.label)).toEqual(['Find', 'Read', 'Remove'])
    expect(offers.map((one) => one.method)).toEqual(['GET', 'GET', 'DELETE'])
    expect(offers.map((one) => one.keyed)).toEqual([false, true, true])
  })

  it('has calls below the address of a record, with a body where they take something', () => {
    const offers = offersOf(
      resource({}, [
        { address: 'check-in', label: 'Check in', example: {} },
        { address: 'move', label: 'Move', example: { to: 'N-07' } },
      ]),
    )
    expect(offers).toMatchObject([
      { value: 'call check-in', method: 'POST', keyed: true, body: false, below: '/check-in' },
      { value: 'call move', body: true, below: '/move', example: { to: 'N-07' } },
    ])
  })

  it('is nothing of nothing', () => {
    expect(offersOf(undefined)).toEqual([])
    expect(offersOf(resource({}))).toEqual([])
  })

  it('is beside what is called on no record', () => {
    const service = {
      functions: [{ call: { address: 'quote', label: 'Quote', example: { length: 9 } } }],
    } as unknown as ServiceView
    expect(functionsOf(service)).toMatchObject([{ value: 'call quote', keyed: false, body: true }])
  })
})
