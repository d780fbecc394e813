import { Checkbox } from 'ant-design-vue'
import { flushPromises, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { takeBack } from '@/api/draft'
import { button, confirm, passing, press, service, show, text, type } from '@/testing/service'
import ReleasesPage from './ReleasesPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/api/draft', () => ({ takeBack: vi.fn() }))
const duties = { release: true }
vi.mock('@/composables/session', () => ({
  useSession: () => ({ may: (duty: keyof typeof duties) => duties[duty] }),
}))

const PREVIEW = {
  diagnostics: [],
  files: [
    { path: 'yard/objects/job.yaml', before: '', after: 'object: Job' },
    { path: 'yard/package.yaml', before: 'a', after: 'b' },
  ],
  changes: ['Object Job is added, with 3 fields.'],
  losses: [],
  breaks: [],
  obstacles: [],
  follows: [] as string[],
  leftBehind: [] as string[],
}
const previews = (more: object) => service.answers('GET /manage/v1/releases/preview', { ...PREVIEW, ...more })
const tick = async (shown: VueWrapper, place: number) => {
  shown.findAllComponents(Checkbox)[place]!.vm.$emit('update:checked', true)
  await flushPromises()
}

beforeEach(() => {
  service.forget()
  duties.release = true
  previews({})
  service.answers('GET /manage/v1/releases', [
    { number: 2, at: '2026-05-02T10:00:00Z', by: 'ann', note: 'Beams', changes: ['One', 'Two'] },
    { number: 1, at: '2026-05-01T10:00:00Z', by: 'bob', note: '', changes: ['All'] },
  ])
  service.answers('GET /manage/v1/kept-values', [])
  service.answers('GET /manage/v1/rehearsal', {})
})
afterEach(() => (document.body.innerHTML = ''))

describe('what waits in the draft', () => {
  it('is told in sentences, with its files', async () => {
    await show(ReleasesPage)
    expect(document.querySelector('[data-test=changes]')?.textContent).toContain('Object Job is added')
    expect(text()).toContain('yard/objects/job.yaml')
    expect(text()).toContain('added')
    expect(text()).not.toContain('removed')
  })

  it('is nothing when the draft is what is live', async () => {
    previews({ files: [], changes: [] })
    await show(ReleasesPage)
    expect(text()).toContain('Nothing: the draft is the same as the live release.')
  })

  it('may be wording alone', async () => {
    previews({ changes: [] })
    await show(ReleasesPage)
    expect(text()).toContain('Only wording differs')
  })

  it('is shown line by line', async () => {
    await show(ReleasesPage)
    await press('yard/package.yaml')
    expect(document.querySelector('.ant-modal')?.textContent).toContain('yard/package.yaml')
  })

  it('is taken back file by file', async () => {
    vi.mocked(takeBack).mockResolvedValue(undefined as never)
    await show(ReleasesPage)
    await press('take back')
    expect(takeBack).toHaveBeenCalledWith(['yard/package.yaml'])
  })
})

describe('what is done along with a release', () => {
  it('is told, with the time it took in the rehearsal', async () => {
    previews({ follows: ['Job.total is worked out anew for 1,200 records of Job.'] })
    service.answers('GET /manage/v1/rehearsal', {
      last: {
        stage: 'done',
        over: true,
        begun: '2026-05-01T10:00:00Z',
        releaseMillis: 80,
        formulaMillis: 2400,
        formulas: ['Job.total'],
        failing: [],
        differing: [],
      },
    })
    await show(ReleasesPage)
    expect(document.querySelector('[data-test=follows]')?.textContent).toContain('1,200 records of Job')
    expect(text()).toMatch(/the release took 80 ms, and formulas 2\.4 s afterwards/)
  })
})

describe('what a release leaves behind', () => {
  it('is told, and keeps nobody from releasing', async () => {
    previews({ leftBehind: ['Role hand has a grant on Job, which is removed.'] })
    await show(ReleasesPage)
    expect(document.querySelector('[data-test=left-behind]')?.textContent).toContain('Role hand has a grant')
    expect(button('Release').disabled).toBe(false)
  })
})

describe('a release', () => {
  it('is made with its note', async () => {
    const said = passing()
    service.answers('POST /manage/v1/releases', { number: 3 })
    await show(ReleasesPage)
    await type('input[aria-label=Note]', 'Vessels get a beam')
    await press('Release')
    expect(service.changes()[0]?.body).toEqual({
      note: 'Vessels get a beam',
      acceptLosses: false,
      acceptBreaks: false,
      forget: false,
    })
    expect(said.good).toHaveBeenLastCalledWith('Release 3 is live.')
  })

  it('is kept back by errors, which lead to their lines', async () => {
    previews({
      diagnostics: [
        { severity: 'ERROR', file: 'yard/objects/job.yaml', line: 7, message: 'There is no type txt.' },
      ],
    })
    await show(ReleasesPage)
    expect(button('Release').disabled).toBe(true)
    expect(text()).toContain('1 errors keep the draft from being released')
    expect(document.querySelector('a')?.getAttribute('href')).toBe(
      '/packages/file/yard/objects/job.yaml?line=7',
    )
  })

  it('is kept back by data that stands in the way', async () => {
    previews({ obstacles: ['Two jobs share J1.'] })
    await show(ReleasesPage)
    expect(button('Release').disabled).toBe(true)
    expect(text()).toContain('Two jobs share J1.')
  })

  it('loses data and breaks contracts only when both are accepted', async () => {
    previews({ losses: ['12 values of former.'], breaks: ['stays no longer gives former.'] })
    service.answers('POST /manage/v1/releases', { number: 3 })
    passing()
    const { shown } = await show(ReleasesPage)
    expect(button('Release').disabled).toBe(true)
    await tick(shown, 0)
    expect(button('Release').disabled).toBe(true)
    await tick(shown, 2)
    expect(button('Release').disabled).toBe(false)
    await tick(shown, 1)
    await press('Release')
    expect(service.changes()[0]?.body).toMatchObject({
      acceptLosses: true,
      acceptBreaks: true,
      forget: true,
    })
  })

  it('is not for those without the duty', async () => {
    duties.release = false
    await show(ReleasesPage)
    expect(button('Release').disabled).toBe(true)
  })

  it('says why it was refused', async () => {
    service.refuses('POST /manage/v1/releases', 'Somebody released meanwhile.')
    await show(ReleasesPage)
    await press('Release')
    expect(text()).toContain('Somebody released meanwhile.')
  })
})

describe('what was released', () => {
  it('has who, when and why', async () => {
    await show(ReleasesPage)
    expect(text()).toContain('Release 2')
    expect(text()).toContain('live')
    expect(text()).toContain('Beams')
    expect([...document.querySelectorAll('details')].map((one) => one.open)).toEqual([true, false])
  })

  it('is nothing at first', async () => {
    service.answers('GET /manage/v1/releases', [])
    await show(ReleasesPage)
    expect(text()).toContain('Nothing yet.')
  })
})

describe('an earlier release', () => {
  const previewed = (more: object) =>
    service.answers('GET /manage/v1/releases/{number}/take-back', { ...PREVIEW, ...more })

  it('is made live again once its losses are accepted', async () => {
    previewed({ changes: ['Job.size: its values in 4 records come back.'], losses: ['Job.beam goes.'] })
    service.answers('POST /manage/v1/releases/{number}/take-back', { number: 3 })
    const said = passing()
    const { shown } = await show(ReleasesPage)
    await press('make live again')
    expect(text()).toContain('its values in 4 records come back')
    expect(button('Make it live').disabled).toBe(true)
    await tick(shown, 0)
    await press('Make it live')
    expect(service.changes()[0]?.body).toEqual({
      note: '',
      acceptLosses: true,
      acceptBreaks: false,
      forget: false,
    })
    expect(said.good).toHaveBeenLastCalledWith('Release 3 is live, with what release 1 had.')
  })

  it('may be the same as the live one', async () => {
    previewed({ files: [], changes: [] })
    await show(ReleasesPage)
    await press('make live again')
    expect(text()).toContain('It is the same as the live release.')
    expect(button('Make it live').disabled).toBe(true)
  })

  it('may no longer pass the checks', async () => {
    previewed({
      diagnostics: [{ severity: 'ERROR', file: 'yard/objects/job.yaml', line: 7, message: 'No such type.' }],
    })
    await show(ReleasesPage)
    await press('make live again')
    expect(text()).toContain('Release 1 no longer passes the checks')
    expect(text()).toContain('No such type.')
  })

  it('says why it was refused', async () => {
    previewed({})
    service.refuses('POST /manage/v1/releases/{number}/take-back', 'Examples fail.')
    await show(ReleasesPage)
    await press('make live again')
    await press('Make it live')
    expect(text()).toContain('Examples fail.')
  })

  it('is not for those without the duty', async () => {
    duties.release = false
    await show(ReleasesPage)
    expect(text()).not.toContain('make live again')
  })
})

describe('what is kept aside', () => {
  beforeEach(() =>
    service.answers('GET /manage/v1/kept-values', [
      { number: 7, what: 'Job.size', rows: 1200, release: 4, at: '', until: '2026-06-01T10:00:00Z' },
    ]),
  )

  it('is told with its count and until when', async () => {
    await show(ReleasesPage)
    const card = document.querySelector('[data-test=kept]')?.textContent
    expect(card).toContain('Job.size')
    expect(card).toMatch(/1.?200 values · last in release 4 · until/)
  })

  it('is dropped when that is wanted', async () => {
    service.answers('DELETE /manage/v1/kept-values/{number}', null)
    const { shown } = await show(ReleasesPage)
    await confirm(shown, 0)
    expect(service.changes()[0]?.params).toEqual({ path: { number: 7 } })
  })

  it('is shown to those who may not drop it', async () => {
    duties.release = false
    await show(ReleasesPage)
    expect(document.querySelector('[data-test=kept] button')).toBeNull()
  })
})
