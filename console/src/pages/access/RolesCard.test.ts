import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, confirm, passing, press, service, show, text } from '@/testing/service'
import RolesCard from './RolesCard.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/composables/session', () => ({ useSession: () => ({ may: () => true }) }))

const CLERK = {
  name: 'clerk',
  label: 'Clerk',
  describe: 'At the desk',
  duties: ['RECORDS'],
  objects: [{ object: 'Stay', actions: ['VIEW', 'EDIT'] }],
  services: ['berth-desk/*/*'],
  users: ['ann', 'bob'],
}

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/roles', [CLERK, { ...CLERK, name: 'guest', label: 'Guest', users: [] }])
  service.answers('GET /manage/v1/model', { objects: [], events: [], packages: [] })
  service.answers('GET /manage/v1/model/services', [])
})
afterEach(() => (document.body.innerHTML = ''))

describe('roles', () => {
  it('say what they allow and who holds them', async () => {
    await show(RolesCard)
    const clerk = document.querySelector('[data-test=role-clerk]')?.textContent
    expect(clerk).toContain('At the desk')
    expect(clerk).toContain('held by ann, bob')
    expect(clerk).toContain('Stay: view, edit')
    expect(clerk).toContain('records')
    expect(clerk).toContain('berth-desk/*/*')
  })

  it('that somebody holds cannot be removed', async () => {
    await show(RolesCard)
    const buttons = [...document.querySelectorAll('button')].filter((one) =>
      one.textContent?.includes('Remove'),
    )
    expect(buttons.map((one) => one.disabled)).toEqual([true, false])
    expect(buttons[0]?.title).toBe('Take it from the people who hold it first')
  })

  it('of a package are changed there', async () => {
    service.answers('GET /manage/v1/roles', [{ ...CLERK, from: 'gullhaven' }])
    await show(RolesCard)
    expect(text()).toContain('comes with the package gullhaven')
    expect([...document.querySelectorAll('[data-test=role-clerk] button')]).toEqual([])
    expect(document.querySelector('[data-test=role-clerk] a')?.getAttribute('href')).toContain('/packages')
  })

  it('that nobody holds are removed when that is said twice', async () => {
    const said = passing()
    const { shown } = await show(RolesCard)
    await press('Remove')
    expect(service.changes()).toEqual([])
    await confirm(shown, 1)
    expect(service.changes()[0]).toMatchObject({ method: 'DELETE', params: { path: { name: 'guest' } } })
    expect(said.good).toHaveBeenLastCalledWith('Guest is removed.')
  })

  it('are changed and made in a form', async () => {
    await show(RolesCard)
    await press('New role')
    expect(document.querySelector('.ant-modal')).not.toBeNull()
    expect(button('New role')).toBeTruthy()
  })

  it('say why they cannot be shown', async () => {
    service.refuses('GET /manage/v1/roles', 'Not yours.')
    await show(RolesCard)
    expect(text()).toContain('Not yours.')
  })
})
