import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, soon, text } from '@/testing/service'
import RehearsalCard from './RehearsalCard.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/composables/session', () => ({ useSession: () => ({ may: () => true }) }))

const DONE = {
  stage: 'done',
  over: true,
  begun: '2026-05-01T10:00:00Z',
  by: 'ann',
  release: 4,
  bytes: 12_000_000,
  copyMillis: 80,
  releaseMillis: 1_250,
  formulaMillis: 0,
  formulas: [] as string[],
  failing: [],
  differing: [],
}
const came = (more: object) => service.answers('GET /manage/v1/rehearsal', { last: { ...DONE, ...more } })

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/rehearsal', {})
})
afterEach(() => (document.body.innerHTML = ''))

describe('a rehearsal', () => {
  it('is offered with what it is, where there is something to release', async () => {
    const { shown } = await show(RehearsalCard, { ready: true })
    expect(text()).toContain('Releases the draft on a copy of the live data')
    expect(button('Rehearse').disabled).toBe(false)
    await shown.setProps({ ready: false })
    expect(button('Rehearse').disabled).toBe(true)
  })

  it('tells how far it has come, and can be ended', async () => {
    service.answers('POST /manage/v1/rehearsal', {})
    service.answers('DELETE /manage/v1/rehearsal', null)
    await show(RehearsalCard, { ready: true })
    came({ stage: 'releasing', over: false })
    await press('Rehearse')
    expect(text()).toContain('Releasing on the copy')
    await press('End it')
    expect(service.changes().map((one) => one.method)).toEqual(['POST', 'DELETE'])
    came({ stage: 'stopped', message: 'It was ended.' })
    await soon(() => expect(text()).toContain('It was ended.'))
  })

  it('tells how long the release takes', async () => {
    came({})
    await show(RehearsalCard, { ready: true })
    expect(text()).toMatch(/On a copy of release 4 \(12 MB\) the release took\s*1\.3 s\s*, in which nobody/)
    expect(text()).toContain('All examples hold.')
  })

  it('tells of formulas and of examples that do not hold', async () => {
    came({
      formulas: ['Job.total'],
      formulaMillis: 640,
      failing: [{ requirement: 'R1', label: 'free', problems: ['It was refused.'] }],
      differing: [{ requirement: 'R2', label: 'taken', problems: ['There is a J1.'] }],
    })
    await show(RehearsalCard, { ready: true })
    expect(text()).toMatch(/Job\.total was worked out\s+for all records in 640 ms/)
    expect(text()).toContain('R1, free: It was refused.')
    expect(text()).toContain('R2, taken: There is a J1.')
    expect(text()).not.toContain('All examples hold.')
  })

  it('tells why the release would be refused', async () => {
    came({
      stage: 'refused',
      message: 'The data stands in the way.',
      preview: { obstacles: ['Two share J1.'] },
    })
    await show(RehearsalCard, { ready: true })
    expect(text()).toContain('It would be refused')
    expect(text()).toContain('Two share J1.')
  })

  it('is opened where it is served, until it is ended', async () => {
    service.answers('DELETE /manage/v1/rehearsal', null)
    came({ served: { place: '/rehearsal', until: '2026-05-02T10:00:00Z' } })
    await show(RehearsalCard, { ready: true })
    expect(document.querySelector<HTMLAnchorElement>('[data-test=served] a')?.getAttribute('href')).toBe(
      '/rehearsal/',
    )
    expect(button('Rehearse again').disabled).toBe(false)
    came({})
    await press('End it')
    await soon(() => expect(document.querySelector('[data-test=served]')).toBeNull())
    expect(text()).not.toContain('End it')
  })

  it('tells what recorded calls are answered', async () => {
    came({ replay: { played: 7, skipped: 0, differences: [] } })
    await show(RehearsalCard, { ready: true })
    expect(text()).toMatch(/7 calls\s+were played/)
  })

  it('says why it cannot begin', async () => {
    service.refuses('POST /manage/v1/rehearsal', 'A rehearsal of bob is under way.')
    await show(RehearsalCard, { ready: true })
    await press('Rehearse')
    expect(text()).toContain('A rehearsal of bob is under way.')
  })
})
