import { readonly, ref } from 'vue'

const query = typeof matchMedia === 'function' ? matchMedia('(max-width: 700px)') : undefined
const small = ref(query?.matches ?? false)
query?.addEventListener('change', (now) => (small.value = now.matches))

/** Whether the screen is that of a phone, where wide things scroll inside themselves. */
export function useSmall() {
  return readonly(small)
}
