import { describe, expect, it } from 'vitest'
import type { FieldView, ObjectView } from '@/api/client'
import { addressOf, type RecordView } from '@/api/records'
import { sectionsOf, sideLists } from './formLayout'

const field = (name: string, more: Partial<FieldView> = {}) =>
  ({ name, label: name, type: 'text', multiline: false, languages: [], choices: [], ...more }) as FieldView
const spot = {
  name: 'Spot',
  plural: 'Spots',
  key: ['area', 'place'],
  fields: [field('area'), field('place'), field('inside', { type: 'reference', to: 'Spot' }), field('note')],
  parts: [],
  inverses: [{ object: 'Spot', plural: 'Spots', field: 'inside' }],
  layout: {
    sections: [{ heading: 'Where', fields: ['area', 'place', 'gone'] }, { fields: ['inside', 'note'] }],
    wide: [],
    details: {},
    columns: ['note'],
  },
} as unknown as ObjectView
const record = { id: 'x-1', values: { area: 'A,B', place: 1 } } as unknown as RecordView

describe('the form of a record', () => {
  it('has its sections, without what is hidden or not seen', () => {
    expect(
      sectionsOf(spot, (one) => one.name === 'note').map((one) => one.fields.map((f) => f.name)),
    ).toEqual([['area', 'place'], ['inside']])
  })

  it('has a list for each reference to it, found by a key of several fields', () => {
    const [list] = sideLists(spot, [spot], record)
    expect(list.filter).toBe('inside = "A\\\\,B,1"')
    expect(list.columns.map((one) => one.name)).toEqual(['area', 'place'])
  })

  it('has those that are wanted, told apart when they are of one object', () => {
    const side = [
      { object: 'Spot', field: 'inside', columns: ['note'] },
      { object: 'Gone', field: 'inside', columns: [] },
    ]
    const laid = { ...spot, layout: { ...spot.layout, side } }
    expect(sideLists(laid, [spot], record)).toMatchObject([{ label: 'Spots', columns: [{ name: 'note' }] }])
    expect(sideLists({ ...spot, layout: { ...spot.layout, side: [] } }, [spot], record)).toEqual([])
  })
})

describe('an address', () => {
  it('is the key of one or several fields, or the id of what has none', () => {
    expect(addressOf(['place'], record)).toBe('1')
    expect(addressOf(['area', 'place'], record)).toBe('A\\,B,1')
    expect(addressOf([], record)).toBe('x-1')
  })
})
