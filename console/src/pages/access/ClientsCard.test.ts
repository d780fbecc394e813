import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { confirm, passing, press, service, show, text, type } from '@/testing/service'
import ClientsCard from './ClientsCard.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const CLIENT = {
  name: 'booking-site',
  label: 'Booking site',
  grants: ['berth-desk/*/*'],
  callsPerMinute: 0,
  createdAt: '2026-05-01T10:00:00Z',
  digests: false,
  disabled: false,
}

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/clients', [
    CLIENT,
    {
      ...CLIENT,
      name: 'ledger',
      label: 'Ledger',
      grants: [],
      callsPerMinute: 1200,
      disabled: true,
      digests: true,
    },
  ])
  service.answers('GET /manage/v1/model/services', [])
  service.answers('GET /manage/v1/model', { objects: [] })
})
afterEach(() => (document.body.innerHTML = ''))

const row = (name: string) => document.querySelector(`[data-test=${name}]`)!

describe('clients', () => {
  it('are shown with what they may and when they last did', async () => {
    await show(ClientsCard)
    expect(row('booking-site').textContent).toContain('berth-desk/*/*')
    expect(row('booking-site').textContent).toContain('as usual')
    expect(row('booking-site').textContent).toContain('never')
    expect(row('ledger').textContent).toContain('disabled')
    expect(row('ledger').textContent).toContain('digests')
    expect(row('ledger').textContent).toContain('nothing')
    expect(row('ledger').textContent).toMatch(/1.200 a minute/)
  })

  it('are asked for where there is none', async () => {
    service.answers('GET /manage/v1/clients', [])
    await show(ClientsCard)
    expect(text()).toContain('None yet. Make one for each system that calls')
  })

  it('say why they cannot be shown', async () => {
    service.refuses('GET /manage/v1/clients', 'The duty access is not yours.')
    await show(ClientsCard)
    expect(text()).toContain('The duty access is not yours.')
    expect(text()).toContain('Try again')
  })

  it('are disabled and enabled', async () => {
    const said = passing()
    await show(ClientsCard)
    await press('Disable')
    await press('Enable')
    expect(service.changes().map((one) => one.body)).toEqual([{ disabled: true }, { disabled: false }])
    expect(service.changes().map((one) => one.params)).toEqual([
      { path: { name: 'booking-site' } },
      { path: { name: 'ledger' } },
    ])
    expect(said.good).toHaveBeenLastCalledWith('Ledger can call again.')
  })

  it('show a new secret once', async () => {
    service.answers('POST /manage/v1/clients/{name}/secret', {
      secret: 'abc-123',
      client: { ...CLIENT, previousUntil: '2026-05-02T10:00:00Z' },
    })
    const { shown } = await show(ClientsCard)
    await confirm(shown, 0)
    expect(document.querySelector('[data-test=secret]')?.textContent).toBe('abc-123')
    expect(text()).toContain('The old secret stays right until')
    await press('I have noted it')
    expect(document.querySelector('[data-test=secret]')).toBeNull()
  })

  it('are removed only when that is said twice', async () => {
    const said = passing()
    const { shown } = await show(ClientsCard)
    await press('Remove')
    expect(service.changes()).toEqual([])
    await confirm(shown, 1)
    expect(service.changes()[0]).toMatchObject({
      method: 'DELETE',
      params: { path: { name: 'booking-site' } },
    })
    expect(said.good).toHaveBeenLastCalledWith('Booking site is removed.')
  })

  it('say what went wrong', async () => {
    const said = passing()
    service.refuses('PATCH /manage/v1/clients/{name}', 'It is used just now.')
    await show(ClientsCard)
    await press('Disable')
    expect(said.bad).toHaveBeenLastCalledWith('It is used just now.')
  })

  it('are made with a name, and their secret is shown', async () => {
    service.answers('POST /manage/v1/clients', { client: { name: 'kiosk' }, secret: 'first' })
    await show(ClientsCard)
    await press('New client')
    expect(text()).toContain('New client')
    await type('.ant-modal input', 'kiosk')
    await press('Make it')
    expect(service.changes()[0]).toMatchObject({
      method: 'POST',
      path: '/manage/v1/clients',
      body: { name: 'kiosk' },
    })
    expect(text()).toContain('first')
  })
})
