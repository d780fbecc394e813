import { describe, expect, it } from 'vitest'
import { put, read, write } from './yamlFile'

const TEXT = `# A part.
object: Part
key: [maker, number]   # both
fields:
  maker:  { type: text, length: 9 }
  kind: { type: choice, choices: [a, b] }
checks:
  - { name: light, say: "[ {kind} ] is too heavy", at: [kind] }
`

function changed(text: string, path: (string | number)[], value: unknown) {
  const document = read(text)
  put(document, path, value)
  return write(document)
}

describe('a file that is written again', () => {
  it('is the same where nothing was changed', () => {
    expect(write(read(TEXT))).toBe(TEXT)
  })

  it('has one other line where one thing was', () => {
    expect(changed(TEXT, ['fields', 'kind', 'choices'], ['a', 'c'])).toBe(TEXT.replace('[a, b]', '[a, c]'))
  })

  it('keeps its lists loose where they are', () => {
    const loose = 'object: Part\nkey: [ maker, number ]\nlabel: Part\n'
    expect(changed(loose, ['label'], 'Piece')).toBe(loose.replace('label: Part', 'label: Piece'))
  })

  it('never takes the space out of a text', () => {
    const text = 'object: Part\nkey: [maker]\nsay: "[ a ]"\n'
    expect(changed(text, ['say'], '[a]')).toContain('say: "[a]"')
    expect(changed(text, ['say'], '[ b ]')).toContain('[ b ]')
    expect(changed(text, ['label'], 'Part')).toContain('say: "[ a ]"')
  })

  it('opens what was empty at its top, for what comes into it', () => {
    expect(changed('service: a\nresources: {}\n', ['resources', 'jobs', 'object'], 'Job')).toBe(
      'service: a\nresources:\n  jobs:\n    object: Job\n',
    )
    expect(write(read('service: a\nresources: {}\n'))).toBe('service: a\nresources: {}\n')
  })
})
