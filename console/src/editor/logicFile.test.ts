import { describe, expect, it } from 'vitest'
import { feelToken, fromPoints, toPoints } from './feel'
import {
  addCheck,
  addLifecycle,
  addRule,
  readChecks,
  readLifecycle,
  readLogic,
  readRules,
  removeAt,
  renameAt,
  setAt,
  setFieldLogic,
} from './logicFile'

const STAY = `object: Stay
fields:
  # how long
  nights: { type: integer, formula: departure - arrival }
  departure: { type: date }
parts:
  charges:
    fields:
      net: { type: amount }
checks:
  - that: departure > arrival
    say: Too early.
    at: departure
    before: [confirm, checkIn]
rules:
  longStay:
    on: change of nights
    then: set approvalRequired = true
`

describe('logic in an object file', () => {
  it('reads the logic of fields, those of parts as well', () => {
    expect(readLogic(STAY).map((row) => [row.part, row.name, row.formula])).toEqual([
      [undefined, 'nights', 'departure - arrival'],
      [undefined, 'departure', undefined],
      ['charges', 'net', undefined],
    ])
  })

  it('keeps what people are told beside a condition', () => {
    const said = STAY.replace(
      'departure: { type: date }',
      'departure: { type: date, readOnlyWhen: { that: paid, say: It is paid. } }',
    )
    const row = readLogic(said)[1]
    expect(row.readOnlyWhen).toBe('paid')
    const text = setFieldLogic(said, row, 'readOnlyWhen', 'paid or old')
    expect(text).toContain('that: paid or old')
    expect(text).toContain('say: It is paid.')
    expect(setFieldLogic(text, row, 'readOnlyWhen', '')).not.toContain('It is paid.')
  })

  it('sets a formula and keeps comments', () => {
    const row = readLogic(STAY)[2]
    const text = setFieldLogic(STAY, row, 'formula', 'quantity * unitPrice')
    expect(text).toContain('# how long')
    expect(text).toContain('formula: quantity * unitPrice')
    expect(setFieldLogic(text, row, 'formula', '')).not.toContain('quantity * unitPrice')
  })

  it('reads, adds and removes checks', () => {
    expect(readChecks(STAY)[0]).toMatchObject({ that: 'departure > arrival', before: 'confirm, checkIn' })
    const more = addCheck(STAY)
    expect(readChecks(more)).toHaveLength(2)
    expect(readChecks(removeAt(more, ['checks', 0]))).toHaveLength(1)
  })

  it('writes steps of several lines as a block', () => {
    const text = setAt(STAY, ['rules', 'longStay', 'then'], 'set a = 1\nset b = 2')
    expect(text).toContain('then: |\n')
    expect(readRules(text)[0].then).toBe('set a = 1\nset b = 2')
  })

  it('gives a new rule a name that is free, and renames one in its place', () => {
    const once = addRule(STAY)
    expect(addRule(once.text).name).toBe('newRule2')
    const renamed = renameAt(once.text, ['rules'], 'longStay', 'tooLong')
    expect(readRules(renamed).map((rule) => rule.name)).toEqual(['tooLong', 'newRule'])
  })

  it('begins a lifecycle', () => {
    expect(readLifecycle(STAY)).toBeUndefined()
    expect(readLifecycle(addLifecycle(STAY))).toMatchObject({ initial: 'Open', states: ['Open', 'Closed'] })
  })
})

describe('the editor', () => {
  it('counts as the service does where characters take two places', () => {
    expect(toPoints('⛵🚢x', 3)).toBe(2)
    expect(fromPoints('⛵🚢x', 2)).toBe(3)
  })

  it('tells words, names and calls apart', () => {
    const kinds: (string | null)[] = []
    let text = 'if sum(a) > 1'
    while (text) {
      const stream = streamOf(text)
      kinds.push(feelToken(stream))
      text = stream.rest()
    }
    expect(kinds.filter(Boolean)).toEqual([
      'keyword',
      'variableName.function',
      'operator',
      'variableName',
      'operator',
      'operator',
      'number',
    ])
  })
})

/** As much of the editor's stream as the tokens need. */
function streamOf(text: string) {
  let at = 0
  return {
    rest: () => text.slice(at),
    eatSpace: () => {
      const space = /^\s+/.exec(text.slice(at))
      if (space) at += space[0].length
      return !!space
    },
    match: (pattern: RegExp | string, consume = true) => {
      const rest = text.slice(at)
      const found =
        typeof pattern === 'string' ? (rest.startsWith(pattern) ? [pattern] : null) : pattern.exec(rest)
      if (found && consume) at += found[0].length
      return found
    },
    next: () => text[at++],
    skipToEnd: () => {
      at = text.length
    },
  } as never as Parameters<typeof feelToken>[0] & { rest(): string }
}

describe('the first of each on an object that has none', () => {
  const BARE = 'object: Buoy\nkey: code\nfields:\n  code: { type: text }\n'

  it('becomes a list or a map as the file wants it', () => {
    expect(addCheck(BARE)).toContain('checks:\n  - name: check1')
    expect(addCheck(addCheck(BARE))).toContain('  - name: check2')
    expect(addRule(BARE).text).toContain('rules:\n  newRule:')
  })

  it('takes the place of what was left empty', () => {
    expect(addCheck(`${BARE}checks:\n`)).toContain('checks:\n  - name: check1')
    expect(addCheck(`${BARE}checks: {}\n`)).toContain('- name: check1')
    expect(addRule(`${BARE}rules:\n`).text).toContain('newRule:')
    expect(addLifecycle(`${BARE}lifecycle:\n`)).toContain('initial: Open')
  })
})
