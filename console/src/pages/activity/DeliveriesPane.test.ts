import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { passing, press, service, show, soon, text } from '@/testing/service'
import DeliveriesPane from './DeliveriesPane.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const delivery = (number: number, state: string, more: object = {}) => ({
  number,
  state,
  target: 'webhook ledger',
  tries: 2,
  said: 'It answered 500.',
  event: { name: 'StayEnded', object: 'Stay', key: 'S/1', at: '2026-05-01T10:00:00Z', data: { total: 5 } },
  ...more,
})

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/deliveries', [
    delivery(7, 'parked', { trace: 't1' }),
    delivery(8, 'waiting', { due: '2026-05-01T11:00:00Z' }),
  ])
  service.answers('GET /manage/v1/deliveries/counts', { waiting: 1, parked: 3 })
  service.answers('GET /manage/v1/deliveries/{number}', {
    tries: [
      {
        at: '2026-05-01T10:00:01Z',
        status: 500,
        millis: 12,
        said: 'No.',
        request: 'POST /hook',
        answer: 'oops',
      },
    ],
  })
})
afterEach(() => (document.body.innerHTML = ''))

describe('deliveries', () => {
  it('say where they stand and lead to their record', async () => {
    await show(DeliveriesPane)
    const parked = document.querySelector('[data-test=delivery-7]')!
    expect(parked.textContent).toContain('StayEnded')
    expect(parked.textContent).toContain('It answered 500.')
    expect(parked.querySelector('a')?.getAttribute('href')).toBe('/data/Stay/record/S%2F1')
    expect(document.querySelector('[data-test=delivery-8]')?.textContent).toContain('next try')
    expect(text()).toContain('Parked 3')
  })

  it('show each try with what was sent and answered', async () => {
    await show(DeliveriesPane)
    document.querySelector<HTMLButtonElement>('[data-test=delivery-7] button')?.click()
    await soon(() => expect(text()).toContain('POST /hook'))
    expect(text()).toContain('oops')
    expect(text()).toContain('{"total":5}')
  })

  it('are tried again one by one, but not while they wait', async () => {
    const said = passing()
    service.answers('POST /manage/v1/deliveries/{number}/redeliver', { count: 1 })
    await show(DeliveriesPane)
    expect(document.querySelector('[data-test=delivery-8]')?.textContent).not.toContain('Deliver again')
    await press('Deliver again')
    expect(service.changes()[0]?.params).toEqual({ path: { number: 7 } })
    expect(said.good).toHaveBeenLastCalledWith('1 delivery is tried again.')
  })

  it('are tried again all at once', async () => {
    const said = passing()
    service.answers('POST /manage/v1/deliveries/redeliver', { count: 3 })
    await show(DeliveriesPane)
    await press('Try all parked again')
    expect(service.changes()[0]?.params).toEqual({ query: { target: '' } })
    expect(said.good).toHaveBeenLastCalledWith('3 deliveries are tried again.')
  })

  it('say so when there is none', async () => {
    service.answers('GET /manage/v1/deliveries', [])
    service.answers('GET /manage/v1/deliveries/counts', { waiting: 0, parked: 0 })
    await show(DeliveriesPane)
    expect(text()).toContain('No delivery here.')
    expect(text()).not.toContain('Try all parked again')
  })
})
