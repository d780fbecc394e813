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
    :value="typed ?? value"
    @input="typed = ($event.target as HTMLInputElement).value"
    @change="commit"
  />
</template>
