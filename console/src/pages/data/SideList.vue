<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { addressOf, findRecords } from '@/api/records'
import { isNumeric, shown } from '@/composables/format'
import type { RelatedList } from './formLayout'

/** Records that refer to the one in the form, a few of them with chosen fields. */
const props = defineProps<{ list: RelatedList; atMost: number }>()
const page = useQuery({
  queryKey: computed(() => ['records', props.list.target.name, 'beside', props.list.filter]),
  queryFn: () =>
    findRecords(props.list.target.name, { filter: props.list.filter, limit: props.atMost, count: true }),
})
const address = (at: number) => {
  const record = page.data.value!.records[at]
  const key = encodeURIComponent(addressOf(props.list.target.key, record))
  return `/data/${props.list.target.name}/record/${key}`
}
</script>

<template>
  <section class="card beside">
    <h2>
      <RouterLink :to="{ path: `/data/${list.target.name}`, query: { filter: list.filter } }">{{
        list.label
      }}</RouterLink>
      {{ ' ' }}<span class="quiet">{{ page.data.value?.total ?? '' }}</span>
    </h2>
    <p v-if="page.error.value" class="bad">{{ page.error.value.message }}</p>
    <p v-else-if="page.data.value && !page.data.value.records.length" class="quiet">None.</p>
    <table v-else-if="page.data.value">
      <thead>
        <tr>
          <th v-for="field in list.columns" :key="field.name" :class="{ number: isNumeric(field) }">
            {{ field.label }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(record, at) in page.data.value.records" :key="record.id">
          <td
            v-for="(field, place) in list.columns"
            :key="field.name"
            :class="{ number: isNumeric(field) }"
            :title="shown(field, record.values[field.name])"
          >
            <RouterLink v-if="!place" :to="address(at)">{{
              shown(field, record.values[field.name]) || '—'
            }}</RouterLink>
            <template v-else>{{ shown(field, record.values[field.name]) }}</template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 6px;
}
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  font-size: 12.5px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
}
th,
td {
  padding: 2px 6px 2px 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.number {
  text-align: right;
}
p {
  margin: 0;
}
</style>
