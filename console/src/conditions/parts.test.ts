import { describe, expect, it } from 'vitest'
import {
  asGroup,
  conditionOf,
  draftOf,
  isFinished,
  missingIn,
  newComparison,
  newGroup,
  newItems,
} from './parts'

describe('a condition that is put together', () => {
  it('is sent as it was read', () => {
    const read = {
      kind: 'GROUP' as const,
      all: false,
      negated: true,
      parts: [
        {
          kind: 'COMPARISON' as const,
          of: { kind: 'FIELD' as const, text: 'code' },
          relation: 'FILLED' as const,
          values: [],
        },
        { kind: 'TEXT' as const, text: 'a instance of number' },
      ],
    }
    expect(conditionOf(draftOf(read))).toEqual(read)
  })

  it('says what is missing, and is finished when nothing is', () => {
    const one = newComparison()
    expect(missingIn(one)).toBe('Choose a field.')
    one.of = { kind: 'FIELD', text: 'size' }
    expect(missingIn(one)).toBe('Give a value.')
    one.relation = 'BETWEEN'
    one.values = [{ kind: 'VALUE', type: 'NUMBER', text: '1' }]
    expect(missingIn(one)).toBe('Give both values.')
    one.relation = 'EMPTY'
    one.values = []
    expect(isFinished(newGroup(true, [one]))).toBe(true)
    expect(isFinished(newGroup(true, [one, newGroup()]))).toBe(false)
    expect(isFinished(newItems('lines', 'line'))).toBe(false)
  })

  it('takes a group that is meant the other way into one that things can be added to', () => {
    const none = { ...newGroup(), negated: true }
    expect(asGroup(none).parts).toEqual([none])
  })
})
