import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { OperationView } from '@/api/connections'
import { press, service, show, text, type } from '@/testing/service'
import PickDialog from './PickDialog.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const plain = { type: 'string', properties: {} }
const OPERATION: OperationView = {
  method: 'GET',
  path: '/flags',
  summary: 'All flags',
  parameters: [{ name: 'q', place: 'query', required: false, type: 'string' }],
  answer: {
    type: 'object',
    properties: {
      found: { type: 'array', properties: {}, items: { type: 'object', properties: { id: plain } } },
    },
  },
}
const TRY = 'POST /manage/v1/documents/try'
beforeEach(() => service.forget())
afterEach(() => (document.body.innerHTML = ''))

const dialog = (props: object = {}) =>
  show(PickDialog, { operation: OPERATION, setting: 'signals', of: 'lookup', picked: {}, ...props })
const place = (name: string) => document.querySelector<HTMLButtonElement>(`[data-test="${name}"]`)

describe('picking places of an answer', () => {
  it('shows what the contract says as long as nobody has asked', async () => {
    await dialog()
    expect(place('source')!.textContent).toContain('What the contract says')
    expect(place('found')!.disabled).toBe(false)
    expect(place('found.[].id')!.disabled).toBe(true)
  })

  it('tries it with the values that were given', async () => {
    service.answers(TRY, { millis: 7, answer: { rows: [{ code: 'A' }] } })
    await dialog()
    await type('input[aria-label=q]', 'gull')
    await press('Try it')
    expect(service.changes()[0].body).toEqual({
      setting: 'signals',
      operation: 'GET /flags',
      values: [{ name: 'q', place: 'query', value: 'gull' }],
    })
    expect(place('source')!.textContent).toContain('7 ms')
    expect(place('rows.[].code')).not.toBeNull()
  })

  it('takes the list, then the code, then the label', async () => {
    service.answers(TRY, { millis: 1, answer: { rows: [{ code: 'A', says: { name: 'Alfa' } }] } })
    const { shown } = await dialog()
    await press('Try it')
    for (const name of ['rows', 'rows.[].code', 'rows.[].says.name']) {
      place(name)!.click()
      await Promise.resolve()
    }
    await press('Take these places')
    expect(shown.emitted('pick')).toEqual([[{ items: 'rows', key: 'code', label: 'says.name' }]])
  })

  it('says why nothing came', async () => {
    service.answers(TRY, { millis: 1, message: 'It answered 503.' })
    await dialog({ of: 'call' })
    await press('Try it')
    expect(text()).toContain('It answered 503.')
  })
})
