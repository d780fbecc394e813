import { describe, expect, it } from 'vitest'
import type { FieldView } from '@/api/client'
import { addable, canGroup, firstChart, inTime } from './figures'

const field = (name: string, type = 'text', more = {}) =>
  ({ name, label: name, type, languages: [], ...more }) as unknown as FieldView

describe('figures', () => {
  it('add up numbers of one unit', () => {
    expect(['integer', 'decimal', 'amount'].map((type) => addable(field('x', type)))).toEqual([
      true,
      true,
      true,
    ])
    expect(addable(field('x', 'percent'))).toBe(false)
    expect(addable(field('x', 'amount', { currency: 'record' }))).toBe(false)
    expect(addable(field('x', 'integer', { onRead: true }))).toBe(false)
  })

  it('are grouped by what the database can tell apart', () => {
    expect(canGroup(field('x'))).toBe(true)
    expect(canGroup(field('x', 'text', { languages: ['en'] }))).toBe(false)
    expect(canGroup(field('x', 'text', { multiline: true }))).toBe(false)
    expect(canGroup(field('x', 'date', { onRead: true }))).toBe(false)
    expect(canGroup(field('x', 'amount', { currency: 'record' }))).toBe(false)
  })

  it('begin with the state, else with what tells records apart best', () => {
    const all = [field('code'), field('day', 'date'), field('kind', 'choice'), field('state', 'choice')]
    expect(firstChart(all, 'state')).toEqual({ kind: 'BAR', by: 'state' })
    expect(firstChart(all)).toEqual({ kind: 'BAR', by: 'kind' })
    expect(firstChart(all.slice(0, 2))).toEqual({ kind: 'LINE', by: 'day', step: 'MONTH' })
    expect(firstChart(all.slice(0, 1))).toEqual({ kind: 'BAR', by: 'code' })
    expect(firstChart([])).toBeUndefined()
    expect(inTime(field('x', 'date-time'))).toBe(true)
  })
})
