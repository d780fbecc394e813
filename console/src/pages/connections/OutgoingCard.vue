<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { moment } from '@/composables/format'

/** How a service outside was asked of late, and what went wrong. */
const props = defineProps<{ name: string }>()
const DAYS = 30
const traffic = useQuery({
  queryKey: ['traffic'],
  queryFn: () => unwrap(api.GET('/manage/v1/traffic', { params: { query: { days: DAYS } } })),
  refetchInterval: 10_000,
})
const mine = (one: { service: string; protocol: string }) =>
  one.protocol === 'outgoing' && one.service === props.name
const calls = computed(() => traffic.data.value?.calls.filter(mine) ?? [])
const failed = computed(() => traffic.data.value?.failed.filter(mine) ?? [])
const MOST_FAILED = 5
</script>

<template>
  <section v-if="calls.length" class="card asked">
    <h2>Asked in the last {{ DAYS }} days</h2>
    <table data-test="asked">
      <thead>
        <tr>
          <th>For</th>
          <th>Operation</th>
          <th class="number">Calls</th>
          <th class="number">Errors</th>
          <th class="number">Mean</th>
          <th class="number">Slowest</th>
          <th>Last</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in calls" :key="`${one.resource} ${one.operation}`">
          <td>
            <code>{{ one.resource }}</code>
          </td>
          <td>
            <code>{{ one.operation }}</code>
          </td>
          <td class="number">{{ one.calls }}</td>
          <td class="number" :class="{ wrong: one.errors }">{{ one.errors }}</td>
          <td class="number">{{ one.meanMillis.toFixed(1) }} ms</td>
          <td class="number">{{ one.slowestMillis.toFixed(1) }} ms</td>
          <td class="quiet">{{ moment(one.last) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="(one, place) in failed.slice(0, MOST_FAILED)" :key="place" class="failed">
      <span class="quiet">{{ moment(one.at) }}</span> <code>{{ one.operation }}</code> {{ one.message }}
    </p>
  </section>
</template>

<style scoped>
.asked {
  margin-top: 14px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
}
th,
td {
  padding: 4px 12px 4px 0;
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.wrong {
  color: var(--bad);
}
.failed {
  margin: 6px 0 0;
}
h2 {
  font-size: 14px;
  margin: 0 0 6px;
}
</style>
