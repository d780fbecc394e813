import { describe, expect, it } from 'vitest'
import { answerRows, madeUp } from './answerRows'

const ANSWER = {
  data: [{ code: 'A', more: { name: 'Alfa' } }, { code: 'B' }],
  total: 2,
  empty: [],
  none: null,
}

describe('the places of an answer', () => {
  it('are those of the whole, and of the first entry of each list', () => {
    const rows = answerRows(ANSWER).map((row) =>
      [...(row.list ?? []), row.list ? '[]' : '', ...row.path].join('/'),
    )
    expect(rows).toEqual([
      '',
      '/data',
      'data/[]',
      'data/[]/code',
      'data/[]/more',
      'data/[]/more/name',
      '/total',
      '/empty',
      '/none',
    ])
  })

  it('say what stands there, shortly', () => {
    const rows = answerRows({ list: [1], text: 'x'.repeat(100) })
    expect(rows.map((row) => row.sample)).toEqual(['', '1 entry', '1', `${'x'.repeat(60)}…`])
  })

  it('end somewhere, however large the answer is', () => {
    const large = Object.fromEntries(Array.from({ length: 5000 }, (_, at) => [`f${at}`, at]))
    expect(answerRows(large).length).toBeLessThanOrEqual(201)
  })

  it('can be those that a contract promises', () => {
    const plain = { type: 'string', properties: {} }
    const shape = {
      type: 'object',
      properties: {
        found: {
          type: 'array',
          properties: {},
          items: { type: 'object', properties: { id: plain } },
        },
      },
    }
    expect(madeUp(shape)).toEqual({ found: [{ id: 'string' }] })
  })
})
