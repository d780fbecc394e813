import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { Modal } from 'ant-design-vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { CODES } from '@/api/codes'
import { ApiProblem } from '@/api/http'
import { previewRecord, takeTransition, transitionsOf } from '@/api/logic'
import {
  changeRecord,
  createRecord,
  removeRecord,
  restoreRecord,
  showRecord,
  type RecordView,
} from '@/api/records'
import { button, passing, press, service, text, type } from '@/testing/service'
import RecordPage from './RecordPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/api/logic', () => ({ previewRecord: vi.fn(), takeTransition: vi.fn(), transitionsOf: vi.fn() }))
vi.mock('@/api/records', async (original) => ({
  ...(await original<object>()),
  showRecord: vi.fn(),
  createRecord: vi.fn(),
  changeRecord: vi.fn(),
  removeRecord: vi.fn(),
  restoreRecord: vi.fn(),
}))
vi.mock('./RecordHistory.vue', () => ({ default: { template: '<div class="history" />' } }))
vi.mock('./SideList.vue', () => ({
  default: { props: ['list'], template: '<div class="side">{{ list.target.plural }}</div>' },
}))

const field = (name: string, more: object = {}) => ({
  name,
  label: name.toUpperCase(),
  type: 'text',
  languages: [],
  choices: [],
  required: false,
  readOnly: false,
  ...more,
})
/** With a key of two fields. */
const JOB = {
  name: 'Job',
  label: 'Job',
  plural: 'Jobs',
  key: ['yard', 'code'],
  fields: [
    field('yard', { required: true }),
    field('code', { required: true }),
    field('note', { describe: 'What is to be done.' }),
    field('state'),
  ],
  parts: [],
  inverses: [],
  functions: [],
  removal: 'retire',
  whenUsed: 'ASK',
  actions: ['CREATE', 'EDIT', 'RETIRE'],
  lifecycle: {
    field: 'state',
    transitions: [
      { name: 'begin', from: ['Open'], to: 'Begun' },
      { name: 'end', from: ['Begun'], to: 'Ended' },
    ],
  },
  layout: { sections: [{ fields: ['yard', 'code', 'note'] }], wide: [], details: {}, columns: [] },
}
const stored = (more: object = {}, values: object = {}) =>
  ({
    id: 'id-1',
    version: 3,
    retired: false,
    createdAt: '2026-05-01T10:00:00Z',
    createdBy: 'ann',
    changedAt: '2026-05-02T10:00:00Z',
    changedBy: 'bob',
    values: { yard: 'N,1', code: 'J1', note: 'Paint', state: 'Open', ...values },
    titles: {},
    ...more,
  }) as unknown as RecordView
const refused = (status: number, errors: { pointer: string; code: string; message: string }[]) =>
  new ApiProblem({ title: 'No', status, detail: 'It is refused.', errors })

let shown: VueWrapper
let router: Router
async function page(at = '/data/Job/record/N%5C,1,J1') {
  router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/data/:object/record/:key', component: RecordPage, props: true },
      { path: '/data/:object/new', component: RecordPage, props: true },
      { path: '/:all(.*)*', component: { template: '<div>elsewhere</div>' } },
    ],
  })
  await router.push(at)
  shown = mount(
    { template: '<RouterView />' },
    {
      attachTo: document.body,
      global: {
        plugins: [
          router,
          [
            VueQueryPlugin,
            { queryClient: new QueryClient({ defaultOptions: { queries: { retry: false } } }) },
          ],
        ],
      },
    },
  )
  await flushPromises()
}
const model = (more: object = {}) =>
  service.answers('GET /manage/v1/model', { objects: [{ ...JOB, ...more }], events: [], packages: [] })
const note = (words: string) => type('#f-note', words)

beforeEach(() => {
  service.forget()
  vi.clearAllMocks()
  model()
  vi.mocked(showRecord).mockResolvedValue(stored())
  vi.mocked(transitionsOf).mockResolvedValue([
    { name: 'begin', label: 'Begin', reasons: [] },
    { name: 'end', label: 'End', reasons: [] },
  ] as never)
  vi.mocked(previewRecord).mockResolvedValue({ values: {}, fields: {}, faults: [], warnings: [] } as never)
})
afterEach(() => {
  shown.unmount()
  Modal.destroyAll()
  document.body.innerHTML = ''
})

describe('a record', () => {
  it('is shown with its key, its state and where it can go from there', async () => {
    await page()
    expect(showRecord).toHaveBeenCalledWith('Job', 'N\\,1,J1')
    expect(text()).toContain('Job N\\,1,J1')
    expect(document.querySelector('[data-test=state]')?.textContent).toBe('Open')
    expect(button('Begin').disabled).toBe(false)
    expect(text()).not.toContain('End')
    expect(text()).toContain('What is to be done.')
    expect(button('Save').disabled).toBe(true)
  })

  it('is saved on the version it was read in', async () => {
    const said = passing()
    vi.mocked(changeRecord).mockResolvedValue(stored({ version: 4 }, { note: 'Sand' }))
    await page()
    await note('Sand')
    expect(text()).toContain('Not saved yet')
    expect(button('Begin').disabled).toBe(true)
    await press('Save')
    expect(changeRecord).toHaveBeenCalledWith('Job', 'id-1', 3, { note: 'Sand' })
    expect(said.good).toHaveBeenLastCalledWith('Saved.')
    expect(text()).not.toContain('Not saved yet')
  })

  it('keeps what was typed when somebody else was first', async () => {
    vi.mocked(changeRecord).mockRejectedValue(refused(412, []))
    await page()
    await note('Sand')
    await press('Save')
    expect(text()).toContain('It is refused.')
    expect(document.querySelector<HTMLInputElement>('#f-note')?.value).toBe('Sand')
    expect(button('Save').disabled).toBe(false)
  })

  it('says at a field what is wrong with it', async () => {
    vi.mocked(changeRecord).mockRejectedValue(
      refused(422, [{ pointer: '/note', code: 'SP4119', message: 'Too short.' }]),
    )
    await page()
    await note('S')
    await press('Save')
    expect(document.querySelector('.field .wrong')?.textContent).toBe('Too short.')
  })

  it('goes to its new address when its key was changed', async () => {
    vi.mocked(changeRecord).mockResolvedValue(stored({ version: 4 }, { code: 'J2' }))
    await page()
    await type('#f-code', 'J2')
    await press('Save')
    expect(decodeURIComponent(router.currentRoute.value.fullPath)).toBe('/data/Job/record/N\\,1,J2')
  })

  it('takes a transition, or says why not', async () => {
    const said = passing()
    vi.mocked(takeTransition).mockResolvedValueOnce(stored({ version: 4 }, { state: 'Begun' }))
    await page()
    await press('Begin')
    expect(takeTransition).toHaveBeenCalledWith('Job', 'id-1', 'begin', 3)
    expect(said.good).toHaveBeenLastCalledWith('Begin: done.')
    expect(document.querySelector('[data-test=state]')?.textContent).toBe('Begun')
    vi.mocked(takeTransition).mockRejectedValue(refused(422, []))
    await press('End')
    expect(text()).toContain('It is refused.')
  })

  it('does not offer a transition that has reasons against it', async () => {
    vi.mocked(transitionsOf).mockResolvedValue([
      { name: 'begin', label: 'Begin', reasons: [{ message: 'Pay first.' }] },
    ] as never)
    await page()
    expect(button('Begin').disabled).toBe(true)
  })

  it('is retired, when others use it after one more question', async () => {
    vi.mocked(removeRecord).mockRejectedValueOnce(
      refused(409, [{ pointer: '', code: CODES.IN_USE, message: 'Used.' }]),
    )
    vi.mocked(removeRecord).mockResolvedValueOnce(stored({ retired: true }))
    await page()
    await press('Retire')
    expect(text()).toContain('it can be restored')
    document.querySelector<HTMLButtonElement>('.ant-modal-confirm .ant-btn-primary')!.click()
    await flushPromises()
    expect(removeRecord).toHaveBeenLastCalledWith('Job', 'id-1', false)
    expect(text()).toContain('Others use it')
    button('Retire it all the same').click()
    await flushPromises()
    expect(removeRecord).toHaveBeenLastCalledWith('Job', 'id-1', true)
    expect(text()).toContain('retired')
  })

  it('that is retired is only read, until it is restored', async () => {
    vi.mocked(showRecord).mockResolvedValue(stored({ retired: true }))
    vi.mocked(restoreRecord).mockResolvedValue(stored())
    await page()
    expect(document.querySelector<HTMLInputElement>('#f-note')?.disabled).toBe(true)
    await press('Restore')
    expect(document.querySelector<HTMLInputElement>('#f-note')?.disabled).toBe(false)
  })

  it('that may not be changed has nothing to press', async () => {
    model({ actions: ['VIEW'] })
    await page()
    expect(document.querySelector<HTMLInputElement>('#f-note')?.disabled).toBe(true)
    expect(text()).not.toContain('Save')
    expect(text()).not.toContain('Retire')
  })

  it('that is not there is told', async () => {
    vi.mocked(showRecord).mockRejectedValue(refused(404, []))
    await page()
    expect(text()).toContain('It is refused.')
  })

  it('of an object that is not released is told', async () => {
    service.answers('GET /manage/v1/model', { objects: [], events: [], packages: [] })
    await page()
    expect(text()).toContain('There is no object Job in the live release.')
  })
})

describe('a new record', () => {
  it('is made and found at its address', async () => {
    vi.mocked(createRecord).mockResolvedValue(stored())
    await page('/data/Job/new')
    expect(text()).toContain('New job')
    expect(showRecord).not.toHaveBeenCalled()
    await type('#f-yard', 'N,1')
    await type('#f-code', 'J1')
    await press('Save')
    expect(vi.mocked(createRecord).mock.lastCall?.[1]).toMatchObject({ yard: 'N,1', code: 'J1' })
    expect(decodeURIComponent(router.currentRoute.value.fullPath)).toBe('/data/Job/record/N\\,1,J1')
  })

  it('is not left by mistake', async () => {
    const asked = vi.fn().mockReturnValueOnce(false).mockReturnValueOnce(true)
    vi.stubGlobal('confirm', asked)
    await page('/data/Job/new')
    await type('#f-code', 'J1')
    await router.push('/elsewhere')
    expect(asked).toHaveBeenCalledTimes(1)
    expect(text()).toContain('New job')
    await router.push('/elsewhere')
    expect(text()).toContain('elsewhere')
    vi.unstubAllGlobals()
  })
})
