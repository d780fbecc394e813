import { describe, expect, it } from 'vitest'
import {
  addReaction,
  readFunctions,
  readHandlers,
  readSchedules,
  setParameter,
  typeNode,
} from './reactionFile'

const TEXT = `object: Stay
functions:
  checkIn:
    external: true
    parameters:
      meter: decimal
      tariff: { type: reference, to: Tariff, required: true }
      lines: { type: context, list: true, fields: { count: integer } }
    returns: text
    body: |
      take confirm
      return "Welcome"
  quote: { on: object, rights: own, returns: { type: amount, list: true }, body: return quotes }
handlers:
  lookOver: { on: [StayEnded, StayBegan], run: with, when: event.nights > 7, then: note "x" }
schedules:
  early: { on: 7 days before departure, at: "06:30", missed: skip, then: note "x" }
`

describe('functions, handlers and schedules of a file', () => {
  it('shows what each function is called with and gives back', () => {
    const [checkIn, quote] = readFunctions(TEXT)

    expect(checkIn.parameters.map((one) => [one.name, one.type, one.required, one.isPlain])).toEqual([
      ['meter', 'decimal', false, true],
      ['tariff', 'reference to Tariff', true, true],
      ['lines', 'list of context', false, false],
    ])
    expect(checkIn.body).toBe('take confirm\nreturn "Welcome"')
    expect([checkIn.isOnRecord, checkIn.isExternal, checkIn.hasOwnRights]).toEqual([true, true, false])
    expect([quote.isOnRecord, quote.hasOwnRights, quote.returns, quote.isReturnPlain]).toEqual([
      false,
      true,
      'list of amount',
      false,
    ])
  })

  it('writes a type as short as it can be', () => {
    expect(typeNode('decimal', false)).toBe('decimal')
    expect(typeNode('decimal', true)).toEqual({ type: 'decimal', required: true })
    expect(typeNode('reference to Tariff', false)).toEqual({ type: 'reference', to: 'Tariff' })
  })

  it('changes the type of a parameter and keeps what else is said of it', () => {
    const described = TEXT.replace('meter: decimal', 'meter: { type: decimal, describe: Shown on the post }')

    const changed = setParameter(described, 'checkIn', 'meter', 'integer', true)

    expect(changed).toContain('meter: { type: integer, describe: Shown on the post, required: true }')
    expect(setParameter(TEXT, 'checkIn', 'meter', 'integer', false)).toContain('meter: integer')
  })

  it('shows what handlers hear and when schedules are due', () => {
    expect(readHandlers(TEXT)[0]).toMatchObject({
      on: 'StayEnded, StayBegan',
      isWithin: true,
      when: 'event.nights > 7',
    })
    expect(readSchedules(TEXT)[0]).toMatchObject({ on: '7 days before departure', at: '06:30', skips: true })
  })

  it('adds one under a name that is free and keeps the rest', () => {
    const twice = addReaction(addReaction(TEXT, 'handlers', 'Stay'), 'handlers', 'Stay')

    expect(readHandlers(twice).map((one) => one.name)).toEqual(['lookOver', 'newHandler', 'newHandler2'])
    expect(readFunctions(twice)).toEqual(readFunctions(TEXT))
  })
})
