<script setup lang="ts">
import { Alert, Tag } from 'ant-design-vue'
import type { Tried } from './tried'

defineProps<{ curl: string; changes: boolean; problem: string; answer: Tried | null; test: string }>()
</script>

<template>
  <Alert v-if="changes" type="warning" message="This changes the live data, as a call from outside would." />
  <pre tabindex="0" class="curl">{{ curl }}</pre>
  <Alert v-if="problem" type="error" :message="problem" />
  <template v-if="answer">
    <div class="row">
      <Tag :color="answer.status < 300 ? 'green' : 'red'">{{ answer.status }}</Tag>
      <span class="quiet">{{ answer.millis }} ms</span>
    </div>
    <pre tabindex="0" :data-test="test">{{ answer.text }}</pre>
  </template>
</template>

<style scoped>
pre {
  margin: 0;
  padding: 10px;
  background: var(--sunken);
  border-radius: 6px;
  overflow: auto;
  font-size: 12px;
  max-height: 320px;
}
.curl {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-height: 160px;
}
</style>
