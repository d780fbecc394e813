import { describe, expect, it } from 'vitest'
import { setLabel } from './labels'
import { readFacts, setFact, setObjectLabel } from './objectFacts'
import {
  objectName,
  addField,
  addFields,
  lineOf,
  moveField,
  readFields,
  removeField,
  renameField,
  setOnField,
  toggleKey,
} from './objectFile'
import { addPart, removePart, renamePart, partNames } from './partFile'

const PIER = `# The piers of the marina
object: Pier
key: code
fields:
  code: { type: text, length: 4, required: true } # painted on the lamp
  open: { type: boolean, default: true }
  depth: { type: decimal, scale: 1 }
`

describe('an object file', () => {
  it('shows its fields as rows', () => {
    expect(readFields(PIER, ['fields'])).toMatchObject([
      { name: 'code', type: 'text', length: 4, required: true, key: true },
      { name: 'open', type: 'boolean', default: 'true', required: false, key: false },
      { name: 'depth', type: 'decimal', scale: 1 },
    ])
  })

  it('keeps comments and everything else when one thing changes', () => {
    const changed = setLabel(PIER, ['fields', 'depth', 'label'], 'en', 'Water depth', 'en')

    expect(changed).toContain('# The piers of the marina')
    expect(changed).toContain('# painted on the lamp')
    expect(changed.replace(', label: Water depth', '')).toBe(PIER)
  })

  it('takes a thing away when it is no longer said', () => {
    expect(setOnField(PIER, ['fields'], 'code', 'required', false)).not.toContain('required')
  })

  it('drops details that the new type does not have', () => {
    const changed = setOnField(PIER, ['fields'], 'depth', 'type', 'date')

    expect(readFields(changed, ['fields'])?.[2]).toMatchObject({ type: 'date', scale: undefined })
  })

  it('writes codes as a list and a name as a choice list', () => {
    const codes = setOnField(PIER, ['fields'], 'depth', 'choices', 'low, high')
    const list = setOnField(PIER, ['fields'], 'depth', 'choices', 'Season')

    expect(codes).toContain('choices: [low, high]')
    expect(list).toContain('choices: Season')
  })

  it('remembers the former name of a released field, and follows it in the key', () => {
    const renamed = renameField(PIER, ['fields'], 'code', 'letter', ['code', 'open'])

    expect(renamed).toContain('was: code')
    expect(renamed).toContain('key: letter')
  })

  it('forgets the former name when a field gets it back', () => {
    const there = renameField(PIER, ['fields'], 'open', 'free', ['open'])
    const back = renameField(there, ['fields'], 'free', 'open', ['open'])

    expect(back).toBe(PIER)
  })

  it('does not remember the name of a field that was never released', () => {
    expect(renameField(PIER, ['fields'], 'depth', 'water', ['code'])).not.toContain('was')
  })

  it('adds a field under a name that is free', () => {
    const once = addField(PIER, ['fields'])
    const twice = addField(once.text, ['fields'])

    expect([once.name, twice.name]).toEqual(['newField', 'newField2'])
  })

  it('moves fields and stops at both ends', () => {
    const names = (text: string) => readFields(text, ['fields'])?.map((field) => field.name)

    expect(names(moveField(PIER, ['fields'], 'open', -1))).toEqual(['open', 'code', 'depth'])
    expect(names(moveField(PIER, ['fields'], 'code', -1))).toEqual(['code', 'open', 'depth'])
    expect(names(moveField(PIER, ['fields'], 'depth', 1))).toEqual(['code', 'open', 'depth'])
  })

  it('takes a removed field out of the key', () => {
    expect(removeField(PIER, ['fields'], 'code')).not.toContain('key:')
  })

  it('makes a key of two fields and back', () => {
    const both = toggleKey(PIER, 'open')

    expect(both).toContain('key: [code, open]')
    expect(toggleKey(both, 'open')).toBe(PIER)
  })

  it('has no rows while the text is not YAML', () => {
    expect(readFields('fields: {{', ['fields'])).toBeUndefined()
  })
})

describe('the line of a name', () => {
  it('is found for what a request ran', () => {
    const text = 'object: Stay\nfunctions:\n  checkIn:\n    body: x\nchecks:\n  - name: inTime\n'

    expect(lineOf(text, 'checkIn')).toBe(3)
    expect(lineOf(text, 'inTime')).toBe(6)
    expect(lineOf(text, 'check')).toBeUndefined()
  })
})

describe('line items, facts and many fields at once', () => {
  const BARE = 'object: Order\nkey: code\nfields:\n  code: { type: text }\n'

  it('come, are renamed with their values, and go', () => {
    const one = addPart(BARE)
    expect(one.name).toBe('lines')
    expect(one.text).toContain(
      'parts:\n  lines:\n    fields:\n      description: { type: text, length: 200 }',
    )
    expect(addPart(one.text).name).toBe('lines2')
    const renamed = renamePart(one.text, 'lines', 'positions', ['lines'])
    expect(partNames(renamed)).toEqual(['positions'])
    expect(renamed).toContain('was: lines')
    expect(renamePart(renamed, 'positions', 'lines', ['lines'])).not.toContain('was')
    expect(removePart(one.text, 'lines')).toBe(BARE)
  })

  it('say what the object is, before its fields', () => {
    let text = setObjectLabel(BARE, 'label', 'en', 'Purchase order', 'en')
    text = setFact(text, 'removal', 'retire refuse')
    text = setFact(text, 'numberingField', 'code')
    expect(text.indexOf('label')).toBeLessThan(text.indexOf('fields'))
    expect(readFacts(text)).toMatchObject({
      labels: { en: 'Purchase order' },
      removal: 'retire refuse',
      numberingField: 'code',
      numberingPattern: 'N-{sequence:6}',
    })
    text = setFact(setFact(text, 'removal', 'retire'), 'numberingField', undefined)
    expect(text).not.toContain('removal')
    expect(text).not.toContain('numbering')
  })

  it('never take a name twice', () => {
    const text = addFields(
      BARE,
      ['fields'],
      [{ name: 'code' }, { name: 'size', type: 'integer' }, { name: 'size' }],
    )
    expect(readFields(text, ['fields'])!.map((row) => row.name)).toEqual(['code', 'code2', 'size', 'size2'])
    expect(addFields('object: A\nfields:\n', ['fields'], [{ name: 'a' }])).toContain('a: { type: text }')
  })

  it('is none when a view says of which object it is', () => {
    expect(objectName('view: Open jobs\nobject: Job\n')).toBeUndefined()
    expect(objectName('object: Job\n')).toBe('Job')
  })
})

describe('a choice whose codes come from outside', () => {
  const text = 'object: Voyage\nfields:\n  gauge: { type: choice, choices: [high, low] }\n'

  it('names the lookup instead of a list, and a list instead of the lookup', () => {
    const outside = setOnField(text, ['fields'], 'gauge', 'choices', 'tide-table.gauges')
    expect(outside).toContain('{ type: choice, from: tide-table.gauges }')
    expect(readFields(outside, ['fields'])![0].choices).toBe('tide-table.gauges')
    expect(setOnField(outside, ['fields'], 'gauge', 'choices', 'high, low')).toBe(text)
  })

  it('loses it when the field becomes of another type', () => {
    const outside = setOnField(text, ['fields'], 'gauge', 'choices', 'tide-table.gauges')
    expect(setOnField(outside, ['fields'], 'gauge', 'type', 'text')).toContain('{ type: text }')
  })
})
