import { describe, expect, it } from 'vitest'
import type { Draft } from '@/api/client'
import { objectName } from '@/editor/objectFile'
import { beginningOf, definedName, kindOf, KINDS, newPackageText, packagesOf, pathOf } from './packages'

const draft = (files: Record<string, string>, more: Partial<Draft> = {}): Draft => ({
  files: Object.entries(files).map(([path, text]) => ({ path, text })),
  diagnostics: [],
  sealed: [],
  ...more,
})

describe('the files of packages', () => {
  it('are of the kind of their folder, or of none', () => {
    expect(kindOf('yard/package.yaml')).toBe('package')
    expect(kindOf('yard/objects/boat.yaml')).toBe('object')
    expect(kindOf('yard/choices/kind.yaml')).toBe('choices')
    expect(kindOf('yard/objects/deep/boat.yaml')).toBe('other')
    expect(kindOf('yard/notes.txt')).toBe('other')
    expect(kindOf('yard/roles/hand.yaml')).toBe('role')
    expect(kindOf('yard/views/due.yaml')).toBe('view')
    expect(kindOf('yard/data/Season.csv')).toBe('seed')
    expect(kindOf('yard/data/season.yaml')).toBe('other')
  })

  it('begin with a text that says what they are, at a path of their name', () => {
    expect(pathOf('yard', 'object', 'WorkRequest')).toBe('yard/objects/work-request.yaml')
    expect(pathOf('yard', 'service', 'berth-desk')).toBe('yard/services/berth-desk.yaml')
    expect(pathOf('yard', 'seed', 'WorkSeason')).toBe('yard/data/WorkSeason.csv')
    expect(objectName(beginningOf('object', 'WorkRequest'))).toBe('WorkRequest')
    for (const { kind } of KINDS.filter((one) => !['requirement', 'contract', 'seed'].includes(one.kind)))
      expect(definedName({ path: 'x', text: beginningOf(kind, 'Name') })).toBe('Name')
  })

  it('are shown whatever state they are in', () => {
    const [yard, other] = packagesOf(
      draft(
        {
          'yard/package.yaml': 'package: yard\nlabel: Boat yard\n',
          'yard/objects/boat.yaml': 'no: [ yaml',
          'yard/objects/empty.yaml': '',
          'other/objects/a.yaml': 'object: A\n',
        },
        {
          sealed: ['other'],
          diagnostics: [{ file: 'yard/objects/boat.yaml', severity: 'ERROR' } as never],
        },
      ),
      new Map([['yard/objects/boat.yaml', 'changed']]),
    )
    expect(yard).toMatchObject({ name: 'yard', label: 'Boat yard', sealed: false, errors: 1 })
    expect(yard.files[1]).toMatchObject({ kind: 'object', name: undefined, errors: 1, state: 'changed' })
    expect(yard.files[2].name).toBeUndefined()
    expect(other).toMatchObject({ label: 'other', sealed: true })
    expect(packagesOf(undefined, new Map())).toEqual([])
  })

  it('of a new package say what was given, and leave out what was not', () => {
    const all = { name: 'yard', label: 'Yard: "North"', languages: 'en, de', currency: 'EUR', zone: 'UTC' }
    expect(newPackageText(all)).toBe(
      'package: yard\nversion: 0.1\nlabel: "Yard: \\"North\\""\nlanguages: [en, de]\ncurrency: EUR\nzone: UTC\n',
    )
    const bare = { name: 'yard', label: ' ', languages: '', currency: '', zone: '' }
    expect(newPackageText(bare)).toBe('package: yard\nversion: 0.1\n')
  })
})
