<script setup lang="ts">
import { ref } from 'vue'

/**
 * A plain input that is taken when somebody leaves it or presses Enter. What is typed until then stays, also
 * when the page around it is drawn anew.
 */
defineProps<{ value?: string }>()
const emit = defineEmits<{ change: [event: Event] }>()
const typed = ref<string>()

function commit(event: Event) {
  emit('change', event)
  typed.value = undefined
}
</script>

<template>
  <input
    class="typed"
    :value="typed ?? value"
    @input="typed = ($event.target as HTMLInputElement).value"
    @change="commit"
  />
</template>

<style>
/* Weak on purpose: a page that wants it otherwise says so. */
:where(.typed) {
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--surface);
  color: var(--text);
  font: inherit;
  padding: 0 7px;
  height: 24px;
  min-width: 0;
}
:where(.typed:focus-visible) {
  outline: 2px solid var(--action);
  outline-offset: -1px;
}
:where(.typed:disabled) {
  background: var(--sunken);
  color: var(--quiet);
}
</style>
