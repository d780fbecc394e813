import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, passing, press, service, show, text } from '@/testing/service'
import RequirementsPage from './RequirementsPage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/components/StepTree.vue', () => ({
  default: { props: ['steps'], template: '<pre class="steps-shown">{{ steps.length }}</pre>' },
}))

const FILE = 'yard/requirements/orders.yaml'
const file = (path: string, text: string) => ({ path, text, diagnostics: [] })
const YARD = file('yard/package.yaml', 'package: yard\nversion: 1.0\n')
const ORDERS = file(FILE, 'requirements:\n  R1:\n    text: An order is numbered.\n')
const draftOf = (...files: object[]) => ({ files, sealed: [], diagnostics: [] })
const example = (name: string, holds: boolean, problems: string[] = []) => ({
  name,
  label: `The ${name}`,
  file: FILE,
  line: 4,
  holds,
  problems,
  steps: [{}, {}],
})
const one = (id: string, proof: string, examples: object[] = []) => ({
  id,
  text: `Text of ${id}.`,
  proof,
  examples,
})
const played = (...requirements: object[]) =>
  service.answers('GET /manage/v1/requirements', { requirements, failing: 1, open: 1, proved: 1 })
const ids = () =>
  [...document.querySelectorAll('article')].map((article) => article.getAttribute('data-test'))

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/draft', draftOf(YARD, ORDERS))
  service.answers('PUT /manage/v1/draft/file', { diagnostics: [] })
  played(
    one('R1', 'PROVED', [example('first', true)]),
    one('R2', 'OPEN'),
    one('R3', 'FAILING', [example('second', false, ['total is 3 and not 4.'])]),
  )
})
afterEach(() => (document.body.innerHTML = ''))

describe('requirements', () => {
  it('stand with what needs somebody first', async () => {
    await show(RequirementsPage)
    expect(ids()).toEqual(['R3', 'R2', 'R1'])
    expect(text()).toContain('1 failing')
    expect(text()).toContain('total is 3 and not 4.')
    expect(document.querySelector('[data-test=R2]')?.textContent).toContain('It has no example yet.')
  })

  it('lead to where they are written, where that is known', async () => {
    await show(RequirementsPage)
    expect(document.querySelector('[data-test=R1] a')?.getAttribute('href')).toBe(
      `/requirements/write/${FILE}`,
    )
    expect(document.querySelector('[data-test=R2] a')).toBeNull()
  })

  it('show the steps of an example, and hide them again', async () => {
    await show(RequirementsPage)
    await press('The first')
    expect(document.querySelector('.steps-shown')?.textContent).toBe('2')
    await press('The first')
    expect(document.querySelector('.steps-shown')).toBeNull()
  })

  it('are played again when that is asked for', async () => {
    await show(RequirementsPage)
    played(one('R1', 'PROVED'))
    await press('Play again')
    expect(ids()).toEqual(['R1'])
  })

  it('are added to the file that has some, with what it was', async () => {
    const { router } = await show(RequirementsPage)
    await press('New requirement')
    const sent = service.changes()[0]?.body as { path: string; text: string; base: string }
    expect(sent.path).toBe(FILE)
    expect(sent.base).toBe(ORDERS.text)
    expect(sent.text).toContain('R1:')
    expect(sent.text).toContain('R4:')
    await vi.waitFor(() => {
      expect(router.currentRoute.value.path).toBe(`/requirements/write/${FILE}`)
      expect(router.currentRoute.value.query).toEqual({ id: 'R4' })
    })
  })

  it('begin with a file where there is none', async () => {
    service.answers('GET /manage/v1/draft', draftOf(YARD))
    played()
    await show(RequirementsPage)
    expect(text()).toContain('No requirement is written down yet')
    await press('Write the first requirement')
    expect(service.changes()[0]?.body).toMatchObject({ path: 'yard/requirements/requirements.yaml' })
  })

  it('need a package first', async () => {
    service.answers('GET /manage/v1/draft', draftOf())
    played()
    await show(RequirementsPage)
    expect(text()).toContain('Make a package first')
    expect(() => button('New requirement')).toThrow()
  })

  it('say why one could not be added', async () => {
    const said = passing()
    service.refuses('PUT /manage/v1/draft/file', 'Somebody else has changed it.')
    await show(RequirementsPage)
    await press('New requirement')
    expect(said.bad).toHaveBeenLastCalledWith('Somebody else has changed it.')
  })
})
