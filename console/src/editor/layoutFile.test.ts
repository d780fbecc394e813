import { describe, expect, it } from 'vitest'
import { moveTo, readLayout, shiftField, whereIs, writeLayout } from './layoutFile'

const TEXT = `object: Job # the work
key: code
fields:
  code: { type: text }
  title: { type: text }
  note: { type: text }
form:
  sections:
    - heading: What
      fields: code, title
  leaveOut: note
checks: []
`

describe('the layout of a file', () => {
  it('is read whether fields stand in a list or with commas', () => {
    expect(readLayout(TEXT)).toMatchObject({
      sections: [{ heading: 'What', fields: ['code', 'title'] }],
      leaveOut: ['note'],
      side: undefined,
    })
  })

  it('is written into the text, and all else stays', () => {
    const layout = readLayout(TEXT)!
    const written = writeLayout(TEXT, {
      ...layout,
      leaveOut: [],
      side: [],
      details: { title: ['a', 'b'] },
      columns: ['code'],
      sort: '-code',
    })
    expect(written).toContain('object: Job # the work')
    expect(written).toContain('    - heading: What\n      fields: [code, title]')
    expect(written).toContain('  side: []')
    expect(written).toContain('    title: [a, b]')
    expect(written).toContain('list:\n  columns: [code]\n  sort: -code')
    expect(written).not.toContain('leaveOut')
    expect(readLayout(written)).toMatchObject({ side: [], details: { title: ['a', 'b'] }, sort: '-code' })
  })

  it('leaves nothing behind when nothing is laid out', () => {
    const bare = writeLayout(TEXT, { sections: [], wide: [], leaveOut: [], details: {}, columns: [] })
    expect(bare).not.toContain('form:')
    expect(bare).not.toContain('list:')
    expect(writeLayout('object: A\n', readLayout('object: A\n')!)).toBe('object: A\n')
  })

  it('lets a field wander from section to section and out', () => {
    let layout = readLayout(TEXT)!
    layout = { ...layout, sections: [...layout.sections, { heading: 'More', fields: [] }] }
    layout = shiftField(layout, 'title', 1)
    expect(layout.sections.map((one) => one.fields)).toEqual([['code'], ['title']])
    layout = shiftField(layout, 'title', 1)
    expect(whereIs(layout, 'title')).toBe('rest')
    layout = shiftField(layout, 'title', -1)
    expect(whereIs(layout, 'title')).toBe(1)
    layout = moveTo(layout, 'title', 'out')
    expect(layout.leaveOut).toEqual(['note', 'title'])
    expect(shiftField(layout, 'title', -1)).toBe(layout)
  })
})
