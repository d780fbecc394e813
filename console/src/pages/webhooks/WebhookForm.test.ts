import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { press, service, show, text, type } from '@/testing/service'
import WebhookForm from './WebhookForm.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const field = (name: string) => ({ name, label: name, field: { name, type: 'integer' } })

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/model', {
    objects: [],
    events: [
      { name: 'Job.created', inherent: true, fields: [field('code')] },
      { name: 'JobEnded', inherent: false, fields: [field('code'), field('total')] },
    ],
  })
})
afterEach(() => (document.body.innerHTML = ''))

describe('a webhook', () => {
  it('is made with what was written', async () => {
    service.answers('POST /manage/v1/webhooks', { webhook: { name: 'ledger' }, secret: 's' })
    const { shown } = await show(WebhookForm)
    await type('#w-name', 'ledger')
    await type('#w-label', 'Ledger')
    await type('#w-address', 'https://l.example/hook')
    await press('Save')
    expect(service.changes()).toEqual([
      {
        method: 'POST',
        path: '/manage/v1/webhooks',
        body: { name: 'ledger', label: 'Ledger', address: 'https://l.example/hook', events: [], filter: '' },
        params: undefined,
      },
    ])
    expect(shown.emitted('saved')).toEqual([[{ webhook: { name: 'ledger' }, secret: 's' }]])
  })

  it('that is there has no other name', async () => {
    const webhook = {
      name: 'ledger',
      label: 'Ledger',
      address: 'https://l.example/',
      events: ['JobEnded'],
      disabled: false,
    }
    const { shown } = await show(WebhookForm, { webhook })
    expect(document.querySelector('#w-name')).toBeNull()
    await type('#w-address', 'https://m.example/')
    await press('Save')
    expect(service.changes()[0]).toMatchObject({
      method: 'PATCH',
      params: { path: { name: 'ledger' } },
      body: { address: 'https://m.example/', events: ['JobEnded'] },
    })
    expect(shown.emitted('saved')).toHaveLength(1)
  })

  it('says at each place what is wrong', async () => {
    service.refuses('POST /manage/v1/webhooks', 'Two things are wrong.', {
      address: 'The address must begin with https.',
      'events/0': 'There is no event Nope.',
    })
    const { shown } = await show(WebhookForm)
    await press('Save')
    expect(text()).toContain('The address must begin with https.')
    expect(text()).toContain('There is no event Nope.')
    expect(text()).not.toContain('Two things are wrong.')
    expect(shown.emitted('saved')).toBeUndefined()
  })

  it('says on top what has no place', async () => {
    service.refuses('POST /manage/v1/webhooks', 'There are enough webhooks.')
    await show(WebhookForm)
    await press('Save')
    expect(text()).toContain('There are enough webhooks.')
  })

  it('is left as it was', async () => {
    const { shown } = await show(WebhookForm)
    await press('Cancel')
    expect(shown.emitted('left')).toHaveLength(1)
    expect(service.changes()).toEqual([])
  })
})
