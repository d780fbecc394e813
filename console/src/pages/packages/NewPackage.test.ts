import { AutoComplete } from 'ant-design-vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, text, type } from '@/testing/service'
import NewPackage from './NewPackage.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const value = (label: string) => document.querySelector<HTMLInputElement>(`[aria-label="${label}"]`)?.value
const written = () => service.changes()[0]?.body as { path: string; text: string } | undefined

beforeEach(() => {
  service.forget()
  service.answers('PUT /manage/v1/draft/file', { diagnostics: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('a new package', () => {
  it('is named after its label until another name is typed', async () => {
    await show(NewPackage, { taken: [] })
    expect(button('Create').disabled).toBe(true)
    await type('[aria-label=Label]', 'Boat Yard')
    expect(value('Name')).toBe('boat-yard')
    await type('[aria-label=Name]', 'yard')
    await type('[aria-label=Label]', 'Boat Yard & Sons')
    expect(value('Name')).toBe('yard')
  })

  it.each([
    ['Zürich Straße', 'zurich-strasse'],
    ['Été à la mer', 'ete-a-la-mer'],
    ['2nd  Harbour!', 'nd-harbour'],
    ['Łódź', 'odz'],
    ['港', ''],
  ])('called %s is named %s', async (label, name) => {
    await show(NewPackage, { taken: [] })
    await type('[aria-label=Label]', label)
    expect(value('Name')).toBe(name)
  })

  it('is written as a file of the draft', async () => {
    const { shown } = await show(NewPackage, { taken: ['marina'] })
    await type('[aria-label=Label]', 'Boat yard')
    await type('[aria-label=Languages]', 'en, de')
    await type('[aria-label=Currency]', 'SEK')
    await press('Create')
    expect(written()?.path).toBe('boat-yard/package.yaml')
    expect(written()?.text).toContain('package: boat-yard')
    expect(written()?.text).toContain('SEK')
    expect(written()?.text).toMatch(/languages: *\[ *en, de *\]/)
    expect(shown.emitted('left')).toHaveLength(1)
  })

  it.each([
    ['Name', 'Yard', 'small letters, digits and hyphens'],
    ['Name', '2yard', 'begins with a letter'],
    ['Name', 'marina', 'There is a package marina already.'],
    ['Languages', 'english', 'two letters, the main one first'],
    ['Languages', '', 'two letters, the main one first'],
    ['Currency', 'euro', 'three capital letters'],
  ])('is asked for again when its %s is %s', async (label, given, said) => {
    await show(NewPackage, { taken: ['marina'] })
    await type('[aria-label=Label]', 'Boat yard')
    await type(`[aria-label=${label}]`, given)
    await press('Create')
    expect(text()).toContain(said)
    expect(service.changes()).toEqual([])
  })

  it('offers time zones by what was typed of them', async () => {
    const { shown } = await show(NewPackage, { taken: [] })
    shown.findComponent(AutoComplete).vm.$emit('update:value', 'stockh')
    await shown.vm.$nextTick()
    expect(shown.findComponent(AutoComplete).props('options')).toEqual([{ value: 'Europe/Stockholm' }])
  })

  it('stays open when it could not be kept', async () => {
    service.refuses('PUT /manage/v1/draft/file', 'The draft is locked by a release.')
    const { shown } = await show(NewPackage, { taken: [] })
    await type('[aria-label=Label]', 'Boat yard')
    await press('Create')
    expect(text()).toContain('The draft is locked by a release.')
    expect(shown.emitted('left')).toBeUndefined()
  })
})
