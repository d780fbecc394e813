<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { setOnService, type ServiceFile } from '@/editor/serviceFile'

/** What a service offers beside its resources: functions on no record, and events to be told of. */
const props = defineProps<{ text: string; design: ServiceFile; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string] }>()

const model = useQuery({
  queryKey: ['model', 'DRAFT'],
  queryFn: () => unwrap(api.GET('/manage/v1/model', { params: { query: { of: 'DRAFT' } } })),
})
const functions = computed(() =>
  (model.data.value?.objects ?? []).flatMap((object) =>
    object.functions
      .filter((one) => one.external && !one.onRecord)
      .map((one) => ({ value: `${object.name}.${one.name}`, label: `${one.label} (${object.name})` })),
  ),
)
/** Events that somebody declared come before those that every object has. */
const events = computed(() =>
  [...(model.data.value?.events ?? [])]
    .sort((one, other) => Number(one.inherent) - Number(other.inherent))
    .map((one) => ({ value: one.name, label: one.name })),
)
const set = (key: string, now: unknown) => emit('update', setOnService(props.text, key, now))
</script>

<template>
  <div class="extras">
    <label>Functions</label>
    <Select
      :value="design.functions"
      mode="multiple"
      size="small"
      :options="functions"
      :disabled="readOnly"
      placeholder="none; those called on no record can be offered here"
      aria-label="Functions of the service"
      @change="(now) => set('functions', now)"
    />
    <label>Events</label>
    <Select
      :value="design.events"
      mode="multiple"
      size="small"
      :options="events"
      :disabled="readOnly"
      placeholder="none; a caller can read those chosen here as a feed"
      aria-label="Events of the service"
      @change="(now) => set('events', now)"
    />
  </div>
</template>

<style scoped>
.extras {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 6px 10px;
  align-items: baseline;
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 10px;
}
label {
  color: var(--quiet);
}
</style>
