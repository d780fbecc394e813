import { readonly, ref, shallowRef } from 'vue'

/** Runs something again and again and shows only the newest answer: an older one that comes late is thrown away. */
export function useLatest<A, T>(ask: (argument: A) => Promise<T>) {
  const data = shallowRef<T>()
  const error = ref<Error | null>(null)
  const loading = ref(false)
  let turn = 0

  async function run(argument: A) {
    const mine = ++turn
    loading.value = true
    try {
      const answer = await ask(argument)
      if (mine === turn) {
        data.value = answer
        error.value = null
      }
    } catch (problem) {
      if (mine === turn) error.value = problem as Error
    } finally {
      if (mine === turn) loading.value = false
    }
  }
  /** Forgets the answer, and one that is still on its way. */
  function clear() {
    turn++
    data.value = undefined
    loading.value = false
  }
  return { data, error: readonly(error), loading: readonly(loading), run, clear }
}
