import { describe, expect, it } from 'vitest'
import { indented } from './xml'

describe('XML for people', () => {
  it('has a line for each element', () => {
    expect(indented('<?xml version="1.0"?><a><b c="1"><d>x y</d><e/></b></a>')).toBe(
      '<?xml version="1.0"?>\n<a>\n  <b c="1">\n    <d>x y</d>\n    <e/>\n  </b>\n</a>',
    )
  })

  it('stays the same when it has lines already', () => {
    const once = indented('<a><b>1</b></a>')
    expect(indented(once.replaceAll('  ', ''))).toBe(once)
  })

  it('shows what is no XML as it is', () => {
    expect(indented('nothing here')).toBe('nothing here')
  })
})
