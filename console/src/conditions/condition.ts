import { ref, watch, type Ref } from 'vue'
import { conditionParts, conditionText } from '@/api/conditions'
import { asGroup, conditionOf, draftOf, isFinished, newGroup, unfinishedIn, type Draft } from './parts'

/**
 * A condition that is put together: its parts follow the text, and the text follows them as soon as nothing
 * is missing. An older answer that comes late changes nothing.
 */
export function useCondition(
  text: Ref<string>,
  take: (text: string) => void,
  /** Whether the parts are looked at; while somebody writes text, nothing is taken apart. */
  active: Ref<boolean> = ref(true),
) {
  const parts = ref<Draft>()
  /** Whether the text as a whole could not be taken apart. */
  const isText = ref(false)
  const problem = ref('')
  const unfinished = ref(0)
  let written: string | undefined
  let turn = 0

  watch(
    [text, active],
    async ([now, looked]) => {
      if (!looked || now === written) return
      const mine = ++turn
      // What is always true asks for nothing.
      if (!now.trim() || now.trim() === 'true') {
        parts.value = newGroup()
        isText.value = false
        unfinished.value = 0
        written = now
        return
      }
      try {
        const read = await conditionParts(now)
        if (mine !== turn) return
        isText.value = read.kind === 'TEXT'
        parts.value = asGroup(draftOf(read))
        unfinished.value = 0
        written = now
        problem.value = ''
      } catch (wrong) {
        if (mine === turn) problem.value = (wrong as Error).message
      }
    },
    { immediate: true },
  )

  async function change(now: Draft) {
    const mine = ++turn
    parts.value = now
    problem.value = ''
    isText.value = false
    // Without any part, everything is meant.
    const isEmpty = now.kind === 'GROUP' && !now.parts.length
    unfinished.value = isEmpty ? 0 : unfinishedIn(now)
    if (isEmpty) {
      written = ''
      take('')
    } else if (isFinished(now)) {
      try {
        const made = await conditionText(conditionOf(now))
        if (mine !== turn) return
        written = made
        take(made)
      } catch (wrong) {
        if (mine === turn) problem.value = (wrong as Error).message
      }
    }
  }

  return { parts, isText, problem, unfinished, change }
}
