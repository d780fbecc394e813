import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { service, show, text } from '@/testing/service'
import FileList from './FileList.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const file = (path: string, kind: string, more: object = {}) => ({
  path,
  file: path.split('/').at(-1),
  kind,
  errors: 0,
  warnings: 0,
  state: 'released',
  ...more,
})
const YARD = {
  name: 'yard',
  label: 'Yard',
  sealed: false,
  errors: 3,
  files: [
    file('yard/package.yaml', 'package', { name: 'yard' }),
    file('yard/objects/boat.yaml', 'object', { name: 'Boat', errors: 2, state: 'changed' }),
    file('yard/objects/oar.yaml', 'object', { errors: 1, state: 'added' }),
    file('yard/notes.yaml', 'other'),
  ],
}
const group = (title: string) =>
  [...document.querySelectorAll('.groups > div')].find(
    (one) => one.querySelector('h3')?.textContent === title,
  )

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/model', { objects: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('the files of a package', () => {
  it('stand by kind, with what is to be said of each', async () => {
    await show(FileList, { of: YARD })
    const [boat, oar] = [...group('Objects')!.querySelectorAll('li')].map((one) => one.textContent)
    expect(boat).toContain('Boat')
    expect(boat).toContain('2 errors')
    expect(boat).toContain('changed')
    expect(oar).toContain('oar.yaml')
    expect(oar).toContain('1 error')
    expect(oar).toContain('new')
    expect(group('The package itself')!.querySelector('a')?.getAttribute('href')).toBe(
      '/packages/file/yard/package.yaml',
    )
    expect(group('Of no kind')!.textContent).toContain('notes.yaml')
  })

  it('say what a kind is for where there are none yet', async () => {
    await show(FileList, { of: YARD })
    expect(group('Services')!.textContent).toContain('What outside systems and apps can read and write.')
  })

  it('are begun beside their kind', async () => {
    const { shown } = await show(FileList, { of: YARD })
    await shown.find('[aria-label="New file: Events of yard"]').trigger('click')
    expect(text()).toContain('New event')
  })

  it('are not begun in a package that is sealed', async () => {
    await show(FileList, { of: { ...YARD, sealed: true } })
    expect(group('Services')).toBeUndefined()
    expect(document.querySelector('[aria-label^="New file"]')).toBeNull()
  })
})
