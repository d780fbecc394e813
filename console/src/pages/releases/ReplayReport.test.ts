import { afterEach, describe, expect, it } from 'vitest'
import { show, text } from '@/testing/service'
import ReplayReport from './ReplayReport.vue'

const ONE = {
  call: 'desk v1 stays create, REST',
  count: 12,
  of: 4310,
  now: '201',
  then: '422 Insured too short.',
  example: 'POST /api/desk/v1/stays, site',
}
const came = (more: object) =>
  show(ReplayReport, {
    of: { played: 5000, skipped: 0, since: '2026-05-01T10:00:00Z', differences: [], ...more },
  })

afterEach(() => (document.body.innerHTML = ''))

describe('recorded calls on a rehearsal', () => {
  it('are told to be answered alike', async () => {
    await came({})
    expect(text()).toMatch(/5,000 calls\s+recorded since .+ were played .+ all are answered alike/)
  })

  it('are counted by how they differ, with an example', async () => {
    await came({ differences: [ONE] })
    expect(text()).toContain('12 of 4,310')
    expect(text()).toContain('desk v1 stays create, REST')
    expect(text()).toContain('422 Insured too short.')
    expect(text()).toContain('POST /api/desk/v1/stays, site')
    expect(text()).not.toContain('answered alike')
  })

  it('that could not be played are told', async () => {
    await came({ skipped: 3 })
    expect(text()).toContain('3 could not be played')
  })
})
