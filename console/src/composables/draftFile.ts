import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch, type Ref } from 'vue'
import { keepFile } from '@/api/draft'
import { ApiProblem } from '@/api/http'
import type { Diagnostic } from '@/api/client'
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
  /** What the service has of the file, as far as this page knows. */
  let base = ''

  watch(
    [file, draft],
    () => {
      if (file.value && path.value !== file.value.path) {
        path.value = file.value.path
        text.value = file.value.text
        base = file.value.text
        state.value = 'kept'
        problem.value = ''
        diagnostics.value = draft.value?.diagnostics ?? []
      }
    },
    { immediate: true },
  )

  const isSealed = computed(() => draft.value?.sealed.includes(path.value.split('/')[0]) ?? false)
  const mine = computed(() => diagnostics.value.filter((one) => one.file === path.value))
  const elsewhere = computed(() =>
    diagnostics.value.filter((one) => one.file !== path.value && one.severity === 'ERROR'),
  )

  let timer: ReturnType<typeof setTimeout> | undefined
  function change(now: string) {
    if (isSealed.value || now === text.value) return
    journal.note(path.value, text.value, now)
    text.value = now
    if (state.value === 'conflict') return
    state.value = 'keeping'
    clearTimeout(timer)
    timer = setTimeout(() => void keep(), PAUSE)
  }

  /** One after the other: what is sent next begins with what was kept before. */
  let running = Promise.resolve()
  function keep(whatever = false): Promise<void> {
    clearTimeout(timer)
    running = running.then(() => send(whatever))
    return running
  }

  /** Keeps the text in the draft and learns what there is to say about it. */
  async function send(whatever: boolean) {
    const sent = text.value
    const of = path.value
    if (sent === base && !whatever) {
      if (state.value === 'keeping') state.value = 'kept'
      return
    }
    try {
      const said = await keepFile(of, sent, whatever ? undefined : base)
      if (of !== path.value) return
      base = sent
      if (sent !== text.value) return
      diagnostics.value = said
      state.value = 'kept'
      problem.value = ''
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'draft' })
    } catch (wrong) {
      if (of !== path.value) return
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
    text.value = theirs?.text ?? ''
    base = text.value
    diagnostics.value = draft.value?.diagnostics ?? []
    state.value = 'kept'
    problem.value = ''
  }

  /** Keeps what is not kept yet, before another file is opened. */
  async function settle() {
    if (state.value === 'keeping') await keep()
  }

  // Whoever signs in again goes on where the session ended.
  const { ended } = useSession()
  watch(ended, (now) => {
    if (!now && state.value === 'failed') void keep()
  })

  watch(journal.restored, async (now) => {
    if (!now) return
    await queries.invalidateQueries()
    if (now.path !== path.value) return
    text.value = now.text
    base = now.text
    state.value = 'kept'
    diagnostics.value = draft.value?.diagnostics ?? []
  })

  onBeforeUnmount(() => {
    void settle()
    void queries.invalidateQueries({ queryKey: ['draft'] })
  })

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
