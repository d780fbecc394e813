import { Select } from 'ant-design-vue'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, passing, press, service, show, text, type } from '@/testing/service'
import PeopleCard from './PeopleCard.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const ANN = { name: 'ann', label: 'Ann Hale', roles: ['clerk'], duties: ['RECORDS'] }

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/users', [
    ANN,
    { name: 'ben', label: 'Ben', roles: [], duties: [], disabled: true, temporary: true },
  ])
  service.answers('GET /manage/v1/roles', [
    { name: 'clerk', label: 'Clerk' },
    { name: 'consultant', label: 'Consultant' },
  ])
})
afterEach(() => (document.body.innerHTML = ''))

describe('people', () => {
  it('are shown with their roles and what stands in their way', async () => {
    const { shown } = await show(PeopleCard)
    const [ann, ben] = shown.findAll('tbody tr').map((one) => one.text())
    expect(ann).toContain('Ann Hale')
    expect(ann).toContain('RECORDS')
    expect(ann).not.toContain('disabled')
    expect(ben).toContain('disabled')
    expect(ben).toContain('temporary password')
    expect(ben).toContain('no role')
  })

  it('get other roles at once', async () => {
    const said = passing()
    const { shown } = await show(PeopleCard)
    shown.findAllComponents(Select)[0]!.vm.$emit('change', ['clerk', 'consultant'])
    await flushPromises()
    expect(service.changes()).toEqual([
      {
        method: 'PATCH',
        path: '/manage/v1/users/{name}',
        params: { path: { name: 'ann' } },
        body: { roles: ['clerk', 'consultant'] },
      },
    ])
    expect(said.good).toHaveBeenLastCalledWith('ann is changed.')
  })

  it('are disabled and enabled', async () => {
    passing()
    await show(PeopleCard)
    await press('Disable')
    await press('Enable')
    expect(service.changes().map((one) => one.body)).toEqual([{ disabled: true }, { disabled: false }])
  })

  it('keep what they had when a change is refused', async () => {
    const said = passing()
    service.refuses('PATCH /manage/v1/users/{name}', 'Somebody must be left who looks after people.')
    await show(PeopleCard)
    await press('Disable')
    expect(said.bad).toHaveBeenLastCalledWith('Somebody must be left who looks after people.')
  })

  it('are added with a name and a password that is long enough', async () => {
    const said = passing()
    const { shown } = await show(PeopleCard)
    await press('New person')
    expect(button('Add').disabled).toBe(true)
    await type('[aria-label=Name]', 'cleo')
    await type('[aria-label=Password]', 'seven77')
    expect(button('Add').disabled).toBe(true)
    await type('[aria-label=Password]', 'eight888')
    shown.findAllComponents(Select).at(-1)!.vm.$emit('update:value', ['clerk'])
    await press('Add')
    expect(service.changes()[0]).toEqual({
      method: 'POST',
      path: '/manage/v1/users',
      params: undefined,
      body: { name: 'cleo', label: undefined, password: 'eight888', roles: ['clerk'], temporary: true },
    })
    expect(said.good).toHaveBeenLastCalledWith('Added.')
    expect(document.querySelector('[aria-label=Password]')).toBeNull()
  })

  it('stay in the form with what was typed when they are refused', async () => {
    service.refuses('POST /manage/v1/users', 'There is somebody called ann already.')
    await show(PeopleCard)
    await press('New person')
    await type('[aria-label=Name]', 'ann')
    await type('[aria-label=Password]', 'long-enough')
    await press('Add')
    expect(text()).toContain('There is somebody called ann already.')
    expect(document.querySelector<HTMLInputElement>('[aria-label=Name]')?.value).toBe('ann')
  })

  it('get a new password without anything else being asked', async () => {
    const said = passing()
    await show(PeopleCard)
    await press('New password')
    expect(text()).toContain('Ends every open session of ben.')
    expect(document.querySelector('[aria-label=Label]')).toBeNull()
    await type('[aria-label=Password]', 'another-one')
    await press('Set it')
    expect(service.changes()[0]).toMatchObject({
      params: { path: { name: 'ben' } },
      body: { password: 'another-one', temporary: true },
    })
    expect(said.good).toHaveBeenLastCalledWith('ben has a new password.')
  })
})
