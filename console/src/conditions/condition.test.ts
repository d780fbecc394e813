import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { conditionParts, conditionText, type Condition } from '@/api/conditions'
import { useCondition } from './condition'
import { newComparison } from './parts'

vi.mock('@/api/conditions', () => ({ conditionParts: vi.fn(), conditionText: vi.fn() }))
const filled: Condition = {
  kind: 'COMPARISON',
  of: { kind: 'FIELD', text: 'code' },
  relation: 'FILLED',
  values: [],
}

describe('a condition', () => {
  beforeEach(() => {
    vi.clearAllMocks()
    vi.mocked(conditionParts).mockResolvedValue(filled)
    vi.mocked(conditionText).mockResolvedValue('code != null')
  })

  it('is not written while a part is missing, and is when nothing is', async () => {
    const text = ref('code != null')
    const taken: string[] = []
    const { parts, unfinished, change } = useCondition(text, (now) => taken.push(now))
    await flushPromises()
    const open = newComparison()
    await change({ ...parts.value!, parts: [...parts.value!.parts, open] })
    expect(unfinished.value).toBe(1)
    expect(taken).toEqual([])
    const done = { ...open, of: { kind: 'FIELD' as const, text: 'size' }, relation: 'EMPTY' as const }
    vi.mocked(conditionText).mockResolvedValue('code != null and size = null')
    await change({ ...parts.value!, parts: [parts.value!.parts[0], done] })
    expect(taken).toEqual(['code != null and size = null'])
  })

  it('stays as somebody is putting it together when its own text comes back', async () => {
    const text = ref('')
    const { parts, change } = useCondition(text, (now) => (text.value = now))
    await change({ ...parts.value!, parts: [{ ...newComparison(), of: filled.of, relation: 'FILLED' }] })
    const before = parts.value
    await flushPromises()
    expect(text.value).toBe('code != null')
    expect(parts.value).toBe(before)
    expect(conditionParts).not.toHaveBeenCalled()
  })

  it('shows the newest text whichever answer comes last', async () => {
    let late!: (read: Condition) => void
    vi.mocked(conditionParts).mockImplementationOnce(() => new Promise((resolve) => (late = resolve)))
    const text = ref('first')
    const { parts, isText } = useCondition(text, () => {})
    text.value = 'second'
    await flushPromises()
    late({ kind: 'TEXT', text: 'first' })
    await flushPromises()
    expect(isText.value).toBe(false)
    expect(parts.value!.parts[0].kind).toBe('COMPARISON')
  })

  it('is empty, and means everything, when its last part is taken away', async () => {
    const taken: string[] = []
    const { parts, change } = useCondition(ref('code != null'), (now) => taken.push(now))
    await flushPromises()
    await change({ ...parts.value!, parts: [] })
    expect(taken).toEqual([''])
  })
})
