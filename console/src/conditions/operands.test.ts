import { describe, expect, it } from 'vitest'
import type { FieldView, ObjectView } from '@/api/client'
import {
  choicesIn,
  familyOf,
  firstRelation,
  itemName,
  listsIn,
  relationsFor,
  shifted,
  type Choice,
} from './operands'

const field = (name: string, type: string, to?: string) =>
  ({ name, label: name.toUpperCase(), type, to, choices: [], languages: [] }) as unknown as FieldView
const job = {
  name: 'Job',
  label: 'Job',
  fields: [field('code', 'text'), field('after', 'reference', 'Job'), field('urgent', 'boolean')],
  parts: [{ name: 'lines', label: 'Lines', fields: [field('cost', 'decimal'), field('what', 'text')] }],
  inverses: [{ name: 'followers', object: 'Job', plural: 'Jobs', field: 'after' }],
} as unknown as ObjectView
const scope = { objects: [job], object: job }

describe('what a condition can be about', () => {
  it('follows references, also to the same object, and ends', () => {
    const paths = choicesIn(scope).map((one) => one.value)
    expect(paths).toContain('after.after.code')
    expect(paths).not.toContain('after.after.after.code')
  })

  it('has totals of line items and of records that refer', () => {
    const values = choicesIn(scope).map((one) => one.value)
    expect(values).toContain('SUM lines.cost')
    expect(values).toContain('COUNT followers')
    expect(values).not.toContain('SUM lines.what')
  })

  it('names the record beside its line items with header, and the one that looks with this', () => {
    expect(choicesIn({ ...scope, part: 'lines' }).map((one) => one.value)).toContain('header.code')
    expect(choicesIn({ ...scope, target: job }).map((one) => one.value)).toContain('this.code')
    expect(listsIn({ ...scope, part: 'lines' })).toEqual([])
  })

  it('names an item so that no field is hidden', () => {
    expect(itemName('lines', scope)).toBe('line')
    expect(itemName('codes', scope)).toBe('one')
  })

  it('offers relations by type and keeps one that is there', () => {
    const urgent = choicesIn(scope).find((one) => one.value === 'urgent')
    expect(firstRelation(urgent)).toBe('HOLDS')
    expect(relationsFor(urgent, 'MATCHES')[0].value).toBe('MATCHES')
    const moment = { ...urgent!, field: field('day', 'date') }
    expect(relationsFor(moment, 'LESS').find((one) => one.value === 'LESS')?.label).toBe('is before')
  })
})

describe('a percent', () => {
  it.each([
    ['19', '0.19'],
    ['0.5', '0.005'],
    ['150', '1.5'],
    ['-7.25', '-0.0725'],
    ['0', '0'],
  ])('%s is %s in a condition and back', (shown, meant) => {
    expect(shifted(shown, -2)).toBe(meant)
    expect(shifted(meant, 2)).toBe(shown)
  })
})

describe('codes of an outside service', () => {
  it('are compared as the texts they are', () => {
    const field = { name: 'gauge', label: 'Gauge', type: 'choice', lookup: 'tides.gauges', choices: [] }
    const choice = {
      value: 'gauge',
      label: 'Gauge',
      full: 'Gauge',
      field,
      operand: { kind: 'FIELD', text: 'gauge' },
    }
    expect(familyOf(choice as unknown as Choice)).toBe('text')
    expect(familyOf({ ...choice, field: { ...field, lookup: undefined } } as unknown as Choice)).toBe(
      'choice',
    )
  })
})
