import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { confirm, passing, service, show, soon, text } from '@/testing/service'
import RevisionsCard from './RevisionsCard.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
const duties = { list: ['design'] }
vi.mock('@/composables/session', () => ({
  useSession: () => ({ may: (duty: string) => duties.list.includes(duty) }),
}))

const GET = 'GET /manage/v1/contracts/{service}/v{version}/revisions'
const END = 'DELETE /manage/v1/contracts/{service}/v{version}/revisions/{revision}'
const DESK = { service: { name: 'berth-desk', version: 1, label: 'Berth desk' } }
const revision = (number: number, more: object = {}) => ({
  number,
  at: '2026-05-01T10:00:00Z',
  gained: [],
  newest: false,
  endedAt: null,
  endedBy: null,
  callers: [],
  ...more,
})

beforeEach(() => {
  duties.list = ['design']
  service.forget()
  service.answers(GET, [
    revision(7, { newest: true, gained: ['stays: tag, posts.note'] }),
    revision(4, { callers: [{ caller: 'tide-office', calls: 1200, last: '2026-05-01T10:00:00Z' }] }),
    revision(2, { endedAt: '2026-05-01T10:00:00Z', endedBy: 'consultant' }),
  ])
  service.answers(END, undefined)
})
afterEach(() => {
  document.body.innerHTML = ''
  vi.restoreAllMocks()
})

describe('the revisions of a contract', () => {
  it('are shown with what answers got and who still calls them', async () => {
    await show(RevisionsCard, DESK)
    expect(text()).toContain('stays: tag, posts.note')
    expect(text()).toContain('tide-office')
    expect(text()).toContain('1,200')
    expect(text()).toContain('newest')
    expect(text()).toContain('ended by consultant')
    expect(service.asked()[0].params).toEqual({ path: { service: 'berth-desk', version: 1 } })
  })

  it('are left out as long as there is one only', async () => {
    service.answers(GET, [revision(1, { newest: true })])
    await show(RevisionsCard, DESK)
    expect(text()).not.toContain('Revisions of the contract')
  })

  it('can be ended, but for the newest and those that are', async () => {
    const { good } = passing()
    const { shown } = await show(RevisionsCard, DESK)
    expect(shown.findAll('button')).toHaveLength(1)
    await confirm(shown, 0)
    await soon(() => expect(good).toHaveBeenCalledWith('Revision 4 is ended.'))
    expect(service.changes()).toEqual([
      {
        method: 'DELETE',
        path: '/manage/v1/contracts/{service}/v{version}/revisions/{revision}',
        body: undefined,
        params: { path: { service: 'berth-desk', version: 1, revision: 4 } },
      },
    ])
  })

  it('say why one could not be ended', async () => {
    const { bad } = passing()
    service.refuses(END, 'Revision 4 is the newest of berth-desk v1.')
    const { shown } = await show(RevisionsCard, DESK)
    await confirm(shown, 0)
    await soon(() => expect(bad).toHaveBeenCalledWith('Revision 4 is the newest of berth-desk v1.'))
  })

  it('are ended only by those who design', async () => {
    duties.list = []
    const { shown } = await show(RevisionsCard, DESK)
    expect(shown.findAll('button')).toHaveLength(0)
  })
})
