import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { press, service, show, text } from '@/testing/service'
import HomePage from './HomePage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('./RunningCards.vue', () => ({ default: { template: '<div>running</div>' } }))
const begin = vi.fn()
vi.mock('@/composables/guide', () => ({ useGuide: () => ({ on: false, begin }) }))
let duties: string[] = []
vi.mock('@/composables/session', () => ({
  useSession: () => ({ may: (duty: string) => duties.includes(duty) }),
}))

const EMPTY = {
  version: '0.1.0',
  release: 0,
  services: 0,
  changedFiles: 0,
  errors: 0,
  objects: [],
  latest: [],
  working: [],
}
const stands = (more: object) => service.answers('GET /manage/v1/status', { ...EMPTY, ...more })
const steps = () => [...document.querySelectorAll('ol a')].map((one) => one.textContent)

beforeEach(() => {
  service.forget()
  duties = ['design', 'access']
  stands({})
})
afterEach(() => (document.body.innerHTML = ''))

describe('home', () => {
  it('leads from nothing to a first service', async () => {
    await show(HomePage)
    expect(text()).toContain('Nothing is released yet')
    expect(text()).toContain('There are no objects yet.')
    expect(text()).toContain('Nothing has been entered yet.')
    expect(steps()).toEqual([
      'Make a package, or bring one in',
      'Define the first object',
      'Publish a service',
      'Invite a colleague',
    ])
    await press('Guide me to a first service')
    expect(begin).toHaveBeenCalled()
  })

  it('says first what is wrong', async () => {
    stands({ changedFiles: 2, errors: 1 })
    await show(HomePage)
    expect(steps()[0]).toBe('Mend the errors in the draft')
    expect(steps()).not.toContain('Release what waits in the draft')
  })

  it('says what waits', async () => {
    stands({ release: 3, services: 1, changedFiles: 2 })
    await show(HomePage)
    expect(steps()).toEqual([
      'Release what waits in the draft',
      'Look at the model as a diagram',
      'Hand a contract to an integrator',
    ])
  })

  it('has no steps for who designs nothing', async () => {
    duties = []
    stands({ release: 3, services: 1 })
    await show(HomePage)
    expect(text()).not.toContain('Next steps')
    expect(text()).not.toContain('running')
  })

  it('shows records and what was done with them', async () => {
    const done = (label: string, record: string) => ({
      label,
      object: 'Stay',
      record,
      operation: 'created',
      by: 'ann',
      via: 'console',
      at: '2026-05-01T10:00:00Z',
    })
    stands({
      release: 1,
      objects: [{ name: 'Stay', plural: 'Stays', inUse: 1200, retired: 3 }],
      latest: [done('Stay S-1', 'S-1')],
    })
    await show(HomePage)
    expect(text()).toContain('Stays')
    expect(text()).toContain('3 retired')
    expect(text()).toMatch(/1.200/)
    const links = [...document.querySelectorAll('a')].map((one) => one.getAttribute('href'))
    expect(links).toContain('/data/Stay')
    expect(links).toContain('/data/Stay/record/S-1')
  })

  it('says how far a formula is worked out', async () => {
    stands({ release: 1, working: [{ formula: 'Stay.total', share: 0.427 }] })
    const { shown } = await show(HomePage)
    expect(text()).toMatch(/Stay.total\s*is being worked out/)
    expect(text()).toContain('42 % done')
    shown.unmount()
  })

  it('says why it cannot be shown', async () => {
    service.refuses('GET /manage/v1/status', 'The service is stopping.')
    await show(HomePage)
    expect(text()).toContain('The service is stopping.')
  })
})
