import { describe, expect, it } from 'vitest'
import {
  addRequirement,
  newExample,
  nextId,
  readRequirements,
  removeExample,
  setExample,
  setGiven,
  setRequirementText,
} from './requirementFile'

const TEXT = `# what was asked for
given:
  - create: Owner
    values: { code: OW-1 }
requirements:
  R-01:
    text: It ends after it begins.
    examples:
      backwards:
        when: { create: Stay, values: { arrival: 2026-07-04, lines: [{ tariff: ENV }] } }
        then: { refused: must be after, at: departure }
`

describe('a file of requirements', () => {
  it('is read with actions of every form', () => {
    const file = readRequirements(TEXT)!
    expect(file.given).toEqual([{ kind: 'create', target: 'Owner', values: { code: 'OW-1' } }])
    const [example] = file.requirements[0].examples
    expect(example.when[0].values).toEqual({ arrival: '2026-07-04', lines: [{ tariff: 'ENV' }] })
    expect(example.then).toEqual({ refused: 'must be after', at: 'departure' })
  })

  it('gets an example, and what stood there stays', () => {
    const example = newExample(['backwards', 'example'], 'Stay')
    expect(example.name).toBe('example2')
    const written = setExample(TEXT, 'R-01', {
      ...example,
      when: [
        { kind: 'create', target: 'Stay', as: 'one', values: { nights: 3 } },
        { kind: 'transition', target: 'confirm', of: 'one', values: {} },
      ],
      then: { values: { state: 'Confirmed' }, warns: '' },
    })
    expect(written).toContain('# what was asked for')
    expect(written).toContain('- { create: Stay, as: one, values: { nights: 3 } }')
    expect(written).toContain('- { transition: confirm, of: one }')
    expect(written).toContain('then: { values: { state: Confirmed } }')
    expect(readRequirements(written)!.requirements[0].examples).toHaveLength(2)
    expect(removeExample(written, 'R-01', 'example2')).toContain('backwards')
    expect(removeExample(TEXT, 'R-01', 'backwards')).not.toContain('examples')
  })

  it('begins with nothing', () => {
    let text = addRequirement('', 'R-1')
    text = setRequirementText(text, 'R-1', 'A name: is needed')
    text = setGiven(text, [{ kind: 'create', target: 'Job', values: { code: 'a' } }])
    expect(text.startsWith('given:')).toBe(true)
    expect(readRequirements(text)!.requirements).toEqual([
      { id: 'R-1', text: 'A name: is needed', examples: [] },
    ])
    expect(setGiven(text, [])).not.toContain('given')
  })

  it('numbers as those before are numbered', () => {
    expect(nextId(['R-01', 'R-02'])).toBe('R-03')
    expect(nextId([])).toBe('R-1')
    expect(nextId(['first'])).toBe('R-1')
  })
})
