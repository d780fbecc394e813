import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, defineComponent, h, ref } from 'vue'
import { keepFile } from '@/api/draft'
import { ApiProblem } from '@/api/http'
import { useDraftFile } from './draftFile'

vi.mock('@/api/draft', () => ({ keepFile: vi.fn() }))
const draft = ref({ files: [{ path: 'a/b.yaml', text: 'one' }], diagnostics: [], sealed: [] as string[] })
vi.mock('./model', () => ({ useDraft: () => ({ data: draft }) }))

/** What was sent, in order, each to be answered when a test wants it. */
let sent: { text: string; base?: string; done: () => void; fail: (status: number) => void }[] = []

function open() {
  let file!: ReturnType<typeof useDraftFile>
  const opened = computed(() => draft.value.files[0])
  mount(
    defineComponent({
      setup() {
        file = useDraftFile(opened)
        return () => h('div')
      },
    }),
    { global: { plugins: [VueQueryPlugin] } },
  )
  return file
}

describe('a file of the draft that is edited', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    sent = []
    draft.value = { ...draft.value, files: [{ path: 'a/b.yaml', text: 'one' }] }
    vi.mocked(keepFile).mockImplementation(
      (_, text, base) =>
        new Promise((resolve, reject) =>
          sent.push({
            text,
            base,
            done: () => resolve([]),
            fail: (status) => reject(new ApiProblem({ title: '', status, detail: `refused with ${status}` })),
          }),
        ),
    )
  })

  const pause = async () => {
    await vi.advanceTimersByTimeAsync(400)
    await flushPromises()
  }

  it('is kept a moment after somebody stops typing, with the text it began with', async () => {
    const file = open()
    file.change('on')
    file.change('only')
    expect(sent).toHaveLength(0)
    await pause()
    expect(sent).toMatchObject([{ text: 'only', base: 'one' }])
    expect(file.state.value).toBe('keeping')
    sent[0].done()
    await flushPromises()
    expect(file.state.value).toBe('kept')
  })

  it('is sent one change after the other, each on top of the one before', async () => {
    const file = open()
    file.change('two')
    await pause()
    file.change('three')
    await pause()
    expect(sent).toHaveLength(1)
    sent[0].done()
    await flushPromises()
    expect(sent[1]).toMatchObject({ text: 'three', base: 'two' })
    expect(file.state.value).toBe('keeping')
    sent[1].done()
    await flushPromises()
    expect(file.state.value).toBe('kept')
  })

  it('keeps what was typed when somebody else changed it, until one of both is chosen', async () => {
    const file = open()
    file.change('mine')
    await pause()
    sent[0].fail(409)
    await flushPromises()
    expect(file.state.value).toBe('conflict')
    expect(file.text.value).toBe('mine')
    file.change('mine too')
    await pause()
    expect(sent).toHaveLength(1)
    void file.keepMine()
    await flushPromises()
    expect(sent[1]).toMatchObject({ text: 'mine too', base: undefined })
    sent[1].done()
    await flushPromises()
    expect(file.state.value).toBe('kept')
  })

  it('loses nothing when the service does not answer', async () => {
    const file = open()
    file.change('two')
    await pause()
    sent[0].fail(0)
    await flushPromises()
    expect(file.state.value).toBe('failed')
    expect(file.text.value).toBe('two')
    file.change('three')
    await pause()
    expect(sent[1]).toMatchObject({ text: 'three', base: 'one' })
    sent[1].fail(0)
    await flushPromises()
    await vi.advanceTimersByTimeAsync(2_100)
    expect(sent[2]).toMatchObject({ text: 'three', base: 'one' })
    sent[2].done()
    await flushPromises()
    expect(file.state.value).toBe('kept')
  })
})
