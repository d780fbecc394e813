import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch, type Ref } from 'vue'
import { api, unwrap, type Diagnostic } from '@/api/client'
import { useDraft } from './model'

const PAUSE = 350

/**
 * A file of the draft that is edited on a page: every change is kept a moment later, right or wrong, and
 * answered with what there is to say about it. The file as it was opened stays the truth of the page; what
 * others push meanwhile is seen on coming back.
 */
export function useDraftFile(file: Ref<{ path: string; text: string } | undefined>) {
  const queries = useQueryClient()
  const { data: draft } = useDraft()
  const path = ref('')
  const text = ref('')
  const diagnostics = ref<Diagnostic[]>([])
  const problem = ref('')
  const state = ref<'kept' | 'keeping' | 'failed'>('kept')

  watch(
    [file, draft],
    () => {
      if (file.value && path.value !== file.value.path) {
        path.value = file.value.path
        text.value = file.value.text
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
    text.value = now
    state.value = 'keeping'
    clearTimeout(timer)
    timer = setTimeout(() => void keep(), PAUSE)
  }

  /** Keeps the text in the draft and learns what there is to say about it. */
  async function keep() {
    clearTimeout(timer)
    const sent = text.value
    try {
      const answer = await unwrap(
        api.PUT('/manage/v1/draft/file', { body: { path: path.value, text: sent } }),
      )
      if (sent !== text.value) return
      diagnostics.value = answer.diagnostics
      state.value = 'kept'
      problem.value = ''
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'draft' })
    } catch (wrong) {
      state.value = 'failed'
      problem.value = (wrong as Error).message
    }
  }

  /** Keeps what is not kept yet, before another file is opened. */
  async function settle() {
    if (state.value === 'keeping') await keep()
  }

  onBeforeUnmount(() => {
    void settle()
    void queries.invalidateQueries({ queryKey: ['draft'] })
  })

  return { path, text, diagnostics, mine, elsewhere, problem, state, isSealed, change, settle }
}
