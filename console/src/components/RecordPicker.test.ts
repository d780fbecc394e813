import { flushPromises, mount } from '@vue/test-utils'
import { Select } from 'ant-design-vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { offeredRecords } from '@/api/logic'
import { findRecords } from '@/api/records'
import RecordPicker from './RecordPicker.vue'

const object = ref<unknown>({ label: 'Crane', key: ['code'], title: 'name' })
vi.mock('@/api/logic', () => ({ offeredRecords: vi.fn() }))
vi.mock('@/api/records', () => ({
  findRecords: vi.fn(),
  addressOf: (key: string[], record: { values: Record<string, unknown> }) =>
    key.map((name) => record.values[name]).join(','),
}))
vi.mock('@/composables/model', () => ({ useObject: () => ({ object }) }))

const CRANES = {
  records: [{ values: { code: 'K1', name: 'Long arm' } }, { values: { code: 'K2', name: null } }],
}

beforeEach(() => {
  object.value = { label: 'Crane', key: ['code'], title: 'name' }
  vi.mocked(findRecords)
    .mockReset()
    .mockResolvedValue(CRANES as never)
  vi.mocked(offeredRecords)
    .mockReset()
    .mockResolvedValue(CRANES as never)
})

const picker = (props: object = {}) => mount(RecordPicker, { props: { to: 'Crane', value: null, ...props } })
const open = async (shown: ReturnType<typeof picker>) => {
  shown.findComponent(Select).vm.$emit('dropdownVisibleChange', true)
  await flushPromises()
}
const labels = (shown: ReturnType<typeof picker>) =>
  (shown.findComponent(Select).props('options') as { label: string }[]).map((one) => one.label)

describe('choosing a record', () => {
  it('asks for none before it is opened', async () => {
    picker()
    await flushPromises()
    expect(findRecords).not.toHaveBeenCalled()
  })

  it('shows keys with what the records are called', async () => {
    const shown = picker()
    await open(shown)
    expect(labels(shown)).toEqual(['K1 · Long arm', 'K2'])
  })

  it('looks for what is typed', async () => {
    const shown = picker()
    await open(shown)
    shown.findComponent(Select).vm.$emit('search', 'arm')
    await flushPromises()
    expect(findRecords).toHaveBeenLastCalledWith('Crane', { search: 'arm', limit: 20 })
  })

  it('asks what is offered where that depends on the record', async () => {
    const place = { object: 'Job', field: 'crane' } as never
    await open(picker({ place }))
    expect(offeredRecords).toHaveBeenCalledWith(place, '')
    expect(findRecords).not.toHaveBeenCalled()
  })

  it('keeps the one that is chosen in the list, wherever it stands', async () => {
    const shown = picker({ value: 'K9', title: 'Far away' })
    await open(shown)
    expect(labels(shown)).toEqual(['K9 · Far away', 'K1 · Long arm', 'K2'])
  })

  it('gives the key, and nothing when it is emptied', async () => {
    const shown = picker()
    shown.findComponent(Select).vm.$emit('change', 'K1')
    shown.findComponent(Select).vm.$emit('change', undefined)
    expect(shown.emitted('update')).toEqual([['K1'], [null]])
  })

  it('says so where the object is not released yet', async () => {
    object.value = undefined
    const shown = picker()
    await open(shown)
    expect(findRecords).not.toHaveBeenCalled()
    expect(shown.findComponent(Select).props('notFoundContent')).toBe('Not released yet')
  })
})
