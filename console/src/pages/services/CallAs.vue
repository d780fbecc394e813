<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { caller } from './caller'

/** In whose name calls are tried: one's own, or that of a client with all that it may and may not do. */
const clients = useQuery({
  queryKey: ['clients'],
  queryFn: () => unwrap(api.GET('/manage/v1/clients')),
})
const options = computed(() => [
  { value: '', label: 'as yourself' },
  ...(clients.data.value ?? []).map((one) => ({
    value: one.name,
    label: `as ${one.label}`,
    disabled: one.disabled,
  })),
])
</script>

<template>
  <Select
    :value="caller"
    :options="options"
    style="width: 200px"
    aria-label="Call as"
    @change="(now) => (caller = String(now ?? ''))"
  />
</template>
