import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, unwrap } from '@/api/client'

/** The objects that are live, those of the draft when that has no errors, or what can be understood of it. */
export function useModel(of: 'LIVE' | 'DRAFT' | 'OUTLINE' = 'LIVE') {
  const query = useQuery({
    queryKey: ['model', of],
    queryFn: () => unwrap(api.GET('/manage/v1/model', { params: { query: { of } } })),
  })
  return { ...query, objects: computed(() => query.data.value?.objects ?? []) }
}

/** One live object by name. */
export function useObject(name: MaybeRefOrGetter<string | undefined>) {
  const { objects, isLoading, error } = useModel()
  return {
    object: computed(() => objects.value.find((object) => object.name === toValue(name))),
    isLoading,
    error,
  }
}

/** All draft files with what there is to say about them. */
export function useDraft() {
  return useQuery({ queryKey: ['draft'], queryFn: () => unwrap(api.GET('/manage/v1/draft')) })
}
