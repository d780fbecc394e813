import { describe, expect, it } from 'vitest'
import { languagesOf } from '@/composables/languages'
import { readChoices, writeChoices } from './choicesFile'
import { readFields, setFieldLabel, setOnField } from './objectFile'

describe('labels by language', () => {
  const text = 'object: Job\nfields:\n  code: { type: text, label: Number }\n'

  it('become a map when a second language is said, and a text again without it', () => {
    const both = setFieldLabel(text, ['fields'], 'code', 'de', 'Nummer', 'en')
    expect(both).toContain('label: { en: Number, de: Nummer }')
    expect(readFields(both, ['fields'])![0]).toMatchObject({
      label: 'Number',
      labels: { en: 'Number', de: 'Nummer' },
    })
    const changed = setOnField(both, ['fields'], 'code', 'label', 'No.')
    expect(changed).toContain('label: { en: No., de: Nummer }')
    expect(setFieldLabel(both, ['fields'], 'code', 'de', '', 'en')).toBe(text)
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
