import { Segmented } from 'ant-design-vue'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { service, show, text, type } from '@/testing/service'
import EventsPane from './EventsPane.vue'
import RunsPane from './RunsPane.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const AT = '2026-05-01T10:00:00Z'
const run = (done: boolean, more: object = {}) => ({
  kind: 'function',
  name: 'Order.close',
  object: 'Order',
  done,
  said: done ? 'closed' : 'It has open lines.',
  millis: 1.25,
  at: AT,
  by: 'ann',
  via: 'order-desk v1',
  ...more,
})
const queries = () => service.asked().map((one) => (one.params as { query: Record<string, unknown> }).query)
const links = () => [...document.querySelectorAll('tbody a')].map((one) => one.getAttribute('href'))

beforeEach(() => service.forget())
afterEach(() => (document.body.innerHTML = ''))

describe('runs', () => {
  it('say what came of each, and lead to the record and the steps', async () => {
    service.answers('GET /manage/v1/runs', [
      run(true, { key: 'N/1', trace: 't1' }),
      run(false, { kind: 'handler' }),
    ])
    const { shown } = await show(RunsPane)
    const [done, refused] = shown.findAll('tbody tr').map((one) => one.text())
    expect(done).toContain('done')
    expect(done).toContain('1.3 ms')
    expect(done).toContain('ann · order-desk v1')
    expect(refused).toContain('refused')
    expect(refused).toContain('It has open lines.')
    expect(links()).toEqual(['/data/Order/record/N%2F1', '/activity/t1'])
  })

  it('are chosen by name, key and outcome', async () => {
    service.answers('GET /manage/v1/runs', [])
    const { shown } = await show(RunsPane)
    expect(text()).toContain('No run matches.')
    await type('[aria-label=Name]', 'Order.close')
    await type('[aria-label=Key]', 'N/1')
    shown.findComponent(Segmented).vm.$emit('update:value', 'refused')
    await flushPromises()
    expect(queries()[0]).toEqual({ name: '', key: '', done: undefined, limit: 100 })
    expect(queries().at(-1)).toEqual({ name: 'Order.close', key: 'N/1', done: false, limit: 100 })
  })

  it('say why they cannot be shown', async () => {
    service.refuses('GET /manage/v1/runs', 'The duty activity is not yours.')
    await show(RunsPane)
    expect(text()).toContain('The duty activity is not yours.')
  })
})

describe('events', () => {
  it('say what was told, and lead to the record', async () => {
    service.answers('GET /manage/v1/events', [
      {
        id: 1,
        name: 'OrderClosed',
        object: 'Order',
        key: 'N/1',
        data: { open: 0 },
        at: AT,
        by: 'ann',
        via: 'x',
      },
      { id: 2, name: 'NightBegan', data: {}, at: AT, by: 'sandpiper', via: 'schedule' },
    ])
    const { shown } = await show(EventsPane)
    const [closed, night] = shown.findAll('tbody tr').map((one) => one.text())
    expect(closed).toContain('{"open":0}')
    expect(night).toContain('NightBegan')
    expect(links()).toEqual(['/data/Order/record/N%2F1'])
  })

  it('say what they are where there is none, and that none matches where some were looked for', async () => {
    service.answers('GET /manage/v1/events', [])
    await show(EventsPane)
    expect(text()).toContain('Nothing was raised yet.')
    await type('[aria-label="Search events"]', 'Order')
    expect(text()).toContain('No event matches.')
    expect(queries().at(-1)).toEqual({ search: 'Order', limit: 100 })
  })
})
