import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { Button, Modal, Select } from 'ant-design-vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { keepView, removeView, viewsOf } from '@/api/figures'
import ViewMenu from './ViewMenu.vue'

const duties = { list: [] as string[] }
vi.mock('@/api/figures', () => ({ keepView: vi.fn(), removeView: vi.fn(), viewsOf: vi.fn() }))
vi.mock('@/composables/session', () => ({
  useSession: () => ({ may: (duty: string) => duties.list.includes(duty) }),
}))

const LATE = { name: 'Late', shared: true, filter: 'late', columns: [] }
const MINE = { name: 'Mine', shared: false, filter: 'mine', columns: [] }

beforeEach(() => {
  duties.list = []
  vi.mocked(viewsOf)
    .mockReset()
    .mockResolvedValue([LATE, MINE] as never)
  vi.mocked(keepView)
    .mockReset()
    .mockResolvedValue(undefined as never)
  vi.mocked(removeView)
    .mockReset()
    .mockResolvedValue(undefined as never)
})

const menu = async (list: object) => {
  const shown = mount(ViewMenu, {
    props: { object: 'Job', list },
    global: { plugins: [VueQueryPlugin] },
  })
  await flushPromises()
  return shown
}
const words = (shown: Awaited<ReturnType<typeof menu>>) =>
  shown.findAllComponents(Button).map((one) => one.text())

describe('views that are kept by name', () => {
  it('are one of everything, the own and the shared', async () => {
    const shown = await menu({})
    expect(shown.findComponent(Select).props('options')).toEqual([
      { value: '', label: 'Everything' },
      { value: 'all Late', label: 'Late (shared)' },
      { value: 'own Mine', label: 'Mine' },
    ])
    expect(shown.findComponent(Select).props('value')).toBe('')
    expect(words(shown)).toEqual([])
  })

  it('are told from a list that is none of them', async () => {
    const shown = await menu({ filter: 'other' })
    expect(shown.findComponent(Select).props('value')).toBeUndefined()
    expect(words(shown)).toEqual(['Keep view'])
  })

  it('show their list when they are chosen', async () => {
    const shown = await menu({})
    shown.findComponent(Select).vm.$emit('change', 'own Mine')
    expect((shown.emitted('chosen')?.[0][0] as { filter: string }).filter).toBe('mine')
    shown.findComponent(Select).vm.$emit('change', '')
    expect(shown.emitted('chosen')?.[1]).toEqual([{}])
  })

  it('are taken away by whoever has them', async () => {
    const shown = await menu({ filter: 'mine' })
    await shown.findComponent(Button).trigger('click')
    expect(removeView).toHaveBeenCalledWith('Job', 'Mine', false)
  })

  it('that are shared are taken away by designers alone', async () => {
    expect(words(await menu({ filter: 'late' }))).toEqual([])
    duties.list = ['design']
    expect(words(await menu({ filter: 'late' }))).toEqual(['Take view away'])
  })

  it('are kept under a name', async () => {
    const shown = await menu({ filter: 'other' })
    await shown.findComponent(Button).trigger('click')
    const dialog = shown.findComponent(Modal)
    expect((dialog.props('okButtonProps') as { disabled: boolean }).disabled).toBe(true)
    const input = document.querySelector<HTMLInputElement>('#view-name')!
    input.value = ' Due '
    input.dispatchEvent(new Event('input'))
    await flushPromises()
    dialog.vm.$emit('ok')
    await flushPromises()
    expect(vi.mocked(keepView).mock.calls[0][0]).toBe('Job')
    expect(vi.mocked(keepView).mock.calls[0][1]).toMatchObject({
      name: 'Due',
      shared: false,
      filter: 'other',
    })
  })
})
