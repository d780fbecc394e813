import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, passing, press, service, show, text } from '@/testing/service'
import VersionsDialog from './VersionsDialog.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())
vi.mock('@/components/TextDifference.vue', () => ({
  default: {
    props: ['before', 'after'],
    template: '<pre class="difference">{{ before }} > {{ after }}</pre>',
  },
}))

const BOAT = 'yard/objects/boat.yaml'
const version = (by: string, text: string) => ({ path: BOAT, by, text, at: '2026-05-01T10:00:00Z' })
const difference = () => document.querySelector('.difference')?.textContent

beforeEach(() => {
  service.forget()
  service.answers('GET /manage/v1/draft', { files: [{ path: BOAT, text: 'now' }] })
  service.answers('GET /manage/v1/draft/versions', [version('ann', 'then'), version('ben', 'now')])
  service.answers('PUT /manage/v1/draft/file', { diagnostics: [] })
})
afterEach(() => (document.body.innerHTML = ''))

describe('what files were', () => {
  it('is shown from now to then, the newest first', async () => {
    await show(VersionsDialog, { path: BOAT })
    expect(text()).toContain(`Versions of ${BOAT}`)
    expect(difference()).toBe('now > then')
    expect(service.asked().at(-1)).toMatchObject({ params: { query: { path: BOAT } } })
  })

  it('is chosen by who left it and when', async () => {
    await show(VersionsDialog, { path: BOAT })
    await press('ben')
    expect(difference()).toBe('now > now')
    expect(button('Come back to this one').disabled).toBe(true)
  })

  it('is come back to', async () => {
    const said = passing()
    const { shown } = await show(VersionsDialog, { path: BOAT })
    await press('Come back to this one')
    expect(service.changes()).toMatchObject([{ method: 'PUT', body: { path: BOAT, text: 'then' } }])
    expect(said.good).toHaveBeenLastCalledWith(`${BOAT} is as ann left it.`)
    expect(shown.emitted('done')).toEqual([[BOAT]])
  })

  it('is shown with its path where it is of all files', async () => {
    await show(VersionsDialog)
    expect(document.querySelector('li code')?.textContent).toBe(BOAT)
  })

  it('is nothing at first, and it says when there will be', async () => {
    service.answers('GET /manage/v1/draft/versions', [])
    await show(VersionsDialog, { path: BOAT })
    expect(text()).toContain('None yet. What a file was is kept when somebody else changes it')
  })

  it('says why it could not be come back to', async () => {
    const said = passing()
    service.refuses('PUT /manage/v1/draft/file', 'yard is sealed.')
    const { shown } = await show(VersionsDialog, { path: BOAT })
    await press('Come back to this one')
    expect(said.bad).toHaveBeenLastCalledWith('yard is sealed.')
    expect(shown.emitted('done')).toBeUndefined()
  })
})
