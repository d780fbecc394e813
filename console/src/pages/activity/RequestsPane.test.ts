import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { latestTraces, oneTrace } from '@/api/logic'
import { service, show, text, type } from '@/testing/service'
import RequestsPane from './RequestsPane.vue'

vi.mock('@/api/logic', () => ({ latestTraces: vi.fn(), oneTrace: vi.fn() }))
vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const step = (title: string, result: string) => ({
  depth: 0,
  kind: 'INPUT',
  title,
  detail: '',
  result,
  micros: 1200,
})
const trace = (id: string, what: string, outcome: string) => ({
  id,
  what,
  outcome,
  by: 'ann',
  via: 'berth-desk v1',
  at: '2026-05-01T10:00:00Z',
  steps: [step('name', '"A"'), step('size', '5')],
})

beforeEach(() => {
  service.answers('GET /manage/v1/model', { objects: [] })
  vi.mocked(latestTraces).mockResolvedValue([
    trace('t1', 'create Stay', 'refused'),
    trace('t2', 'change Berth', 'done'),
  ] as never)
  vi.mocked(oneTrace).mockImplementation(
    (id: string) => Promise.resolve(trace(id, `account of ${id}`, 'done')) as never,
  )
})
afterEach(() => (document.body.innerHTML = ''))

describe('requests', () => {
  it('begin with the newest', async () => {
    await show(RequestsPane)
    await flushPromises()
    expect(oneTrace).toHaveBeenCalledWith('t1')
    expect(text()).toContain('account of t1')
    expect(text()).toContain('2 steps')
  })

  it('are chosen by their address', async () => {
    await show(RequestsPane, { trace: 't2' })
    await flushPromises()
    expect(text()).toContain('account of t2')
    expect(document.querySelector('.here')?.textContent).toContain('change Berth')
  })

  it('lead to their own address', async () => {
    const { router } = await show(RequestsPane)
    document.querySelectorAll<HTMLButtonElement>('button.one')[1]?.click()
    await flushPromises()
    expect(router.currentRoute.value.path).toBe('/activity/t2')
  })

  it('are looked for by what stands there', async () => {
    await show(RequestsPane)
    await type('input.search', 'berth')
    const found = [...document.querySelectorAll('button.one')].map((one) => one.textContent)
    expect(found).toHaveLength(2)
    await type('input.search', 'refused')
    expect(document.querySelectorAll('button.one')).toHaveLength(1)
  })

  it('are gone through step by step, by keys too', async () => {
    await show(RequestsPane)
    await flushPromises()
    const card = document.querySelector('[aria-label="Steps of the request"]')!
    const press = async (key: string) => {
      card.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
      await flushPromises()
    }
    await press('ArrowRight')
    expect(text()).toContain('1 of 2 steps')
    await press('ArrowDown')
    await press('ArrowDown')
    expect(text()).toContain('2 of 2 steps')
    await press('ArrowLeft')
    expect(text()).toContain('1 of 2 steps')
    expect(document.querySelector('[data-test=standing]')).not.toBeNull()
    await press('x')
    expect(text()).toContain('1 of 2 steps')
  })

  it('are explained where there is none', async () => {
    vi.mocked(latestTraces).mockResolvedValue([] as never)
    await show(RequestsPane)
    expect(text()).toContain('No request was refused yet.')
  })
})
