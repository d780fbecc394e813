<script setup lang="ts">
import type { Diagnostic } from '@/api/client'

/** What there is to say about a file, beneath its text; a click on a place leads there. */
defineProps<{ findings: Diagnostic[]; hint?: string }>()
const emit = defineEmits<{ reveal: [line: number, column: number] }>()
</script>

<template>
  <ul v-if="findings.length" class="said" data-test="diagnostics">
    <li v-for="(one, at) in findings" :key="at" :class="one.severity.toLowerCase()">
      <button class="place" @click="emit('reveal', one.line, one.column)">
        <code>{{ one.line }}:{{ one.column }}</code></button
      >{{ one.message }}
      <em v-if="one.suggestion">Did you mean {{ one.suggestion }}?</em>
    </li>
  </ul>
  <div v-else class="said quiet">No errors in this file. {{ hint }}</div>
</template>

<style scoped>
.said {
  margin: 0;
  padding: 8px 12px;
  list-style: none;
  border-top: 1px solid var(--line);
  max-height: 30%;
  overflow: auto;
  font-size: 12.5px;
}
.error {
  color: var(--bad);
}
.place {
  border: 0;
  background: none;
  padding: 0 6px 0 0;
  color: var(--action);
  cursor: pointer;
}
</style>
