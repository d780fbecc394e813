import { Checkbox, InputNumber } from 'ant-design-vue'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, text, type } from '@/testing/service'
import ClientForm from './ClientForm.vue'
import GrantRows from './GrantRows.vue'
import { grantOf } from './grants'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('./GrantRows.vue', () => ({ default: { props: ['modelValue'], template: '<span />' } }))

const KIOSK = {
  name: 'kiosk',
  label: 'Kiosk',
  grants: ['berth-desk/stays/read'],
  callsPerMinute: 600,
  digests: true,
}
const body = () => service.changes()[0]?.body
const calls = async (shown: Awaited<ReturnType<typeof show>>['shown'], now: unknown) => {
  shown.findComponent(InputNumber).vm.$emit('change', now)
  await flushPromises()
}

beforeEach(() => {
  service.forget()
  service.answers('POST /manage/v1/clients', { client: { name: 'kiosk' }, secret: 'once' })
})
afterEach(() => (document.body.innerHTML = ''))

describe('a client', () => {
  it('is made with a name, and may begin with what a service offers', async () => {
    const { shown } = await show(ClientForm, { client: null, grants: ['berth-desk/*/*'] })
    expect(button('Make it').disabled).toBe(true)
    await type('[aria-label="Client name"]', 'kiosk')
    shown.findComponent(Checkbox).vm.$emit('update:checked', true)
    await press('Make it')
    expect(body()).toEqual({
      name: 'kiosk',
      label: undefined,
      grants: ['berth-desk/*/*'],
      callsPerMinute: 0,
      digests: true,
    })
    expect(shown.emitted('saved')).toEqual([[{ name: 'kiosk', secret: 'once' }]])
  })

  it('keeps its name, its secret and what was not touched', async () => {
    const { shown } = await show(ClientForm, { client: KIOSK })
    expect(document.querySelector('[aria-label="Client name"]')).toBeNull()
    expect(text()).not.toContain('password digests')
    await type('[aria-label=Label]', 'Kiosk at the pier')
    await press('Save')
    expect(service.changes()[0]).toMatchObject({ method: 'PATCH', params: { path: { name: 'kiosk' } } })
    expect(body()).toEqual({
      label: 'Kiosk at the pier',
      grants: ['berth-desk/stays/read'],
      callsPerMinute: 600,
    })
    expect(shown.emitted('saved')).toEqual([[]])
  })

  it.each([
    [120, 120],
    [null, 0],
  ])('may call %s times a minute', async (given, sent) => {
    const { shown } = await show(ClientForm, { client: KIOSK })
    await calls(shown, given)
    await press('Save')
    expect(body()).toMatchObject({ callsPerMinute: sent })
  })

  it('may call what the rows say', async () => {
    const { shown } = await show(ClientForm, { client: KIOSK })
    shown.findComponent(GrantRows).vm.$emit('update:modelValue', [grantOf('tide/*/read')])
    await press('Save')
    expect(body()).toMatchObject({ grants: ['tide/*/read'] })
  })

  it('is not left when the service refuses it', async () => {
    service.refuses('POST /manage/v1/clients', 'There is a client kiosk already.')
    const { shown } = await show(ClientForm, { client: null })
    await type('[aria-label="Client name"]', 'kiosk')
    await press('Make it')
    expect(text()).toContain('There is a client kiosk already.')
    expect(shown.emitted('saved')).toBeUndefined()
  })
})
