import { describe, expect, it } from 'vitest'
import type { ObjectView } from '@/api/client'
import { guess, portion, readDataFile, recordsCsv, recordsOf, refusedCsv } from './dataFile'

const field = (name: string, more = {}) => ({ name, label: name.toUpperCase(), languages: [], ...more })
const ORDER = {
  name: 'Order',
  key: ['area', 'code'],
  fields: [
    field('area'),
    field('code', { label: 'Order code' }),
    field('title', { languages: ['en', 'de'] }),
    field('total', { formula: 'sum(lines.price)' }),
  ],
  parts: [{ name: 'lines', label: 'Lines', fields: [field('what'), field('price')] }],
} as unknown as ObjectView

const file = (name: string, text: string) => readDataFile(new File([text], name))

describe('a file of records', () => {
  it('is read as CSV or JSON Lines', async () => {
    const csv = await file('a.csv', '\uFEFFarea; code\nN;1\n\n"S ""x""";2\n')
    expect(csv.columns).toEqual(['area', 'code'])
    expect(csv.rows).toEqual([
      { area: 'N', code: '1' },
      { area: 'S "x"', code: '2' },
    ])
    const lines = await file('a.jsonl', '{"area":"N","lines":[{"what":"a"}]}\n\n{"code":2}\n')
    expect(lines.columns).toEqual(['area', 'lines', 'code'])
  })

  it('is refused in words when it is nothing of that', async () => {
    await expect(file('a.csv', '')).rejects.toThrow('holds no rows')
    await expect(file('a.jsonl', '{"a":1}\nnonsense')).rejects.toThrow('Line 2 is not JSON')
    await expect(file('a.jsonl', '[1]')).rejects.toThrow('not an object')
    await expect(file('a.csv', 'a,b\n"open,1\n2,3')).rejects.toThrow('not closed')
    const latin = new File([new Uint8Array([0x61, 0x0a, 0xe4, 0xf6])], 'l.csv')
    await expect(readDataFile(latin)).rejects.toThrow('not UTF-8')
    const wide = Array.from({ length: 1_001 }, (_, at) => `c${at}`).join(',')
    await expect(file('w.csv', `${wide}\n1`)).rejects.toThrow('1001 columns')
  })

  it('has its columns matched by name or label, each target once, and no formula', () => {
    expect(guess(['AREA', 'order code', 'title', 'title.de', 'total', 'lines.price', 'x'], ORDER)).toEqual({
      AREA: 'area',
      'order code': 'code',
      title: 'title.en',
      'title.de': 'title.de',
      'lines.price': 'lines.price',
    })
  })

  it('becomes records, with rows of one key as line items', async () => {
    const read = await file(
      'a.csv',
      'area,code,title.de,lines.what,lines.price\nN,1,Eins,a,2\nN,1,,b,3\nN,2,,,\n',
    )
    const records = recordsOf(read, guess(read.columns, ORDER), ORDER)
    expect(records).toEqual([
      {
        values: {
          area: 'N',
          code: '1',
          title: { de: 'Eins' },
          lines: [
            { what: 'a', price: '2' },
            { what: 'b', price: '3' },
          ],
        },
        rows: [1, 2],
      },
      { values: { area: 'N', code: '2' }, rows: [3] },
    ])
    expect(refusedCsv(read, [{ rows: [3], reason: 'No, thanks' }])).toContain('"No, thanks"')
  })

  it('is written with a column for each language, as it can be read again', () => {
    const record = { values: { area: '+49 40', title: { en: 'One', de: null } } } as never
    expect(recordsCsv(ORDER, ['area', 'title'], [record])).toBe('area,title.en,title.de\r\n+49 40,One,')
  })
})

describe('what is sent together', () => {
  const record = (size: number) => ({ values: { note: 'x'.repeat(size) }, rows: [1] })

  it('is so many records, and fewer where they are heavy', () => {
    const light = Array.from({ length: 7 }, () => record(5))
    expect(portion(light, 0, 3)).toHaveLength(3)
    expect(portion(light, 6, 3)).toHaveLength(1)
    const heavy = Array.from({ length: 7 }, () => record(300_000))
    expect(portion(heavy, 0, 200)).toHaveLength(2)
    expect(portion(heavy, 6, 200)).toHaveLength(1)
    expect(portion([record(9_000_000)], 0, 200)).toHaveLength(1)
  })
})
