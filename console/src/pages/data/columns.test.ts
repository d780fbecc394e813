import { describe, expect, it } from 'vitest'
import type { FieldView, ObjectView } from '@/api/client'
import { columnsOf } from './columns'

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
