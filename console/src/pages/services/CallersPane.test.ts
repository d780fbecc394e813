import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { press, service, show, text } from '@/testing/service'
import { caller } from './caller'
import CallersPane from './CallersPane.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const client = (name: string, grants: string[], disabled = false) => ({ name, label: name, grants, disabled })
const DESK = { service: { name: 'berth-desk', version: 1, label: 'Berth desk' } }

beforeEach(() => {
  service.forget()
  caller.value = null as never
  service.answers('GET /manage/v1/clients', [
    client('booking-site', ['berth-desk/stays/*', 'yard/*/*']),
    client('everything', ['*/*/*'], true),
    client('yard-only', ['yard/*/*']),
  ])
  service.answers('GET /manage/v1/roles', [
    { name: 'clerk', label: 'Clerk', services: ['berth-desk/*/*'], users: [] },
    { name: 'other', label: 'Other', services: ['yard/*/*'], users: ['bob'] },
  ])
  service.answers('GET /manage/v1/model/services', [])
  service.answers('GET /manage/v1/model', { objects: [], events: [], packages: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('who may call a service', () => {
  it('is shown with what reaches it, and nobody else', async () => {
    await show(CallersPane, DESK)
    expect(text()).toContain('booking-site')
    expect(text()).toContain('berth-desk/stays/*')
    expect(text()).toContain('everything')
    expect(text()).not.toContain('yard-only')
    expect(text()).not.toContain('yard/*/*')
  })

  it('includes people by their roles', async () => {
    await show(CallersPane, DESK)
    expect(text()).toContain('Clerk')
    expect(text()).toContain('nobody has it yet')
    expect(text()).not.toContain('Other')
  })

  it('can be tried as, unless it is disabled', async () => {
    const { shown } = await show(CallersPane, DESK)
    const buttons = [...document.querySelectorAll('button')].filter((one) =>
      one.textContent?.includes('Try as'),
    )
    expect(buttons.map((one) => one.disabled)).toEqual([false, true])
    buttons[0]?.click()
    expect(caller.value).toBe('booking-site')
    expect(shown.emitted('tried')).toHaveLength(1)
  })

  it('is asked for where there is none', async () => {
    service.answers('GET /manage/v1/clients', [])
    await show(CallersPane, DESK)
    expect(text()).toContain('No client may call it yet.')
  })

  it('is made with all of the service to begin with', async () => {
    await show(CallersPane, DESK)
    await press('Client for this service')
    expect(document.querySelector('.ant-modal')?.textContent).toContain('New client')
  })
})
