<script setup lang="ts">
import { Alert, Button } from 'ant-design-vue'
import type { KeptState } from '@/composables/draftFile'

/** Whether what is typed is in the draft; when somebody else changed the file, whose text it shall be. */
defineProps<{ state: KeptState; problem: string }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()
</script>

<template>
  <Alert v-if="problem" :type="state === 'conflict' ? 'warning' : 'error'" show-icon :message="problem">
    <template v-if="state === 'conflict'" #action>
      <Button size="small" @click="emit('theirs')">Take theirs</Button>
      <Button size="small" class="mine" @click="emit('mine')">Keep mine</Button>
    </template>
    <template v-else-if="state === 'failed'" #action>
      <Button size="small" @click="emit('mine')">Try again</Button>
    </template>
  </Alert>
</template>

<style scoped>
.mine {
  margin-left: 6px;
}
</style>
