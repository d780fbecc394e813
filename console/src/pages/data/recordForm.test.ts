import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { ObjectView } from '@/api/client'
import { ApiProblem } from '@/api/http'
import { previewRecord } from '@/api/logic'
import type { RecordView } from '@/api/records'
import { useRecordForm } from './recordForm'

vi.mock('@/api/logic', () => ({ previewRecord: vi.fn() }))
const asked = vi.mocked(previewRecord)

const field = (name: string, type: string, more = {}) => ({
  name,
  label: name,
  type,
  required: false,
  readOnly: false,
  ...more,
})
const crane = {
  name: 'Crane',
  key: ['code'],
  lifecycle: { field: 'state', transitions: [] },
  fields: [
    field('code', 'text'),
    field('reach', 'integer', { standard: '20' }),
    field('since', 'date', { standard: 'today()' }),
    field('load', 'decimal', { readOnly: true }),
    field('state', 'choice'),
  ],
  parts: [{ name: 'checks', fields: [field('note', 'text'), field('at', 'date')] }],
} as unknown as ObjectView

const k2 = (more = {}) =>
  ({
    id: 'id-2',
    version: 3,
    values: { code: 'K2', reach: 30, since: '2026-01-02', load: 1.5, state: 'Idle', checks: [], ...more },
  }) as unknown as RecordView

const made = (more = {}) =>
  ({ values: {}, fields: {}, faults: [], warnings: [], ...more }) as unknown as Awaited<
    ReturnType<typeof previewRecord>
  >

const problem = (status: number, errors: { pointer: string; message: string; code: string }[]) =>
  new ApiProblem({ title: 'No', status, detail: 'It is refused.', errors } as never)

async function settled() {
  await vi.advanceTimersByTimeAsync(300)
  await nextTick()
}

describe('the form of a record', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    asked.mockReset()
    asked.mockResolvedValue(made())
  })
  afterEach(() => vi.useRealTimers())

  it('begins a new record with its defaults and leaves the day to the service', async () => {
    asked.mockResolvedValue(made({ values: { code: null, reach: 20, since: '2026-03-01', load: 0 } }))
    const form = useRecordForm(ref(crane), ref(undefined), ref(true))

    expect(form.sent.value).toEqual({ reach: 20, checks: [] })
    expect(form.isChanged.value).toBe(false)
    await settled()
    expect(asked).toHaveBeenCalledWith('Crane', undefined, { reach: 20, checks: [] })
    expect(form.values.value.since).toBe('2026-03-01')
    expect(form.sent.value.since).toBeUndefined()
  })

  it('sends only what differs from what is stored', async () => {
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    expect(form.isChanged.value).toBe(false)

    form.set('reach', 31)
    form.set('code', 'K2')
    expect(form.sent.value).toEqual({ reach: 31 })
    expect(form.isChanged.value).toBe(true)
    form.set('reach', 30)
    expect(form.isChanged.value).toBe(false)
  })

  it('asks once for what is typed quickly, and shows the newest answer only', async () => {
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    await settled()
    asked.mockClear()
    let first: (value: ReturnType<typeof made>) => void = () => {}
    asked.mockReturnValueOnce(new Promise((resolve) => (first = resolve)))
    form.set('reach', 31)
    form.set('reach', 32)
    await settled()
    expect(asked).toHaveBeenCalledTimes(1)
    expect(asked).toHaveBeenLastCalledWith('Crane', 'id-2', { reach: 32 })

    asked.mockResolvedValueOnce(made({ values: { ...k2().values, load: 2 } }))
    form.set('reach', 33)
    await settled()
    first(made({ values: { ...k2().values, load: 99 } }))
    await settled()
    expect(form.values.value.load).toBe(2)
  })

  it('goes on without help when nothing can be worked out', async () => {
    asked.mockRejectedValue(new Error('away'))
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    await settled()

    form.set('reach', 5)
    expect(form.values.value.reach).toBe(5)
    expect(form.said.value).toEqual({})
    expect(form.problem.value).toBe('')
  })

  it('says what is wrong with what was touched, and nothing of what is only missing yet', async () => {
    asked.mockResolvedValue(
      made({
        faults: [
          { path: 'code', code: 'SP4101', message: 'Too short.' },
          { path: 'reach', code: 'SP4101', message: 'Too far.' },
          { path: 'checks.0.note', code: 'SP4101', message: 'Too long.' },
          { path: 'since', code: 'SP4103', message: 'Since is required.' },
        ],
      }),
    )
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    await settled()
    expect(form.said.value).toEqual({})

    form.set('reach', 400)
    form.set('since', null)
    form.set('checks', [{ note: 'x' }])
    await settled()
    expect(form.said.value).toEqual({ reach: 'Too far.', 'checks/0/note': 'Too long.' })
  })

  it('puts a refusal at its fields, and takes it away where somebody mends it', () => {
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    form.tell(
      problem(422, [
        { pointer: '/code', message: 'Taken.', code: 'SP4201' },
        { pointer: '/checks/1/note', message: 'Too long.', code: 'SP4101' },
      ]),
    )

    expect(form.problem.value).toBe('')
    expect(form.said.value).toEqual({ code: 'Taken.', 'checks/1/note': 'Too long.' })
    form.set('code', 'K3')
    expect(form.said.value.code).toBeUndefined()
    form.quiet()
    expect(form.said.value).toEqual({})
  })

  it('says above the form what has no field', () => {
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    form.tell(problem(409, []))
    expect(form.problem.value).toBe('It is refused.')
    form.tell(problem(412, [{ pointer: '/code', message: 'Changed.', code: 'SP4202' }]))
    expect(form.problem.value).toBe('It is refused.')
    form.tell(new Error('No connection'))
    expect(form.problem.value).toContain('No connection')
  })

  it('hides what conditions hide, and the state, which transitions change', async () => {
    asked.mockResolvedValue(made({ fields: { load: { hidden: true }, since: { required: true } } }))
    const form = useRecordForm(ref(crane), ref(k2()), ref(false))
    await settled()

    expect(form.isHidden({ name: 'load' })).toBe(true)
    expect(form.isHidden({ name: 'state' })).toBe(true)
    expect(form.isHidden({ name: 'reach' })).toBe(false)
    expect(form.isRequired({ name: 'since', required: false })).toBe(true)
    expect(form.isRequired({ name: 'code', required: false })).toBe(true)
    expect(form.isRequired({ name: 'reach', required: false })).toBe(false)
  })

  it('begins anew when another record comes', async () => {
    const stored = ref<RecordView | undefined>(k2())
    const form = useRecordForm(ref(crane), stored, ref(false))
    form.set('reach', 99)

    stored.value = k2({ code: 'K7', reach: 12 })
    await nextTick()
    expect(form.values.value.code).toBe('K7')
    expect(form.isChanged.value).toBe(false)
  })
})
