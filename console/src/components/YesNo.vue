<script setup lang="ts">
import { Select } from 'ant-design-vue'

/** A truth that is chosen in words. */
defineProps<{ value: boolean; label: string; disabled?: boolean }>()
const emit = defineEmits<{ update: [value: boolean] }>()
const OPTIONS = [
  { value: 'yes', label: 'yes' },
  { value: 'no', label: 'no' },
]
</script>

<template>
  <Select
    :value="value ? 'yes' : 'no'"
    :options="OPTIONS"
    :disabled="disabled"
    size="small"
    :aria-label="label"
    @change="(now) => emit('update', now === 'yes')"
  />
</template>
