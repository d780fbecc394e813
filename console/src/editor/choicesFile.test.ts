import { describe, expect, it } from 'vitest'
import { choicesName, newChoices, readChoices, writeChoices, wrongChoices } from './choicesFile'

describe('a choice list', () => {
  const LIST =
    '# of craft\nchoices: Kind\nlabel: Kind of craft\ncodes:\n  sail: Sailing yacht\n  work: { en: Workboat, de: Arbeitsboot }\n'

  it('is read and written with comments, order and labels in languages', () => {
    expect(readChoices(LIST)).toEqual([
      { code: 'sail', label: 'Sailing yacht', labels: {} },
      { code: 'work', label: 'Workboat', labels: { de: 'Arbeitsboot' } },
    ])
    const text = writeChoices(LIST, [
      { code: 'work', label: 'Workboat', labels: { de: 'Arbeitsboot' } },
      { code: 'sail', label: 'Sail', labels: {} },
      { code: 'row', label: '', labels: {} },
    ])
    expect(text).toContain('# of craft')
    expect(text).toContain('work: { en: Workboat, de: Arbeitsboot }')
    expect(text.indexOf('work')).toBeLessThan(text.indexOf('sail: Sail'))
    expect(text).toContain('row: row')
  })

  it('may be a plain list of codes, or none yet', () => {
    expect(readChoices('choices: A\ncodes: [low, high]\n')).toEqual([
      { code: 'low', label: '', labels: {} },
      { code: 'high', label: '', labels: {} },
    ])
    expect(readChoices('choices: A\ncodes:\n')).toEqual([])
    const made = newChoices('Season', [{ code: 'high', label: 'High season', labels: {} }])
    expect(choicesName(made)).toBe('Season')
    expect(made).toContain('codes:\n  high: High season')
  })

  it('says what is wrong with rows', () => {
    expect(wrongChoices([])).toContain('at least one')
    expect(
      wrongChoices([
        { code: 'a', label: '', labels: {} },
        { code: 'a', label: 'x', labels: {} },
      ]),
    ).toContain('twice')
    expect(wrongChoices([{ code: ' ', label: 'x', labels: {} }])).toContain('needs a code')
    expect(wrongChoices([{ code: 'a', label: '', labels: {} }])).toBe('')
  })
})
