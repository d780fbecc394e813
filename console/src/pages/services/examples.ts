import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { call } from '@/api/http'

/** Requests to try a service with: the one that is chosen by name, a question first. */
export function useExamples<Example>(
  address: () => string,
  nameOf: (example: Example) => string,
  asks: RegExp,
) {
  const examples = useQuery({
    queryKey: computed(() => ['examples', address()]),
    queryFn: () => call<Example[]>('GET', address()),
  })
  const name = ref('')
  const chosen = computed(() => {
    const all = examples.data.value
    return (
      all?.find((one) => nameOf(one) === name.value) ?? all?.find((one) => asks.test(nameOf(one))) ?? all?.[0]
    )
  })
  const options = computed(() =>
    examples.data.value?.map((one) => ({ value: nameOf(one), label: nameOf(one) })),
  )
  return { examples, name, chosen, options }
}
