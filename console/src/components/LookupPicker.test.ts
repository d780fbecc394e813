import { flushPromises, mount } from '@vue/test-utils'
import { Select } from 'ant-design-vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { findEntries } from '@/api/connections'
import LookupPicker from './LookupPicker.vue'

vi.mock('@/api/connections', () => ({ findEntries: vi.fn() }))
const FOUND = {
  entries: [
    { code: 'a', label: 'Alfa' },
    { code: 'b', label: 'b' },
  ],
  more: true,
  message: undefined,
}
beforeEach(() => {
  vi.useRealTimers()
  vi.mocked(findEntries).mockReset().mockResolvedValue(FOUND)
})

const picker = (props: object = {}) =>
  mount(LookupPicker, { props: { lookup: 'almanac.flags', value: null, label: 'Flag', ...props } })
const open = async (shown: ReturnType<typeof picker>) => {
  shown.findComponent(Select).vm.$emit('dropdownVisibleChange', true)
  await flushPromises()
}
const labels = (shown: ReturnType<typeof picker>) =>
  (shown.findComponent(Select).props('options') as { label: string }[]).map((one) => one.label)

describe('choosing a code that comes from outside', () => {
  it('asks nobody before it is opened, and shows what the value was called', async () => {
    const shown = picker({ value: 'k', title: 'Kilo' })
    await flushPromises()
    expect(findEntries).not.toHaveBeenCalled()
    expect(labels(shown)).toEqual(['k · Kilo'])
  })

  it('shows codes with their labels, and that there are more', async () => {
    const shown = picker()
    await open(shown)
    expect(labels(shown)).toEqual(['a · Alfa', 'b'])
    expect(shown.text()).toContain('There are more')
  })

  it('asks once for what is typed in one go', async () => {
    vi.useFakeTimers()
    const shown = picker()
    await open(shown)
    shown.findComponent(Select).vm.$emit('search', 'a')
    shown.findComponent(Select).vm.$emit('search', 'al')
    await vi.advanceTimersByTimeAsync(300)
    expect(vi.mocked(findEntries).mock.calls.map((call) => call[1])).toEqual(['', 'al'])
  })

  it('says why nothing can be chosen, and keeps what is there', async () => {
    vi.mocked(findEntries).mockResolvedValue({
      entries: [],
      more: false,
      message: 'Almanac does not answer.',
    })
    const shown = picker({ value: 'k', title: 'Kilo' })
    await open(shown)
    expect(shown.get('[role=status]').text()).toBe('Almanac does not answer.')
    expect(labels(shown)).toEqual(['k · Kilo'])
  })

  it('gives the code, and nothing when it is emptied', () => {
    const shown = picker()
    shown.findComponent(Select).vm.$emit('change', 'a')
    shown.findComponent(Select).vm.$emit('change', undefined)
    expect(shown.emitted('update')).toEqual([['a'], [null]])
  })
})
