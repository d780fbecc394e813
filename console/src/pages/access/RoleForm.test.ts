import { CheckboxGroup, Select } from 'ant-design-vue'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { button, press, service, show, text, type } from '@/testing/service'
import RoleForm from './RoleForm.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/composables/model', () => ({
  useModel: () => ({
    objects: ref([
      {
        name: 'Stay',
        label: 'Stay',
        fields: [{ name: 'remarks', label: 'Remarks' }],
        parts: [{ name: 'charges', label: 'Charges' }],
      },
    ]),
  }),
}))
vi.mock('@/conditions/ConditionInput.vue', () => ({
  default: { props: ['text'], emits: ['update'], template: '<span class="condition">{{ text }}</span>' },
}))
vi.mock('./GrantRows.vue', () => ({ default: { props: ['modelValue'], template: '<span />' } }))

const CLERK = {
  name: 'clerk',
  label: 'Clerk',
  describe: 'At the desk',
  duties: ['RECORDS'],
  objects: [
    { object: 'Stay', actions: ['VIEW'], where: 'berth.pier = "N"', hidden: ['remarks'], readOnly: [] },
  ],
  services: ['berth-desk/*/*'],
  users: [],
}
const body = () => service.changes()[0]?.body

beforeEach(() => service.forget())
afterEach(() => (document.body.innerHTML = ''))

describe('a role', () => {
  it('is made with what was chosen', async () => {
    const { shown } = await show(RoleForm, { role: null, taken: [] })
    expect(button('Make it').disabled).toBe(true)
    await type('[aria-label="Role name"]', 'dock-master')
    await type('[aria-label=Label]', 'Dock master')
    shown.findAllComponents(CheckboxGroup)[0]!.vm.$emit('update:value', ['DESIGN'])
    await press('Object')
    await press('Make it')
    expect(service.changes()[0]).toMatchObject({ method: 'PUT', params: { path: { name: 'dock-master' } } })
    expect(body()).toEqual({
      label: 'Dock master',
      describe: undefined,
      duties: ['DESIGN'],
      services: [],
      objects: [{ object: '*', actions: ['VIEW'], where: undefined, hidden: [], readOnly: [] }],
    })
    expect(shown.emitted('saved')).toHaveLength(1)
  })

  it('keeps what it had where nothing was touched', async () => {
    await show(RoleForm, { role: CLERK, taken: ['clerk'] })
    expect(document.querySelector<HTMLInputElement>('[aria-label="Role name"]')?.disabled).toBe(true)
    expect(document.querySelector('.condition')?.textContent).toBe('berth.pier = "N"')
    await press('Save')
    expect(body()).toEqual({
      label: 'Clerk',
      describe: 'At the desk',
      duties: ['RECORDS'],
      services: ['berth-desk/*/*'],
      objects: CLERK.objects,
    })
  })

  it('forgets fields of an object that it is no longer about', async () => {
    const { shown } = await show(RoleForm, { role: CLERK, taken: ['clerk'] })
    const object = shown.findAllComponents(Select)[0]!
    object.vm.$emit('update:value', '*')
    object.vm.$emit('change', '*')
    await flushPromises()
    expect(document.querySelector('[aria-label=Hidden]')).toBeNull()
    await press('Save')
    expect(body()).toMatchObject({ objects: [{ object: '*', hidden: [], readOnly: [] }] })
  })

  it.each([
    ['clerk', 'There is a role clerk already'],
    ['Dock Master', 'A role is called with small letters'],
    ['x', 'A role is called with small letters'],
  ])('is not called %s', async (name, why) => {
    await show(RoleForm, { role: null, taken: ['clerk'] })
    await type('[aria-label="Role name"]', name)
    await press('Make it')
    expect(text()).toContain(why)
    expect(service.changes()).toEqual([])
  })

  it('says why it was refused', async () => {
    service.refuses('PUT /manage/v1/roles/{name}', 'There is no object Stai.')
    const { shown } = await show(RoleForm, { role: CLERK, taken: [] })
    await press('Save')
    expect(text()).toContain('There is no object Stai.')
    expect(shown.emitted('saved')).toBeUndefined()
  })

  it('loses an object that is taken away', async () => {
    await show(RoleForm, { role: CLERK, taken: [] })
    document.querySelector<HTMLButtonElement>('[aria-label="Take away"]')?.click()
    await flushPromises()
    expect(text()).toContain('Nothing yet.')
    await press('Save')
    expect(body()).toMatchObject({ objects: [] })
  })
})
