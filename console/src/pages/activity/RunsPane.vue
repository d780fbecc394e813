<script setup lang="ts">
import { Segmented, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { moment } from '@/composables/format'

const name = ref('')
const key = ref('')
const outcome = ref<'all' | 'done' | 'refused'>('all')
const runs = useQuery({
  queryKey: computed(() => ['runs', name.value, key.value, outcome.value]),
  queryFn: () =>
    unwrap(
      api.GET('/manage/v1/runs', {
        params: {
          query: {
            name: name.value,
            key: key.value,
            done: outcome.value === 'all' ? undefined : outcome.value === 'done',
            limit: 100,
          },
        },
      }),
    ),
  refetchInterval: 5_000,
})
</script>

<template>
  <section class="card whole">
    <div class="tools">
      <Segmented
        v-model:value="outcome"
        :options="[
          { value: 'all', label: 'All' },
          { value: 'done', label: 'Done' },
          { value: 'refused', label: 'Refused' },
        ]"
      />
      <input
        v-model.lazy="name"
        class="search"
        placeholder="Function, such as Order.close"
        aria-label="Name"
      />
      <input v-model.lazy="key" class="search" placeholder="Key of a record" aria-label="Key" />
    </div>
    <LoadState :loading="runs.isLoading.value" :error="runs.error.value" @retry="runs.refetch()">
      <div v-if="!runs.data.value?.length" class="empty">No run matches.</div>
      <table v-else>
        <thead>
          <tr>
            <th>What</th>
            <th>Record</th>
            <th>Outcome</th>
            <th>What came of it</th>
            <th class="right">Took</th>
            <th>When</th>
            <th>By</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, at) in runs.data.value" :key="at">
            <td>
              <span class="quiet">{{ one.kind }}</span> <strong>{{ one.name }}</strong>
            </td>
            <td>
              <RouterLink v-if="one.key" :to="`/data/${one.object}/record/${encodeURIComponent(one.key)}`">{{
                one.key
              }}</RouterLink>
            </td>
            <td>
              <Tag :color="one.done ? 'cyan' : 'red'">{{ one.done ? 'done' : 'refused' }}</Tag>
            </td>
            <td class="said">{{ one.said }}</td>
            <td class="right mono">{{ one.millis.toFixed(1) }} ms</td>
            <td class="quiet">{{ moment(one.at) }}</td>
            <td class="quiet">{{ one.by }} · {{ one.via }}</td>
            <td>
              <RouterLink v-if="one.trace" :to="`/activity/${one.trace}`">Steps</RouterLink>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
  </section>
</template>

<style scoped>
@import './table.css';
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
