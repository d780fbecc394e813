import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { confirm, passing, press, service, show, soon, text } from '@/testing/service'
import WebhooksPage from './WebhooksPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const LEDGER = {
  name: 'ledger',
  label: 'Ledger',
  address: 'https://l.example/hook',
  events: ['StayEnded'],
  filter: 'total > 1000',
  disabled: false,
  previousUntil: '2026-05-02T10:00:00Z',
}

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/webhooks', [
    LEDGER,
    { ...LEDGER, name: 'yard', label: 'Yard', disabled: true },
  ])
  service.answers('GET /manage/v1/model', { objects: [], events: [], packages: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('webhooks', () => {
  it('say what they hear, where and when', async () => {
    await show(WebhooksPage)
    const row = document.querySelector('[data-test=ledger]')!.textContent
    expect(row).toContain('StayEnded')
    expect(row).toContain('when total > 1000')
    expect(row).toContain('https://l.example/hook')
    expect(row).toContain('old secret signs too until')
    expect(document.querySelector('[data-test=yard]')!.textContent).toContain('disabled')
  })

  it('are explained where there is none', async () => {
    service.answers('GET /manage/v1/webhooks', [])
    await show(WebhooksPage)
    expect(text()).toContain('None yet. Make one for each system that wants to hear of events')
  })

  it('are sent a test', async () => {
    passing()
    service.answers('POST /manage/v1/webhooks/{name}/test', { event: 7 })
    await show(WebhooksPage)
    document.querySelector<HTMLButtonElement>('[data-test=ledger] button')?.click()
    await soon(() => expect(service.changes()).toHaveLength(1))
    expect(service.changes()[0]).toMatchObject({
      path: '/manage/v1/webhooks/{name}/test',
      params: { path: { name: 'ledger' } },
    })
  })

  it('get a new secret, which is shown once', async () => {
    service.answers('POST /manage/v1/webhooks/{name}/rotate', { webhook: LEDGER, secret: 'whsec-1' })
    const { shown } = await show(WebhooksPage)
    await confirm(shown, 0)
    expect(document.querySelector('[data-test=secret]')?.textContent).toBe('whsec-1')
    await press('I have noted it')
    expect(document.querySelector('[data-test=secret]')).toBeNull()
  })

  it('are disabled, enabled and removed', async () => {
    passing()
    const { shown } = await show(WebhooksPage)
    await press('Disable')
    await press('Enable')
    await confirm(shown, 1)
    expect(service.changes().map((one) => [one.method, one.body])).toEqual([
      ['PATCH', { disabled: true }],
      ['PATCH', { disabled: false }],
      ['DELETE', undefined],
    ])
  })
})
