import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { keepFile } from '@/api/draft'
import { press, show, text, type } from '@/testing/service'
import ChoicesDialog from './ChoicesDialog.vue'

vi.mock('@/api/draft', () => ({ keepFile: vi.fn() }))
const note = vi.fn()
vi.mock('@/composables/journal', () => ({ useJournal: () => ({ note }) }))
vi.mock('@/composables/languages', () => ({ languagesOf: () => ['en', 'de'] }))
vi.mock('@/composables/model', () => ({ useDraft: () => ({ data: ref({ files: [] }) }) }))
vi.mock('@/components/UsesDrawer.vue', () => ({ default: { template: '<div>used</div>' } }))

const FILE = {
  path: 'yard/choices/kind.yaml',
  text: 'choices: Kind\ncodes:\n  wide: Wide\n  deep: Deep\n',
}
const codes = () => [...document.querySelectorAll<HTMLInputElement>('input.code')].map((one) => one.value)

beforeEach(() => {
  vi.mocked(keepFile)
    .mockReset()
    .mockResolvedValue(undefined as never)
  note.mockReset()
})
afterEach(() => (document.body.innerHTML = ''))

describe('a choice list', () => {
  it('begins with two empty rows', async () => {
    await show(ChoicesDialog, { folder: 'yard', taken: [] })
    expect(codes()).toEqual(['', ''])
    expect(document.querySelectorAll('th').length).toBe(4)
    expect(text()).toContain('in de')
  })

  it('is created as a file of its package', async () => {
    const { shown } = await show(ChoicesDialog, { folder: 'yard', taken: [] })
    await type('[aria-label="Name of the list"]', 'OrderKind')
    await type('[aria-label="Code 1"]', 'wide')
    await type('[aria-label="Label 1"]', 'Wide')
    await press('Create')
    expect(keepFile).toHaveBeenCalledTimes(1)
    const [path, made] = vi.mocked(keepFile).mock.calls[0]!
    expect(path).toMatch(/^yard\/choices\/.*\.yaml$/)
    expect(made).toContain('OrderKind')
    expect(made).toContain('wide')
    expect(shown.emitted('saved')).toEqual([['OrderKind']])
  })

  it.each([
    ['orderKind', 'A list is named with a capital letter first'],
    ['Kind', 'There is a list Kind already.'],
  ])('is not called %s', async (name, why) => {
    await show(ChoicesDialog, { folder: 'yard', taken: ['Kind'] })
    await type('[aria-label="Name of the list"]', name)
    await type('[aria-label="Code 1"]', 'wide')
    await press('Create')
    expect(text()).toContain(why)
    expect(keepFile).not.toHaveBeenCalled()
  })

  it('is put in another order, and its rows come and go', async () => {
    await show(ChoicesDialog, { folder: 'yard', file: FILE, name: 'Kind', taken: ['Kind'] })
    expect(codes()).toEqual(['wide', 'deep'])
    document.querySelector<HTMLButtonElement>('[aria-label="Move deep up"]')!.click()
    await flushPromises()
    expect(codes()).toEqual(['deep', 'wide'])
    await press('Add code')
    expect(codes()).toEqual(['deep', 'wide', ''])
    document.querySelector<HTMLButtonElement>('[aria-label="Remove wide"]')!.click()
    await flushPromises()
    expect(codes()).toEqual(['deep', ''])
  })

  it('is kept with what changed, which can be undone', async () => {
    await show(ChoicesDialog, { folder: 'yard', file: FILE, name: 'Kind', taken: ['Kind'] })
    await type('[aria-label="Label 1"]', 'Broad')
    await press('Keep it')
    expect(keepFile).toHaveBeenCalledWith(FILE.path, expect.stringContaining('Broad'), FILE.text)
    expect(note).toHaveBeenCalledWith(FILE.path, FILE.text, expect.stringContaining('Broad'))
  })

  it('says why it was refused', async () => {
    vi.mocked(keepFile).mockRejectedValue(new Error('Somebody changed the file meanwhile.'))
    const { shown } = await show(ChoicesDialog, { folder: 'yard', file: FILE, name: 'Kind', taken: [] })
    await press('Keep it')
    expect(text()).toContain('Somebody changed the file meanwhile.')
    expect(shown.emitted('saved')).toBeUndefined()
  })

  it('that is sealed is only shown', async () => {
    await show(ChoicesDialog, { folder: 'yard', file: FILE, name: 'Kind', taken: [], readOnly: true })
    expect(document.querySelector<HTMLInputElement>('input.code')?.disabled).toBe(true)
    expect(text()).not.toContain('Add code')
  })

  it('says where it is used', async () => {
    await show(ChoicesDialog, { folder: 'yard', file: FILE, name: 'Kind', taken: [] })
    await press('Used by')
    expect(text()).toContain('used')
  })
})
