<script setup lang="ts">
import { Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap, type ServiceView } from '@/api/client'
import { moment } from '@/composables/format'
import LoadState from '@/components/LoadState.vue'
import RevisionsCard from './RevisionsCard.vue'

/** How a service was called of late, and what went wrong. */
const props = defineProps<{ service: ServiceView }>()

const DAYS = 30
const traffic = useQuery({
  queryKey: ['traffic'],
  queryFn: () => unwrap(api.GET('/manage/v1/traffic', { params: { query: { days: DAYS } } })),
  refetchInterval: 10_000,
})
const mine = (one: { service: string; version: number }) =>
  one.service === props.service.name && one.version === props.service.version
const calls = computed(() => traffic.data.value?.calls.filter(mine) ?? [])
const failed = computed(() => traffic.data.value?.failed.filter(mine) ?? [])
</script>

<template>
  <LoadState :loading="traffic.isLoading.value" :error="traffic.error.value" @retry="traffic.refetch()">
    <section class="card">
      <h2>Calls in the last {{ DAYS }} days</h2>
      <p v-if="!calls.length" class="quiet">
        Nobody has called this service yet. Hand over its contract and the credentials of a client.
      </p>
      <table v-else data-test="calls">
        <thead>
          <tr>
            <th>Call</th>
            <th>Over</th>
            <th>By</th>
            <th class="number">Calls</th>
            <th class="number">Errors</th>
            <th class="number">Mean</th>
            <th class="number">Slowest</th>
            <th>Last</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="one in calls"
            :key="`${one.resource} ${one.operation} ${one.protocol} ${one.caller} ${one.revision}`"
          >
            <td>
              <code>{{ one.resource }} {{ one.operation }}</code>
            </td>
            <td>
              {{ one.protocol }}
              <span v-if="one.revision" class="quiet">revision {{ one.revision }}</span>
            </td>
            <td>{{ one.caller }}</td>
            <td class="number">{{ one.calls }}</td>
            <td class="number" :class="{ wrong: one.errors }">{{ one.errors }}</td>
            <td class="number">{{ one.meanMillis.toFixed(1) }} ms</td>
            <td class="number">{{ one.slowestMillis.toFixed(1) }} ms</td>
            <td class="quiet">{{ moment(one.last) }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <RevisionsCard :service="service" />
    <section v-if="failed.length" class="card">
      <h2>Last calls that failed</h2>
      <div v-for="(one, place) in failed" :key="place" class="failed">
        <Tag color="orange">{{ one.status }}</Tag>
        <code>{{ one.resource }} {{ one.operation }}</code>
        <span class="quiet">{{ one.caller }}, {{ one.protocol }}, {{ moment(one.at) }}</span>
        <RouterLink v-if="one.trace" :to="`/activity/${one.trace}`">why</RouterLink>
        <div class="said">{{ one.message }}</div>
      </div>
    </section>
  </LoadState>
</template>

<style scoped src="./card-table.css"></style>
<style scoped>
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.wrong {
  color: var(--error, #b3261e);
  font-weight: 600;
}
.failed {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: baseline;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.said {
  flex-basis: 100%;
}
</style>
