<script setup lang="ts">
import { Alert } from 'ant-design-vue'
import type { Diagnostic } from '@/api/client'

/** That other files of the draft have errors, with a way to the first of them. */
defineProps<{ errors: Diagnostic[] }>()
</script>

<template>
  <Alert v-if="errors.length" type="warning" show-icon>
    <template #message>
      Elsewhere in the draft:
      <RouterLink :to="{ path: `/packages/file/${errors[0].file}`, query: { line: errors[0].line } }"
        ><code>{{ errors[0].file }}:{{ errors[0].line }}</code></RouterLink
      >
      {{ errors[0].message }}
      <template v-if="errors.length > 1">and {{ errors.length - 1 }} more.</template>
    </template>
  </Alert>
</template>
