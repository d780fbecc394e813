<script setup lang="ts">
import { Input } from 'ant-design-vue'

/** What something in the draft is called, and what it is for. */
defineProps<{ label?: string; describe?: string; question: string; readOnly: boolean }>()
const emit = defineEmits<{ set: [key: 'label' | 'describe', value: string] }>()
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="facts">
    <label>
      Label
      <Input
        :value="label"
        :disabled="readOnly"
        size="small"
        aria-label="Label"
        @change="(event) => emit('set', 'label', typed(event))"
      />
    </label>
    <label>
      {{ question }}
      <Input
        :value="describe"
        :disabled="readOnly"
        size="small"
        :aria-label="question"
        @change="(event) => emit('set', 'describe', typed(event))"
      />
    </label>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
  gap: 8px 16px;
  max-width: 860px;
}
.facts label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
}
</style>
