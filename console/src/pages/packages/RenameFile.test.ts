import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, text, type } from '@/testing/service'
import RenameFile from './RenameFile.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const open = (as: 'rename' | 'duplicate') =>
  show(RenameFile, {
    path: 'yard/objects/boat.yaml',
    text: 'object: Boat\n',
    as,
    taken: ['yard/objects/boat.yaml', 'yard/objects/oar.yaml'],
  })

beforeEach(() => {
  service.forget()
  service.answers('PUT /manage/v1/draft/file', { diagnostics: [] })
  service.answers('POST /manage/v1/draft/move', { diagnostics: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('the path of a file', () => {
  it('is changed, and leads there', async () => {
    const { shown, router } = await open('rename')
    expect(button('Rename').disabled).toBe(true)
    await type('[aria-label=Path]', 'yard/objects/vessel.yaml')
    await press('Rename')
    expect(service.changes()[0]).toMatchObject({
      method: 'POST',
      body: { from: 'yard/objects/boat.yaml', to: 'yard/objects/vessel.yaml' },
    })
    expect(shown.emitted('left')).toHaveLength(1)
    await vi.waitFor(() =>
      expect(router.currentRoute.value.path).toBe('/packages/file/yard/objects/vessel.yaml'),
    )
  })

  it('of a copy is offered, and the copy has the same text', async () => {
    await open('duplicate')
    expect(document.querySelector<HTMLInputElement>('[aria-label=Path]')?.value).toBe(
      'yard/objects/boat-copy.yaml',
    )
    await press('Duplicate')
    expect(service.changes()).toMatchObject([
      { method: 'PUT', body: { path: 'yard/objects/boat-copy.yaml', text: 'object: Boat\n' } },
    ])
  })

  it.each([
    ['boat.yaml', 'A file is named like'],
    ['yard/boat.yml', 'A file is named like'],
    ['yard/../boat.yaml', 'A file is named like'],
    ['/yard/objects/boat.yaml', 'A file is named like'],
    ['yard/objects/oar.yaml', 'There is a file yard/objects/oar.yaml already.'],
  ])('may not be %s', async (path, said) => {
    await open('rename')
    await type('[aria-label=Path]', path)
    await press('Rename')
    expect(text()).toContain(said)
    expect(service.changes()).toEqual([])
  })

  it('stays when the service refuses another', async () => {
    service.refuses('POST /manage/v1/draft/move', 'It was changed meanwhile.')
    const { shown } = await open('rename')
    await type('[aria-label=Path]', 'yard/objects/vessel.yaml')
    await press('Rename')
    expect(text()).toContain('It was changed meanwhile.')
    expect(shown.emitted('left')).toBeUndefined()
  })
})
