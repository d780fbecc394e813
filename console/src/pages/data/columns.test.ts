import { describe, expect, it } from 'vitest'
import type { FieldView, ObjectView } from '@/api/client'
import { columnsOf } from './columns'
import { addable, canGroup, firstChart, inTime } from './figures'

const field = (name: string, type = 'text', more = {}) =>
  ({ name, label: name, type, languages: [], ...more }) as unknown as FieldView
const object = (fields: FieldView[], more = {}) =>
  ({ name: 'Stay', fields, layout: { columns: [] }, ...more }) as unknown as ObjectView

describe('the columns of a list', () => {
  const fields = [field('code'), field('note', 'text', { multiline: true }), field('size'), field('state')]

  it('are those that were chosen, as far as there are any', () => {
    expect(columnsOf(object(fields), 'size,code')).toEqual(['size', 'code'])
    expect(columnsOf(object(fields), 'size,gone')).toEqual(['size'])
    expect(columnsOf(object(fields), 'gone')).toEqual(['code', 'size', 'state'])
  })

  it('are those of the layout before any others', () => {
    expect(columnsOf(object(fields, { layout: { columns: ['note', 'gone'] } }), undefined)).toEqual(['note'])
  })

  it('begin with the state beside what names a record', () => {
    expect(columnsOf(object(fields, { lifecycle: { field: 'state' } }), undefined)).toEqual([
      'code',
      'state',
      'size',
    ])
  })

  it('are not more than fit', () => {
    const many = Array.from({ length: 20 }, (_, at) => field(`f${at}`))
    expect(columnsOf(object(many), undefined)).toHaveLength(8)
    expect(columnsOf(object([]), undefined)).toEqual([])
  })
})

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
