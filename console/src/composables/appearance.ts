import { computed, ref, watchEffect } from 'vue'
import { antTheme, cssVariables } from '@/theme'

const KEY = 'sandpiper.dark'
const kept = localStorage.getItem(KEY)
const dark = ref(kept === null ? matchMedia('(prefers-color-scheme: dark)').matches : kept === 'true')

/** Light or dark: as the system has it, until somebody chooses. */
export function useAppearance() {
  watchEffect(() => {
    for (const [name, value] of Object.entries(cssVariables(dark.value))) {
      document.documentElement.style.setProperty(name, value)
    }
    document.documentElement.dataset.look = dark.value ? 'dark' : 'light'
    document.documentElement.style.colorScheme = dark.value ? 'dark' : 'light'
  })
  function toggle() {
    dark.value = !dark.value
    localStorage.setItem(KEY, String(dark.value))
  }
  return { dark, toggle, theme: computed(() => antTheme(dark.value)) }
}
