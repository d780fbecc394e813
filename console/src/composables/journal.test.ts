import { beforeEach, describe, expect, it, vi } from 'vitest'
import { keepFile } from '@/api/draft'
import { forgetJournal, useJournal } from './journal'

vi.mock('@/api/draft', () => ({ keepFile: vi.fn(() => Promise.resolve([])) }))

describe('what was changed in the draft', () => {
  const journal = useJournal()
  beforeEach(() => {
    forgetJournal()
    vi.mocked(keepFile).mockClear()
  })

  it('is taken back and done again in turn, on top of what it was', async () => {
    journal.note('a.yaml', 'one', 'two', 0)
    journal.note('b.yaml', 'x', 'y', 1_000)
    await Promise.all([journal.undo(), journal.undo(), journal.redo()])
    expect(vi.mocked(keepFile).mock.calls).toEqual([
      ['b.yaml', 'x', 'y'],
      ['a.yaml', 'one', 'two'],
      ['a.yaml', 'two', 'one'],
    ])
    expect([journal.nextUndo.value, journal.nextRedo.value]).toEqual(['a.yaml', 'b.yaml'])
  })

  it('stays to be taken back when that is refused', async () => {
    journal.note('a.yaml', 'one', 'two', 0)
    vi.mocked(keepFile).mockRejectedValueOnce(new Error('changed meanwhile'))
    await expect(journal.undo()).rejects.toThrow('changed meanwhile')
    expect([journal.canUndo.value, journal.canRedo.value]).toEqual([true, false])
    await journal.undo()
    vi.mocked(keepFile).mockRejectedValueOnce(new Error('changed meanwhile'))
    await expect(journal.redo()).rejects.toThrow('changed meanwhile')
    expect([journal.canUndo.value, journal.canRedo.value]).toEqual([false, true])
  })

  it('is one change while somebody types in one file', async () => {
    journal.note('a.yaml', 'o', 'on', 0)
    journal.note('a.yaml', 'on', 'one', 500)
    journal.note('a.yaml', 'one', 'one more', 2_000)
    await journal.undo()
    await journal.undo()
    expect(keepFile).toHaveBeenLastCalledWith('a.yaml', 'o', 'one')
    expect(journal.canUndo.value).toBe(false)
  })
})
