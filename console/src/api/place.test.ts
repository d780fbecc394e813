import { describe, expect, it } from 'vitest'
import { placeOf } from './place'

describe('the place of the service', () => {
  it('is the root, but for pages of a rehearsal', () => {
    expect(placeOf('/')).toBe('')
    expect(placeOf('/records/Stay')).toBe('')
    expect(placeOf('/rehearsals')).toBe('')
    expect(placeOf('/rehearsal')).toBe('/rehearsal')
    expect(placeOf('/rehearsal/')).toBe('/rehearsal')
    expect(placeOf('/rehearsal/records/Stay')).toBe('/rehearsal')
  })
})
