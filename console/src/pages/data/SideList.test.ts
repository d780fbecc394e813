import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { findRecords } from '@/api/records'
import { show } from '@/testing/service'
import SideList from './SideList.vue'

vi.mock('@/api/records', async (original) => ({
  ...(await original<typeof import('@/api/records')>()),
  findRecords: vi.fn(),
}))

/** A key of two fields, of which one has a slash. */
const LIST = {
  label: 'Jobs here',
  filter: 'crane.code = "K1"',
  target: { name: 'Job', key: ['place', 'number'] },
  columns: [
    { name: 'place', label: 'Place', type: 'text' },
    { name: 'hours', label: 'Hours', type: 'integer' },
  ],
}
const record = (place: string | null, hours: number | null) => ({
  id: `${place}`,
  values: { place, number: 7, hours },
})
const beside = async () => {
  const { shown } = await show(SideList, { list: LIST, atMost: 5 })
  await flushPromises()
  return shown
}

beforeEach(() => {
  vi.mocked(findRecords)
    .mockReset()
    .mockResolvedValue({ records: [record('N/1', 12), record(null, null)], total: 41 } as never)
})

describe('records beside a form', () => {
  it('are a few of all, with how many there are', async () => {
    const shown = await beside()
    expect(findRecords).toHaveBeenCalledWith('Job', { filter: LIST.filter, limit: 5, count: true })
    expect(shown.find('h2').text()).toMatch(/^Jobs here\s+41$/)
    expect(shown.find('h2 a').attributes('href')).toContain('/data/Job?filter=')
    expect(shown.findAll('tbody tr')).toHaveLength(2)
  })

  it('are led to by their whole key, and by a dash where the first column is empty', async () => {
    const shown = await beside()
    const [first, second] = shown.findAll('tbody a')
    expect(first!.attributes('href')).toBe('/data/Job/record/N%2F1%2C7')
    expect(first!.text()).toBe('N/1')
    expect(second!.text()).toBe('—')
  })

  it('say so when there is none', async () => {
    vi.mocked(findRecords).mockResolvedValue({ records: [], total: 0 } as never)
    const shown = await beside()
    expect(shown.text()).toContain('None.')
    expect(shown.find('h2').text()).toMatch(/^Jobs here\s+0$/)
  })

  it('say why they cannot be shown', async () => {
    vi.mocked(findRecords).mockRejectedValue(new Error('You may not see jobs.'))
    const shown = await beside()
    expect(shown.find('.bad').text()).toBe('You may not see jobs.')
    expect(shown.find('table').exists()).toBe(false)
  })
})
