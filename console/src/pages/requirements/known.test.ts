import { expect, it } from 'vitest'
import type { ObjectView } from '@/api/client'
import { knownAfter, objectOf } from './known'

const spot = { name: 'Spot', key: ['area', 'place'] } as ObjectView

it('knows records by their names and by keys of several fields', () => {
  const known = knownAfter(
    [spot],
    [
      { kind: 'create', target: 'Spot', as: 'first', values: { area: 'A', place: 1 } },
      { kind: 'create', target: 'Spot', values: { area: 'B' } },
    ],
  )
  expect([...known.records.keys()]).toEqual(['first', 'Spot/A,1'])
  expect(objectOf({ kind: 'transition', target: 'open', of: 'first' }, known)).toBe(spot)
  expect(objectOf({ kind: 'change', target: 'Spot/C,3' }, known)).toBe(spot)
  expect(objectOf({ kind: 'call', target: 'Spot.count' }, known)).toBe(spot)
  expect(objectOf({ kind: 'change', target: 'nobody' }, known)).toBeUndefined()
})
