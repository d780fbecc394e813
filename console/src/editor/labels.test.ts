import { describe, expect, it } from 'vitest'
import { languagesOf } from '@/composables/languages'
import { readChoices, writeChoices } from './choicesFile'
import { setLabel } from './labels'
import { readFacts, setObjectLabel } from './objectFacts'
import { readFields } from './objectFile'
import { partLabels } from './partFile'

describe('labels by language', () => {
  const text = 'object: Job\nfields:\n  code: { type: text, label: Number }\n'

  it('become a map when a second language is said, and a text again without it', () => {
    const both = setLabel(text, ['fields', 'code', 'label'], 'de', 'Nummer', 'en')
    expect(both).toContain('label: { en: Number, de: Nummer }')
    expect(readFields(both, ['fields'])![0]).toMatchObject({
      label: 'Number',
      labels: { en: 'Number', de: 'Nummer' },
    })
    const changed = setLabel(both, ['fields', 'code', 'label'], 'en', 'No. ', 'en')
    expect(changed).toContain('label: { en: "No. ", de: Nummer }')
    expect(setLabel(both, ['fields', 'code', 'label'], 'de', '', 'en')).toBe(text)
  })

  it('are in the main language when they are one text, whichever language that is', () => {
    const german =
      'object: Job\nfields:\n  a: { type: text, label: Nummer }\n  b: { type: text, label: { en: Size, de: Maß } }\n'
    const [a, b] = readFields(german, ['fields'], 'de')!
    expect([a.label, a.labels.en]).toEqual(['Nummer', undefined])
    expect([b.label, b.labels.en]).toEqual(['Maß', 'Size'])
    expect(readChoices('choices: A\ncodes:\n  x: { en: One, de: Eins }\n', 'de')).toEqual([
      { code: 'x', label: 'Eins', labels: { en: 'One' } },
    ])
  })

  it('of line items and of the object keep what is said in other languages', () => {
    const parts =
      'object: Job\nfields: {}\nparts:\n  lines:\n    label: { en: Lines, de: Zeilen }\n    fields: {}\n'
    const changed = setLabel(parts, ['parts', 'lines', 'label'], 'en', 'Rows', 'en')
    expect(partLabels(changed, 'lines', 'en')).toEqual({ en: 'Rows', de: 'Zeilen' })
    const named = setObjectLabel(
      setObjectLabel(text, 'label', 'de', 'Auftrag', 'en'),
      'label',
      'en',
      'Job',
      'en',
    )
    expect(named).toMatch(/^object: Job\nlabel: \{ en: Job, de: Auftrag \}\nfields:/)
    expect(readFacts(named).labels).toEqual({ en: 'Job', de: 'Auftrag' })
    expect(setObjectLabel(text, 'label', 'en', '', 'en')).toBe(text)
  })

  it('of a choice list are a column for each language', () => {
    const list = 'choices: Urgency\ncodes:\n  low: { en: Can wait, de: Hat Zeit }\n  high: High\n'
    const rows = readChoices(list)
    expect(rows[0]).toMatchObject({ code: 'low', label: 'Can wait', labels: { de: 'Hat Zeit' } })
    rows[1].labels = { de: 'Hoch' }
    const written = writeChoices(list, rows, 'en')
    expect(written).toContain('high: { en: High, de: Hoch }')
    expect(readChoices(written)[0].labels.de).toBe('Hat Zeit')
  })

  it('are in the languages of the package', () => {
    const files = [{ path: 'a/package.yaml', text: 'package: a\nlanguages: [de, en]\n' }]
    const draft = { files, diagnostics: [], sealed: [] } as never
    expect(languagesOf(draft, 'a/objects/x.yaml')).toEqual(['de', 'en'])
    expect(languagesOf(draft, 'b/objects/x.yaml')).toEqual(['en'])
  })
})
