<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { moment } from '@/composables/format'

const search = ref('')
const events = useQuery({
  queryKey: computed(() => ['events', search.value]),
  queryFn: () =>
    unwrap(api.GET('/manage/v1/events', { params: { query: { search: search.value, limit: 100 } } })),
  refetchInterval: 5_000,
})
</script>

<template>
  <section class="card whole">
    <input
      v-model.lazy="search"
      class="search"
      placeholder="Search by event or key …"
      aria-label="Search events"
    />
    <LoadState :loading="events.isLoading.value" :error="events.error.value" @retry="events.refetch()">
      <div v-if="!events.data.value?.length" class="empty">
        {{
          search
            ? 'No event matches.'
            : 'Nothing was raised yet. An event is kept when a handler, a webhook or a service hears it.'
        }}
      </div>
      <table v-else>
        <thead>
          <tr>
            <th>Event</th>
            <th>About</th>
            <th>Told</th>
            <th>When</th>
            <th>By</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in events.data.value" :key="one.id">
            <td>
              <strong>{{ one.name }}</strong>
            </td>
            <td>
              <RouterLink
                v-if="one.object && one.key"
                :to="`/data/${one.object}/record/${encodeURIComponent(one.key)}`"
                >{{ one.object }} {{ one.key }}</RouterLink
              >
            </td>
            <td class="wide">
              <code class="told">{{ JSON.stringify(one.data) }}</code>
            </td>
            <td class="quiet">{{ moment(one.at) }}</td>
            <td class="quiet">{{ one.by }} · {{ one.via }}</td>
          </tr>
        </tbody>
      </table>
    </LoadState>
  </section>
</template>

<style scoped>
@import './table.css';
</style>
