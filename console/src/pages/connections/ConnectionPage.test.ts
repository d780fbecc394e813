import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { press, service, show, soon, text } from '@/testing/service'
import ConnectionPage from './ConnectionPage.vue'
import ConnectionsPage from './ConnectionsPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
const duties = { of: ['design', 'operate'] }
vi.mock('@/composables/session', async () => {
  const { ref } = await import('vue')
  return { useSession: () => ({ may: (duty: string) => duties.of.includes(duty), ended: ref(false) }) }
})

const FILE = `connection: signals
label: Signals
contract: signals.openapi.json
lookups:
  flags: { call: GET /flags, items: found, key: id }
`
const CONNECTION = {
  name: 'signals',
  label: 'Signals',
  setting: 'signals',
  contract: 'port/connections/signals.openapi.json',
  lookups: [{ name: 'flags' }],
  calls: [{ name: 'depth', parameters: [{ name: 'place' }] }],
  live: false,
  leftAlone: false,
}
const plain = { type: 'string', properties: {} }
const DOCUMENT = {
  title: 'Signal office',
  version: '3',
  address: '',
  more: false,
  operations: [
    { method: 'GET', path: '/flags', summary: 'All', parameters: [] },
    {
      method: 'GET',
      path: '/depth',
      summary: 'How deep',
      parameters: [],
      answer: { type: 'object', properties: { depth: plain } },
    },
  ],
}

beforeEach(() => {
  service.forget()
  duties.of = ['design', 'operate']
  service.answers('GET /manage/v1/draft', {
    files: [
      { path: 'port/connections/signals.yaml', text: FILE },
      { path: 'port/connections/signals.openapi.json', text: '{"openapi":"3.1.0"}' },
    ],
    diagnostics: [],
    sealed: [],
  })
  service.answers('GET /manage/v1/connections', [CONNECTION])
  service.answers('GET /manage/v1/traffic', { calls: [], failed: [] })
  service.answers('POST /manage/v1/documents/read', DOCUMENT)
  service.answers('PUT /manage/v1/draft/file', { diagnostics: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('the page of a connection', () => {
  it('shows what it gives, its contract, and that it has no address', async () => {
    await show(ConnectionPage, { name: 'signals' })
    await soon(() => expect(text()).toContain('Signal office 3, 2 operations'))
    expect(document.querySelector('[data-test=flags]')).not.toBeNull()
    expect(text()).toContain('This instance has no address for it yet.')
  })

  it('keeps in the file what is changed of a lookup', async () => {
    await show(ConnectionPage, { name: 'signals' })
    const label = document.querySelector<HTMLInputElement>('[aria-label="Label of flags"]')!
    label.value = 'name'
    label.dispatchEvent(new Event('change'))
    await soon(() =>
      expect(service.changes().find((one) => one.method === 'PUT')?.body).toMatchObject({
        path: 'port/connections/signals.yaml',
        text: FILE.replace('key: id }', 'key: id, label: name }'),
      }),
    )
  })

  it('says so where there is none of the name', async () => {
    await show(ConnectionPage, { name: 'tides' })
    expect(text()).toContain('There is no connection tides.')
  })
})

describe('the list of connections', () => {
  it('shows what each gives, and what is missing', async () => {
    await show(ConnectionsPage)
    expect(text()).toContain('depth(place)')
    expect(text()).toContain('not released yet')
    expect(text()).toContain('No address yet')
    await press('Give an address')
    expect(text()).toContain('How Signals is reached')
  })

  it('offers only what somebody may do', async () => {
    duties.of = ['operate']
    await show(ConnectionsPage)
    expect(text()).not.toContain('New connection')
    expect(text()).toContain('Give an address')
  })

  it('says what they are for when there are none', async () => {
    service.answers('GET /manage/v1/connections', [])
    await show(ConnectionsPage)
    expect(text()).toContain('Make one from the OpenAPI document of a service')
  })
})
