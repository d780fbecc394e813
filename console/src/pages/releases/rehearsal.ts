import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { moment } from '@/composables/format'

const ONE_SECOND = 1000

/** A time as people say it. */
export const lasting = (millis: number) =>
  millis < ONE_SECOND ? `${millis} ms` : `${(millis / ONE_SECOND).toFixed(1)} s`

/** The rehearsal that is under way, or the last one; asked again until it is over. */
export function useRehearsal() {
  const asked = useQuery({
    queryKey: ['rehearsal'],
    queryFn: async () => (await unwrap(api.GET('/manage/v1/rehearsal'))).last ?? null,
    refetchInterval: (query) => (query.state.data && !query.state.data.over ? ONE_SECOND : false),
  })
  const last = computed(() => asked.data.value)
  /** How long the release took, for who looks at what it does; undefined when it was not rehearsed. */
  const times = computed(() => {
    const one = last.value
    if (!one || one.stage !== 'done') return undefined
    const afterwards = one.formulas.length
      ? `, and formulas ${lasting(one.formulaMillis)} afterwards while requests are served`
      : ', formulas among it'
    return `In the rehearsal of ${moment(one.begun)} the release took ${lasting(one.releaseMillis)}${afterwards}.`
  })
  return { last, times }
}
