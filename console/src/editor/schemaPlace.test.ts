import { describe, expect, it } from 'vitest'
import object from '../../../docs/schemas/object.json'
import { placeAt, proposalsAt, type Schema } from './schemaPlace'

const schema = object as unknown as Schema

/** What is proposed at the bar in a text. */
function proposed(text: string): string[] {
  const at = text.indexOf('|')
  return proposalsAt(schema, placeAt(text.replace('|', ''), at)).map((one) => one.label)
}

describe('what can stand in a definition file', () => {
  it('is the keys of the file at its outermost', () => {
    expect(proposed('object: Buoy\n|')).toEqual(expect.arrayContaining(['key', 'fields', 'checks']))
    expect(proposed('object: Buoy\n|')).not.toContain('object')
    expect(proposed('obj|')).toContain('object')
  })

  it('is the keys of a field in both ways of writing', () => {
    expect(proposed('fields:\n  code:\n    |')).toEqual(expect.arrayContaining(['type', 'length']))
    const flow = proposed('fields:\n  code: { type: text, | }')
    expect(flow).toContain('length')
    expect(flow).not.toContain('type')
  })

  it('is the values a key may have', () => {
    expect(proposed('fields:\n  code: { type: | }')).toContain('reference')
    expect(proposed('fields:\n  code:\n    type: re|')).toContain('reference')
    expect(proposed('fields:\n  code:\n    required: |')).toEqual(['true', 'false'])
  })

  it('is found within lists and line items', () => {
    expect(proposed('checks:\n  - |')).toEqual(expect.arrayContaining(['that', 'say']))
    const second = proposed('checks:\n  - that: a > 1\n    |')
    expect(second).toContain('say')
    expect(second).not.toContain('that')
    expect(proposed('parts:\n  lines:\n    fields:\n      size: { | }')).toContain('scale')
    expect(proposed('checks:\n  - { that: a, | }')).toContain('say')
  })

  it('is nothing where everything may stand', () => {
    expect(proposed('label: |')).toEqual([])
    expect(proposed('nonsense:\n  deeper:\n    |')).toEqual([])
    expect(proposed('fields:\n  code: { type: "te|')).toEqual([])
  })
})
