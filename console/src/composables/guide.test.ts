import { describe, expect, it } from 'vitest'
import { guideSteps, type GuideFacts } from './guide'

const nothing: GuideFacts = {
  packages: 0,
  isObjectLive: false,
  records: 0,
  isServiceLive: false,
  hasClient: false,
  calls: 0,
}

describe('the guide', () => {
  it('leads from nothing to a call, one step after the other', () => {
    expect(guideSteps(nothing).done).toBe(0)
    const object = { ...nothing, packages: 1, object: 'Job' }
    expect(guideSteps(object).done).toBe(2)
    const records = { ...object, isObjectLive: true }
    expect(guideSteps(records).steps[guideSteps(records).done].to).toBe('/data/Job')
    const all = { ...records, records: 1, service: 'desk-v1', isServiceLive: true, hasClient: true, calls: 1 }
    expect(guideSteps(all).done).toBe(8)
  })

  it('goes back to what is undone again', () => {
    const later = { ...nothing, packages: 1, object: 'Job', records: 3, service: 'desk-v1' }
    expect(guideSteps(later).done).toBe(2)
  })
})
