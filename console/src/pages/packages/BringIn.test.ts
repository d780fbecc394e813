import { strToU8, zipSync } from 'fflate'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, text } from '@/testing/service'
import BringIn from './BringIn.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const TIDES = {
  label: 'Tides',
  describe: 'Heights by the hour',
  files: { 'tides/package.yaml': 'package: tides' },
}
const chosen = () => document.querySelector('[data-test=chosen]')?.textContent

/** Chooses files, as somebody does in the dialog of the system. */
async function choose(input: number, files: File[]) {
  const element = document.querySelectorAll<HTMLInputElement>('input[type=file]')[input]!
  Object.defineProperty(element, 'files', { value: files, configurable: true })
  element.dispatchEvent(new Event('change'))
  await vi.waitFor(() => expect(chosen() ?? text()).toMatch(/files of|zip|package/))
  await flushPromises()
}
const zip = (files: Record<string, string>) =>
  new File(
    [
      zipSync(
        Object.fromEntries(Object.entries(files).map(([path, one]) => [path, strToU8(one)])),
      ) as BlobPart,
    ],
    'yard.zip',
  )
const inFolder = (path: string, content: string) =>
  Object.defineProperty(new File([content], path.split('/').at(-1)!), 'webkitRelativePath', { value: path })

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/examples', [TIDES])
})
afterEach(() => (document.body.innerHTML = ''))

describe('packages that are brought in', () => {
  it('are shown before they are', async () => {
    const { shown } = await show(BringIn, { there: [] })
    expect(button('Bring in').disabled).toBe(true)
    await choose(0, [zip({ 'yard/package.yaml': 'package: yard', 'yard/README.md': 'Read me' })])
    expect(chosen()).toContain('yard.zip: 1 files of yard.')
    expect(chosen()).toContain('Left out, since they are no definition files: yard/README.md')
    expect(service.changes()).toEqual([])
    await press('Bring in')
    expect(service.changes()[0]).toMatchObject({
      method: 'POST',
      path: '/manage/v1/draft/push',
      body: { files: { 'yard/package.yaml': 'package: yard' } },
    })
    expect(shown.emitted('done')).toHaveLength(1)
  })

  it('go to the service as they are when an instance packed them', async () => {
    service.answers('POST /manage/v1/packages/unpack', {})
    const { shown } = await show(BringIn, { there: ['yard'] })
    const packed = zip({ 'manifest.json': '{}', 'yard/package.yaml': 'package: yard' })
    await choose(0, [packed])
    expect(chosen()).toContain('yard.zip: 1 files of yard. It is checked against its manifest')
    expect(chosen()).toContain('yard is here already and will be replaced whole.')
    await press('Bring in')
    expect(service.changes()[0]).toMatchObject({ path: '/manage/v1/packages/unpack', body: packed })
    expect(shown.emitted('done')).toHaveLength(1)
  })

  it('come out of a folder', async () => {
    await show(BringIn, { there: [] })
    await choose(1, [
      inFolder('yard/package.yaml', 'package: yard'),
      inFolder('yard/objects/boat.yaml', 'object: Boat'),
    ])
    expect(chosen()).toContain('2 files of yard.')
  })

  it('come from what ships', async () => {
    await show(BringIn, { there: ['tides'] })
    expect(text()).toContain('Heights by the hour')
    await press('Choose it')
    expect(chosen()).toContain('Tides: 1 files of tides.')
    expect(chosen()).toContain('tides is here already and will be replaced whole.')
  })

  it('are refused where there is none', async () => {
    await show(BringIn, { there: [] })
    await choose(0, [new File(['not zipped'], 'broken.zip')])
    await vi.waitFor(() => expect(text()).toContain('broken.zip is no zip archive that can be read.'))
    expect(chosen()).toBeUndefined()
    expect(button('Bring in').disabled).toBe(true)
  })

  it('stay chosen when the service refuses them', async () => {
    service.refuses('POST /manage/v1/draft/push', 'tides is sealed.')
    const { shown } = await show(BringIn, { there: [] })
    await press('Choose it')
    await press('Bring in')
    expect(text()).toContain('tides is sealed.')
    expect(chosen()).toContain('Tides')
    expect(shown.emitted('done')).toBeUndefined()
  })
})
