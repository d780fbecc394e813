import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { FieldView } from '@/api/client'
import type { Plain } from '@/api/records'
import FileInput from './FileInput.vue'
import { bytes, fileAddress, fileIn, readFile, refusal, taken, withoutContent } from './keptFile'

const field = (more: Partial<FieldView> = {}): FieldView =>
  ({ name: 'lease', label: 'Lease', type: 'file', required: false, accepts: [], ...more }) as FieldView

const STORED = { name: 'lease.pdf', type: 'application/pdf', size: 18_231, sha256: 'ab' }

const shown = (props: object) => mount(FileInput, { props: { field: field(), value: null, ...props } })

const choose = async (page: ReturnType<typeof shown>, file: File) => {
  const input = page.find<HTMLInputElement>('input[type=file]')
  Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
  await input.trigger('change')
  await flushPromises()
  await new Promise((resolve) => setTimeout(resolve))
}

describe('the input of a file', () => {
  it('downloads what is stored, under its own name', () => {
    const link = shown({ value: STORED, address: '/files/lease' }).find('a')
    expect(link.attributes()).toMatchObject({ href: '/files/lease', download: 'lease.pdf' })
    expect(link.text()).toContain('lease.pdf')
  })

  it('shows pictures, stored and chosen ones', () => {
    const picture = { ...STORED, name: 'boat.png', type: 'image/png' }
    expect(shown({ value: picture, address: '/files/photo' }).find('img').attributes('src')).toBe(
      '/files/photo?of=ab',
    )
    expect(
      shown({ value: { ...picture, content: 'QQ==' } })
        .find('img')
        .attributes('src'),
    ).toBe('data:image/png;base64,QQ==')
    expect(
      shown({ value: { ...picture, type: 'image/svg+xml' }, address: '/x' })
        .find('img')
        .exists(),
    ).toBe(false)
  })

  it('takes a file that is chosen, with what is in it', async () => {
    const page = shown({})
    await choose(page, new File(['Ahoy!'], 'note.txt', { type: 'text/plain' }))
    expect(page.emitted('update')).toEqual([
      [{ name: 'note.txt', type: 'text/plain', size: 5, content: 'QWhveSE=' }],
    ])
  })

  it('says at once when one is too large or empty, and leaves what was there', async () => {
    const page = shown({ field: field({ largest: 4 }), value: STORED })
    await choose(page, new File(['Ahoy!'], 'note.txt'))
    expect(page.find('[role=alert]').text()).toBe('note.txt has 5 bytes; at most 4 bytes are taken.')
    expect(page.emitted('update')).toBeUndefined()
    expect(refusal(field(), new File([], 'none.txt'))).toBe('none.txt is empty.')
  })

  it('takes one away where the field may be empty', async () => {
    const page = shown({ value: STORED })
    await page.find('[aria-label="Take the file of Lease away"]').trigger('click')
    expect(page.emitted('update')).toEqual([[null]])
    expect(
      shown({ value: STORED, field: field({ required: true }) })
        .find('[aria-label^="Take"]')
        .exists(),
    ).toBe(false)
  })

  it('only shows what is there where nothing may be changed', () => {
    const page = shown({ value: STORED, address: '/files/lease', disabled: true })
    expect(page.find('a').exists()).toBe(true)
    expect(page.find('button').exists()).toBe(false)
    expect(shown({ disabled: true }).text()).toBe('No file')
  })

  it('says beforehand what is taken', () => {
    expect(taken(field({ accepts: ['application/pdf', 'image/*'], largest: 200_000 }))).toBe(
      'pdf, images, up to 200 kB',
    )
    expect(taken(field())).toBe('')
  })
})

describe('files', () => {
  it('are measured as people say it', () => {
    expect([5, 999, 1_000, 18_231, 7_087, 3_000_000, 2_500_000_000].map(bytes)).toEqual([
      '5 bytes',
      '999 bytes',
      '1 kB',
      '18 kB',
      '7.1 kB',
      '3 MB',
      '2.5 GB',
    ])
  })

  it('are read whole, however many bytes they have', async () => {
    const all = new Uint8Array(100_000).map((_, at) => at % 251)
    const read = await readFile(new File([all], 'all.bin'))
    expect(Uint8Array.from(atob(read.content!), (one) => one.charCodeAt(0))).toEqual(all)
    expect(read).not.toHaveProperty('type')
  })

  it('are told from other values', () => {
    expect(fileIn(STORED)).toEqual(STORED)
    const others: Plain[] = [null, 'lease.pdf', { value: 1, currency: 'EUR' }, { en: 'a' }, []]
    for (const other of others) expect(fileIn(other)).toBeUndefined()
  })

  it('have addresses with whatever stands in names', () => {
    expect(fileAddress('Stay', 'id1', 'charges', 2, 'receipt')).toBe(
      '/manage/v1/records/Stay/id1/files/charges/2/receipt',
    )
  })

  it('are left out of what is worked out at each key', () => {
    const fresh = { name: 'n.txt', type: 'text/plain', size: 5, content: 'QWhveSE=' }
    const untold = { name: 'n', size: 5, content: 'QWhveSE=' }
    expect(
      withoutContent({ a: 1, lease: fresh, other: STORED, untold, items: [{ scan: fresh }, {}] }),
    ).toEqual({
      a: 1,
      lease: { name: 'n.txt', type: 'text/plain', size: 5, sha256: '0'.repeat(64) },
      other: STORED,
      items: [{ scan: { name: 'n.txt', type: 'text/plain', size: 5, sha256: '0'.repeat(64) } }, {}],
    })
  })
})
