import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, text, type } from '@/testing/service'
import OwnPassword from './OwnPassword.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const session = (id: string, own = false) => ({
  id,
  own,
  agent: 'Mozilla/5.0 (X11; Linux x86_64; rv:120.0) Gecko/20100101 Firefox/120.0',
  address: `10.0.0.${id}`,
  begun: '2026-05-01T10:00:00Z',
  used: '2026-05-01T11:00:00Z',
})

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/sessions', [session('1', true), session('2')])
})
afterEach(() => (document.body.innerHTML = ''))

describe('the own password', () => {
  it('is changed by who knows the one that is', async () => {
    const { shown } = await show(OwnPassword)
    expect(button('Change the password').disabled).toBe(true)
    await type('[aria-label="New password"]', 'long-enough')
    expect(button('Change the password').disabled).toBe(true)
    await type('[aria-label="Current password"]', 'old')
    await press('Change the password')
    expect(service.changes()).toEqual([
      {
        method: 'POST',
        path: '/manage/v1/users/me/password',
        params: undefined,
        body: { current: 'old', next: 'long-enough' },
      },
    ])
    expect(shown.emitted('changed')).toHaveLength(1)
  })

  it('stays when the one that is was wrong', async () => {
    service.refuses('POST /manage/v1/users/me/password', 'That is not your password.')
    const { shown } = await show(OwnPassword)
    await type('[aria-label="Current password"]', 'wrong')
    await type('[aria-label="New password"]', 'long-enough')
    await press('Change the password')
    expect(text()).toContain('That is not your password.')
    expect(shown.emitted('changed')).toBeUndefined()
  })
})

describe('own sessions', () => {
  it('are told apart, and the one that is used is not ended', async () => {
    await show(OwnPassword)
    const rows = [...document.querySelectorAll('li')].map((one) => one.textContent ?? '')
    expect(rows[0]).toContain('from 10.0.0.1')
    expect(rows[0]).toContain('this one')
    expect(rows[0]).not.toContain('End it')
    expect(rows[1]).toContain('End it')
  })

  it('are ended one by one', async () => {
    await show(OwnPassword)
    service.answers('GET /manage/v1/sessions', [session('1', true)])
    await press('End it')
    expect(service.changes()).toMatchObject([{ method: 'DELETE', params: { path: { id: '2' } } }])
    expect(document.querySelectorAll('li')).toHaveLength(1)
  })

  it('say what went wrong, and are looked at again', async () => {
    await show(OwnPassword)
    service.refuses('DELETE /manage/v1/sessions/{id}', 'That session has ended.')
    await press('End it')
    expect(document.querySelector('[role=alert]')?.textContent).toContain('That session has ended.')
    expect(service.asked().filter((one) => one.path === '/manage/v1/sessions')).toHaveLength(2)
  })
})
