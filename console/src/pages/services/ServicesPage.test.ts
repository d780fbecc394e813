import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { service, show, text } from '@/testing/service'
import ServicesPage from './ServicesPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/composables/session', () => ({ useSession: () => ({ may: () => false }) }))
vi.mock('@/api/http', async (original) => ({
  ...(await original<object>()),
  call: vi.fn(() => Promise.resolve({ paths: {} })),
}))

const named = (name: string, version = 1) => ({
  name,
  version,
  label: `The ${name}`,
  protocols: ['rest'],
  resources: [],
})

describe('the page of services', () => {
  beforeEach(() => {
    service.forget()
    service.answers('GET /manage/v1/model/services', [named('desk'), named('yard', 2)])
    service.answers('GET /manage/v1/draft', { files: [], diagnostics: [], sealed: [] })
    service.answers('GET /manage/v1/model', { objects: [], events: [] })
  })

  let leave = () => {}
  afterEach(() => {
    leave()
    leave = () => {}
  })

  const heading = async (props: { service?: string }) => {
    leave()
    const { shown } = await show(ServicesPage, props)
    leave = () => shown.unmount()
    const there = shown.find('.main h1')
    return there.exists() ? there.text() : undefined
  }

  it('shows the first where none is named, and the one that is named', async () => {
    expect(await heading({})).toBe('The desk')
    expect(await heading({ service: 'yard-v2' })).toBe('The yard')
  })

  it('says so when the one that is named is not live, and shows no other in its place', async () => {
    expect(await heading({ service: 'yard-v3' })).toBeUndefined()
    expect(text()).toContain('There is no service yard-v3 that is live.')
  })
})
