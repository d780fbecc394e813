import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { ConnectionView } from '@/api/connections'
import { press, service, show, text, type } from '@/testing/service'
import ReachForm from './ReachForm.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const PUT = 'PUT /manage/v1/connections/reaches/{setting}'
const CONNECTION: ConnectionView = {
  name: 'signals',
  packageName: 'port',
  label: 'Signals',
  setting: 'signal-office',
  contract: 'port/connections/signals.openapi.json',
  lookups: [],
  calls: [],
  live: true,
  leftAlone: false,
}
const there = (scheme: string) => ({
  setting: 'signal-office',
  address: 'https://s.example',
  scheme,
  user: '',
  tokenAddress: '',
  scope: '',
  hasSecret: true,
  changedAt: '',
  changedBy: '',
})
beforeEach(() => service.forget())
afterEach(() => (document.body.innerHTML = ''))

describe('how a service is reached', () => {
  it('is given for the setting of the connection', async () => {
    service.answers(PUT, there('none'))
    const { shown } = await show(ReachForm, { connection: CONNECTION, proposed: 'https://p.example' })
    expect(document.querySelector<HTMLInputElement>('#r-address')!.value).toBe('https://p.example')
    await type('#r-address', 'https://s.example')
    await press('Save')
    expect(service.changes()[0]).toMatchObject({
      params: { path: { setting: 'signal-office' } },
      body: { address: 'https://s.example', scheme: 'none' },
    })
    expect(shown.emitted('saved')).toHaveLength(1)
  })

  it('never shows a secret, and keeps the one there is when none is written', async () => {
    service.answers(PUT, there('bearer'))
    await show(ReachForm, { connection: { ...CONNECTION, reach: there('bearer') } })
    const secret = document.querySelector<HTMLInputElement>('#r-secret')!
    expect(secret.value).toBe('')
    expect(secret.placeholder).toBe('The one there is stays')
    await press('Save')
    expect(service.changes()[0].body).not.toHaveProperty('secret')
  })

  it('sends a secret that was written', async () => {
    service.answers(PUT, there('bearer'))
    await show(ReachForm, { connection: { ...CONNECTION, reach: there('bearer') } })
    await type('#r-secret', 'low-tide')
    await press('Save')
    expect(service.changes()[0].body).toMatchObject({ scheme: 'bearer', secret: 'low-tide' })
  })

  it('says at each place what is wrong', async () => {
    service.refuses(PUT, 'Wrong.', { address: 'The address must begin with https://.' })
    const { shown } = await show(ReachForm, { connection: CONNECTION })
    await type('#r-address', 'ftp://s')
    await press('Save')
    expect(text()).toContain('The address must begin with https://.')
    expect(shown.emitted('saved')).toBeUndefined()
  })
})
