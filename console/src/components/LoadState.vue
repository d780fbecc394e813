<script setup lang="ts">
import { Alert, Button, Spin } from 'ant-design-vue'

defineProps<{ loading: boolean; error: Error | null }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <Alert v-if="error" type="error" show-icon :message="error.message">
    <template #action><Button size="small" @click="$emit('retry')">Try again</Button></template>
  </Alert>
  <div v-else-if="loading" class="empty"><Spin /></div>
  <slot v-else />
</template>
