<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { FieldView, ObjectView } from '@/api/client'
import { showRecord } from '@/api/records'
import { shown } from '@/composables/format'

/** Some fields of the record that is picked in a reference. */
const props = defineProps<{ to: ObjectView | undefined; address: string; fields: string[] }>()
const record = useQuery({
  queryKey: computed(() => ['record', props.to?.name, props.address]),
  queryFn: () => showRecord(props.to!.name, props.address),
  enabled: computed(() => !!props.to),
  retry: false,
})
const facts = computed(() =>
  props.fields
    .map((name) => props.to?.fields.find((field) => field.name === name))
    .filter((field): field is FieldView => !!field)
    .map((field) => ({ label: field.label, text: shown(field, record.data.value?.values[field.name]) }))
    .filter((fact) => fact.text),
)
</script>

<template>
  <dl v-if="record.data.value && facts.length">
    <template v-for="fact in facts" :key="fact.label">
      <dt>{{ fact.label }}</dt>
      <dd>{{ fact.text }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 8px;
  margin: 3px 0 0;
  font-size: 12.5px;
}
dt {
  font-weight: 400;
  color: var(--quiet);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
