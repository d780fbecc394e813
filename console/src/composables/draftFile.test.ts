import { QueryClient, useQuery, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { message as toast } from 'ant-design-vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, defineComponent, h, ref } from 'vue'
import { keepFile } from '@/api/draft'
import { ApiProblem } from '@/api/http'
import { useDraftFile } from './draftFile'
import { forgetJournal, useJournal } from './journal'
import { useDraft } from './model'

vi.mock('@/api/draft', () => ({ keepFile: vi.fn() }))
/** What the service has. */
let files: Record<string, string> = {}
const draft = () => ({
  files: Object.entries(files).map(([path, text]) => ({ path, text })),
  diagnostics: [],
  sealed: [] as string[],
})
vi.mock('./model', () => ({
  useDraft: () => useQuery({ queryKey: ['draft'], queryFn: draft, initialData: draft, staleTime: Infinity }),
}))
const wanted = ref('')

/** What was sent, in order, each to be answered when a test wants it. */
let sent: { path: string; text: string; base?: string; done: () => void; fail: (status: number) => void }[] =
  []

function open() {
  let file!: ReturnType<typeof useDraftFile>
  mount(
    defineComponent({
      setup() {
        const { data } = useDraft()
        file = useDraftFile(computed(() => data.value?.files.find((one) => one.path === wanted.value)))
        return () => h('div')
      },
    }),
    { global: { plugins: [[VueQueryPlugin, { queryClient: new QueryClient() }]] } },
  )
  return file
}

describe('a file of the draft that is edited', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    sent = []
    wanted.value = 'a/b.yaml'
    files = { 'a/b.yaml': 'one', 'a/c.yaml': 'other' }
    forgetJournal()
    vi.mocked(keepFile).mockImplementation(
      (path, text, base) =>
        new Promise((resolve, reject) =>
          sent.push({
            path,
            text,
            base,
            done: () => {
              files[path] = text
              resolve([])
            },
            fail: (status) => reject(new ApiProblem({ title: '', status, detail: `refused with ${status}` })),
          }),
        ),
    )
  })

  const pause = async () => {
    await vi.advanceTimersByTimeAsync(400)
    await flushPromises()
  }
  /** Until everything that is sent is answered. */
  const answered = async () => {
    for (let answer = 0; ; answer++) {
      await pause()
      if (answer === sent.length) return
      sent[answer].done()
    }
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

  it('is as undo and redo make it at once, under what is changed next', async () => {
    const file = open()
    const journal = useJournal()
    file.change('two')
    await answered()
    const both = [journal.undo(), journal.redo()]
    file.change('two and more')
    await answered()
    await Promise.all(both)
    expect(file.text.value).toBe('two and more')
    expect(sent.at(-1)).toMatchObject({ text: 'two and more' })
    expect(file.state.value).toBe('kept')
    void journal.undo()
    expect(file.text.value).toBe('two')
    await answered()
  })

  it('is kept when another is opened a moment after, and is there again as it was left', async () => {
    const file = open()
    file.change('two')
    wanted.value = 'a/c.yaml'
    await flushPromises()
    expect(file.text.value).toBe('other')
    expect(sent).toMatchObject([{ path: 'a/b.yaml', text: 'two', base: 'one' }])
    file.change('other one')
    await pause()
    expect(sent).toHaveLength(1)
    sent[0].done()
    await flushPromises()
    expect(sent[1]).toMatchObject({ path: 'a/c.yaml', text: 'other one', base: 'other' })
    wanted.value = 'a/b.yaml'
    await flushPromises()
    expect(file.text.value).toBe('two')
    sent[1].done()
    await flushPromises()
  })

  it('says so when it is refused after another was opened', async () => {
    const said = vi.spyOn(toast, 'error').mockReturnValue(undefined as never)
    const file = open()
    file.change('two')
    wanted.value = 'a/c.yaml'
    await flushPromises()
    sent[0].fail(409)
    await flushPromises()
    expect(said).toHaveBeenCalledWith('a/b.yaml is not kept: refused with 409')
    expect(file.state.value).toBe('kept')
  })
})
