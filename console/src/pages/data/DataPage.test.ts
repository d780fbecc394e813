import { flushPromises } from '@vue/test-utils'
import { Table } from 'ant-design-vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { figuresOf } from '@/api/figures'
import { findRecords } from '@/api/records'
import { button, passing, press, service, show, soon, text } from '@/testing/service'
import DataPage from './DataPage.vue'
import { download } from './dataFile'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/api/figures', () => ({ figuresOf: vi.fn(), viewsOf: vi.fn().mockResolvedValue([]) }))
vi.mock('@/api/records', async (original) => ({ ...(await original<object>()), findRecords: vi.fn() }))
vi.mock('@/composables/session', () => ({ useSession: () => ({ may: () => true }) }))
vi.mock('@/conditions/ConditionInput.vue', () => ({
  default: {
    name: 'ConditionInput',
    props: ['text'],
    emits: ['update'],
    template: '<input class="condition" :value="text" @input="$emit(\'update\', $event.target.value)" />',
  },
}))
vi.mock('./FigureChart.vue', () => ({ default: { props: ['chart'], template: '<div class="chart" />' } }))
vi.mock('./dataFile', async (original) => ({ ...(await original<object>()), download: vi.fn() }))

const field = (name: string, type: string, more: object = {}) => ({
  name,
  label: name.toUpperCase(),
  type,
  languages: [],
  choices: [],
  onRead: false,
  ...more,
})
const JOB = {
  name: 'Job',
  label: 'Job',
  plural: 'Jobs',
  key: ['code', 'part'],
  fields: [
    field('code', 'text'),
    field('part', 'integer'),
    field('hours', 'decimal', { scale: 1 }),
    field('about', 'reference', { target: 'Job' }),
    field('note', 'text', { languages: ['en', 'de'] }),
  ],
  parts: [],
  actions: ['CREATE', 'EDIT'],
  functions: [],
  layout: { columns: ['code', 'part', 'hours', 'about', 'note'], sort: null, form: [] },
}
const record = (code: string, part: number, more: object = {}) => ({
  id: `id-${code}-${part}`,
  version: 1,
  retired: false,
  createdAt: '2026-05-01T10:00:00Z',
  createdBy: 'clerk',
  changedAt: '2026-05-02T10:00:00Z',
  changedBy: 'clerk',
  values: { code, part, hours: '2.5', about: null, note: { en: 'n', de: 'm' } },
  titles: {},
  ...more,
})

const mounted: { unmount(): void }[] = []
async function page(at = '/data/Job', props: object = { object: 'Job' }) {
  const { shown, router } = await show(DataPage, props as Record<string, unknown>, at)
  mounted.push(shown)
  return { shown, router }
}
/** What a list was last asked for. */
const asked = () => vi.mocked(findRecords).mock.lastCall

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/model', { objects: [JOB] })
  vi.mocked(findRecords)
    .mockReset()
    .mockResolvedValue({ records: [record('A', 1), record('B', 2)] as never, next: null, total: 2 })
  vi.mocked(figuresOf)
    .mockReset()
    .mockResolvedValue({ sums: { hours: '5.0', part: '3' } } as never)
})
afterEach(() => {
  mounted.splice(0).forEach((one) => one.unmount())
  document.body.innerHTML = ''
  vi.restoreAllMocks()
})

describe('the list of an object', () => {
  it('says what to do when nothing is released yet', async () => {
    service.answers('GET /manage/v1/model', { objects: [] })
    await page('/data', {})
    expect(text()).toContain('Nothing is released yet.')
    expect(findRecords).not.toHaveBeenCalled()
  })

  it('says that there is no such object', async () => {
    await page('/data/Boat', { object: 'Boat' })
    expect(text()).toContain('There is no object Boat in the live release.')
  })

  it('shows the records with their count, their sums, and links by the whole key', async () => {
    await page()
    await soon(() => expect(text()).toContain('5'))
    expect(document.querySelector('[data-test=total]')?.textContent).toBe('2 records')
    const link = document.querySelector<HTMLAnchorElement>('.ant-table-row a')
    expect(decodeURIComponent(link?.getAttribute('href') ?? '')).toBe('/data/Job/record/A,1')
    expect(vi.mocked(figuresOf).mock.lastCall?.[1].of).toBe('part,hours')
  })

  it('keeps a filter of the address and tells when nothing matches', async () => {
    vi.mocked(findRecords).mockResolvedValue({ records: [], next: null, total: 0 })
    const { router } = await page('/data/Job?filter=hours > 3')
    expect(asked()?.[1]).toMatchObject({ filter: 'hours > 3', count: true })
    expect(text()).toContain('Nothing matches.')
    expect(figuresOf).not.toHaveBeenCalled()
    await press('Show all')
    expect(router.currentRoute.value.query).toEqual({})
  })

  it('invites to enter the first record when there is none', async () => {
    vi.mocked(findRecords).mockResolvedValue({ records: [], next: null, total: 0 })
    await page()
    expect(text()).toContain('There are no jobs yet. Enter the first one.')
  })

  it('uses a filter a moment after it was typed', async () => {
    const { router } = await page('/data/Job?filter=x')
    const input = document.querySelector<HTMLInputElement>('.condition')!
    input.value = 'part = 2'
    input.dispatchEvent(new Event('input'))
    expect(router.currentRoute.value.query.filter).toBe('x')
    await soon(() => expect(router.currentRoute.value.query.filter).toBe('part = 2'))
    expect(asked()?.[1].filter).toBe('part = 2')
  })

  it('sorts by a column, and no longer when it is asked a third time', async () => {
    const { shown, router } = await page()
    const table = shown.findComponent(Table)
    table.vm.$emit('change', {}, {}, { columnKey: 'hours', order: 'descend' })
    await soon(() => expect(router.currentRoute.value.query.sort).toBe('-hours'))
    expect(asked()?.[1].sort).toBe('-hours')
    table.vm.$emit('change', {}, {}, { columnKey: 'hours', order: undefined })
    await soon(() => expect(router.currentRoute.value.query.sort).toBeUndefined())
  })

  it('does not offer to sort by a text in several languages', async () => {
    const { shown } = await page()
    const columns = shown.findComponent(Table).props('columns') as { key: string; sorter: boolean }[]
    expect(columns.filter((one) => !one.sorter).map((one) => one.key)).toEqual(['note'])
  })

  it('shows more below what is there, without counting again', async () => {
    vi.mocked(findRecords)
      .mockReset()
      .mockResolvedValueOnce({ records: [record('A', 1)] as never, next: 'then', total: 2 })
      .mockResolvedValueOnce({ records: [record('B', 2)] as never, next: null, total: null })
    await page()
    await press('Show more')
    await soon(() => expect(document.querySelectorAll('.ant-table-row')).toHaveLength(2))
    expect(asked()?.[1]).toMatchObject({ after: 'then', count: false })
    expect(document.querySelector('[data-test=total]')?.textContent).toBe('2 records')
    expect(text()).not.toContain('Show more')
  })

  it('tells why records could not be read', async () => {
    vi.mocked(findRecords).mockRejectedValue(new Error('hours is not known here'))
    await page('/data/Job?filter=hourz')
    expect(text()).toContain('hours is not known here')
  })

  it('exports every page of what the list shows', async () => {
    await page('/data/Job?search=a')
    vi.mocked(findRecords)
      .mockResolvedValueOnce({ records: [record('A', 1)] as never, next: 'then', total: null })
      .mockResolvedValueOnce({ records: [record('B', 2)] as never, next: null, total: null })
    await press('Export')
    await soon(() => expect(download).toHaveBeenCalledOnce())
    const [name, csv] = vi.mocked(download).mock.lastCall as [string, string]
    expect(name).toBe('Job.csv')
    expect(csv.trim().split(/\r?\n/)).toHaveLength(3)
    expect(asked()?.[1]).toMatchObject({ search: 'a', after: 'then', limit: 500 })
  })

  it('tells when an export breaks off, and can be asked again', async () => {
    const { bad } = passing()
    await page()
    vi.mocked(findRecords).mockRejectedValueOnce(new Error('gone'))
    await press('Export')
    await soon(() => expect(bad).toHaveBeenCalledWith('gone'))
    expect(button('Export').disabled).toBe(false)
  })

  it('offers to make a record only to those who may', async () => {
    service.answers('GET /manage/v1/model', { objects: [{ ...JOB, actions: ['READ'] }] })
    await page()
    expect(text()).not.toContain('New job')
    expect(text()).not.toContain('Import')
  })
})

describe('records chosen in a list', () => {
  const tidy = { name: 'tidy', label: 'Tidy up', external: true, onRecord: true, parameters: [] }
  beforeEach(() => service.answers('GET /manage/v1/model', { objects: [{ ...JOB, functions: [tidy] }] }))

  it('can have their functions called', async () => {
    const { shown } = await page()
    expect(text()).not.toContain('Tidy up')
    const choice = shown.findComponent(Table).props('rowSelection') as { onChange(now: string[]): void }
    choice.onChange(['id-A-1'])
    await flushPromises()
    expect(document.querySelector('[data-test=chosen]')?.textContent).toBe('1 chosen:')
    expect(text()).toContain('Tidy up')
  })

  it('can be all that the list would show, not only those on the page', async () => {
    vi.mocked(findRecords).mockResolvedValue({
      records: [record('A', 1), record('B', 2)] as never,
      next: 'then',
      total: 3,
    })
    const { shown } = await page()
    const choice = shown.findComponent(Table).props('rowSelection') as { onChange(now: string[]): void }
    choice.onChange(['id-A-1', 'id-B-2'])
    await flushPromises()
    vi.mocked(findRecords)
      .mockResolvedValueOnce({ records: [record('A', 1), record('B', 2)] as never, next: 'x', total: null })
      .mockResolvedValueOnce({ records: [record('C', 3)] as never, next: null, total: null })
    const all = [...document.querySelectorAll('a')].find((one) => one.textContent?.includes('Choose all 3'))
    all!.click()
    await soon(() => expect(document.querySelector('[data-test=chosen]')?.textContent).toBe('3 chosen:'))
  })

  it('are none where nothing can be called', async () => {
    service.answers('GET /manage/v1/model', { objects: [JOB] })
    const { shown } = await page()
    expect(shown.findComponent(Table).props('rowSelection')).toBeUndefined()
  })
})
