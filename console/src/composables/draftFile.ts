import { useQueryClient } from '@tanstack/vue-query'
import { message as toast } from 'ant-design-vue'
import { computed, onBeforeUnmount, ref, watch, type Ref } from 'vue'
import { keepFile } from '@/api/draft'
import { ApiProblem } from '@/api/http'
import type { Diagnostic, Draft } from '@/api/client'
import { inTurn } from './inTurn'
import { useJournal } from './journal'
import { useDraft } from './model'
import { useSession } from './session'

const PAUSE = 350
const AGAIN = 2_000
const CONFLICT = 409

export type KeptState = 'kept' | 'keeping' | 'failed' | 'conflict'

/** How it stands with what is typed, in words. */
export const STATE_WORDS: Record<KeptState, string> = {
  kept: 'Kept in the draft',
  keeping: 'Keeping …',
  failed: 'Not kept',
  conflict: 'Not kept',
}

/** A file as a page has it: what it shows, and what the service has of it as far as the page knows. */
interface Opened {
  path: string
  base: string
  text: string
  isChanged: boolean
}

const nothing = (): Opened => ({ path: '', base: '', text: '', isChanged: false })

/**
 * A file of the draft that is edited on a page: every change is kept a moment later, right or wrong, and
 * answered with what there is to say about it. The file as it was opened stays the truth of the page; when
 * somebody else changes it meanwhile, both are there to choose from.
 */
export function useDraftFile(file: Ref<{ path: string; text: string } | undefined>) {
  const queries = useQueryClient()
  const { data: draft } = useDraft()
  const journal = useJournal()
  const path = ref('')
  const text = ref('')
  const diagnostics = ref<Diagnostic[]>([])
  const problem = ref('')
  const state = ref<KeptState>('kept')
  let opened = nothing()
  let release = () => {}
  let timer: ReturnType<typeof setTimeout> | undefined

  watch(
    [file, draft],
    () => {
      if (!file.value || path.value === file.value.path) return
      const wanted = file.value
      leave()
      opened = { path: wanted.path, base: wanted.text, text: wanted.text, isChanged: false }
      release = journal.hold(wanted.path, show)
      path.value = wanted.path
      text.value = wanted.text
      state.value = 'kept'
      problem.value = ''
      diagnostics.value = draft.value?.diagnostics ?? []
    },
    { immediate: true },
  )

  const isSealed = computed(() => draft.value?.sealed.includes(path.value.split('/')[0]) ?? false)
  const mine = computed(() => diagnostics.value.filter((one) => one.file === path.value))
  const elsewhere = computed(() =>
    diagnostics.value.filter((one) => one.file !== path.value && one.severity === 'ERROR'),
  )

  function put(now: string) {
    text.value = now
    opened.text = now
    opened.isChanged = true
  }

  function change(now: string) {
    if (isSealed.value || now === text.value) return
    journal.note(path.value, text.value, now)
    put(now)
    if (state.value === 'conflict') return
    state.value = 'keeping'
    clearTimeout(timer)
    timer = setTimeout(() => void keep(), PAUSE)
  }

  /** Shows and keeps what undo or redo made of the file. */
  async function show(now: string) {
    put(now)
    if (state.value === 'conflict') return
    state.value = 'keeping'
    await keep()
  }

  /** What is sent next begins with what was kept before. */
  function keep(whatever = false): Promise<void> {
    clearTimeout(timer)
    const of = opened
    return inTurn(() => send(of, whatever))
  }

  /** Keeps the text in the draft and learns what there is to say about it. */
  async function send(of: Opened, whatever: boolean) {
    const sent = of.text
    if (sent === of.base && !whatever) {
      if (of === opened && state.value === 'keeping') state.value = 'kept'
      return
    }
    try {
      const said = await keepFile(of.path, sent, whatever ? undefined : of.base)
      of.base = sent
      if (of !== opened || sent !== of.text) return
      diagnostics.value = said
      state.value = 'kept'
      problem.value = ''
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'draft' })
    } catch (wrong) {
      if (of !== opened) {
        void toast.error(`${of.path} is not kept: ${(wrong as Error).message}`)
        return
      }
      const isConflict = wrong instanceof ApiProblem && wrong.problem.status === CONFLICT
      state.value = isConflict && !isSealed.value ? 'conflict' : 'failed'
      problem.value = (wrong as Error).message
      // A service that is being started again answers in a moment.
      if (wrong instanceof ApiProblem && wrong.problem.status === 0)
        timer = setTimeout(() => void keep(), AGAIN)
    }
  }

  /** Keeps this page's text in the place of somebody else's. */
  const keepMine = () => keep(true)

  /** Goes on with what somebody else made of the file. */
  async function takeTheirs() {
    await queries.refetchQueries({ queryKey: ['draft'] })
    const theirs = draft.value?.files.find((one) => one.path === path.value)
    journal.note(path.value, text.value, theirs?.text ?? '')
    put(theirs?.text ?? '')
    opened.base = opened.text
    diagnostics.value = draft.value?.diagnostics ?? []
    state.value = 'kept'
    problem.value = ''
  }

  /** Keeps what is not kept yet, before another file is opened. */
  async function settle() {
    if (state.value === 'keeping') await keep()
  }

  /**
   * Keeps what is not kept yet of a file that is no longer shown. Whoever opens it next sees it as it was
   * left, also before the draft is read again.
   */
  function leave() {
    release()
    clearTimeout(timer)
    const left = opened
    opened = nothing()
    if (!left.isChanged) return
    if (state.value === 'conflict') {
      void queries.invalidateQueries({ queryKey: ['draft'] })
      return
    }
    queries.setQueryData<Draft>(['draft'], (known) => known && withText(known, left))
    void inTurn(() => send(left, false)).then(() => queries.invalidateQueries({ queryKey: ['draft'] }))
  }

  // Whoever signs in again goes on where the session ended.
  const { ended } = useSession()
  watch(ended, (now) => {
    if (!now && state.value === 'failed') void keep()
  })

  onBeforeUnmount(leave)

  return {
    path,
    text,
    diagnostics,
    mine,
    elsewhere,
    problem,
    state,
    isSealed,
    change,
    settle,
    keepMine,
    takeTheirs,
  }
}

function withText(draft: Draft, { path, text }: Opened): Draft {
  return { ...draft, files: draft.files.map((one) => (one.path === path ? { ...one, text } : one)) }
}
