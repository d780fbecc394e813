import { message as toast } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'

/** Does some work, says in a word how it went, and reads again what may have changed. */
export function useTold() {
  const queries = useQueryClient()
  return async function told(work: Promise<unknown>, done?: string) {
    try {
      await work
      if (done) void toast.success(done)
    } catch (error) {
      void toast.error((error as Error).message)
    }
    await queries.invalidateQueries()
  }
}
