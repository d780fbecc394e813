<script setup lang="ts">
import { Button, Segmented, Tag, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { moment } from '@/composables/format'

const queries = useQueryClient()
const state = ref('all')
const search = ref('')
const opened = ref<number>()

const deliveries = useQuery({
  queryKey: computed(() => ['deliveries', state.value, search.value]),
  queryFn: () =>
    unwrap(
      api.GET('/manage/v1/deliveries', {
        params: {
          query: {
            state: state.value === 'all' ? undefined : state.value,
            search: search.value,
            limit: 100,
          },
        },
      }),
    ),
  refetchInterval: 5_000,
})
const counts = useQuery({
  queryKey: ['deliveries', 'counts'],
  queryFn: () => unwrap(api.GET('/manage/v1/deliveries/counts')),
  refetchInterval: 5_000,
})
const detail = useQuery({
  queryKey: computed(() => ['deliveries', 'one', opened.value]),
  queryFn: () =>
    unwrap(api.GET('/manage/v1/deliveries/{number}', { params: { path: { number: opened.value! } } })),
  enabled: computed(() => opened.value !== undefined),
  refetchInterval: 2_000,
})
const COLOURS: Record<string, string> = { done: 'cyan', waiting: 'gold', parked: 'red' }
const options = computed(() => [
  { value: 'all', label: 'All' },
  { value: 'waiting', label: `Waiting ${counts.data.value?.waiting ?? ''}` },
  { value: 'parked', label: `Parked ${counts.data.value?.parked ?? ''}` },
  { value: 'done', label: 'Done' },
])

async function again(number?: number) {
  try {
    const { count } = await unwrap(
      number === undefined
        ? api.POST('/manage/v1/deliveries/redeliver', { params: { query: { target: '' } } })
        : api.POST('/manage/v1/deliveries/{number}/redeliver', { params: { path: { number } } }),
    )
    void toast.success(`${count} ${count === 1 ? 'delivery is' : 'deliveries are'} tried again.`)
    await queries.invalidateQueries({ queryKey: ['deliveries'] })
  } catch (error) {
    void toast.error((error as Error).message)
  }
}
</script>

<template>
  <section class="card whole">
    <div class="tools">
      <Segmented v-model:value="state" :options="options" />
      <input
        v-model.lazy="search"
        class="search"
        placeholder="Search by event, key or target …"
        aria-label="Search deliveries"
      />
      <span class="spacer"></span>
      <Button v-if="counts.data.value?.parked" @click="again()">Try all parked again</Button>
    </div>
    <LoadState
      :loading="deliveries.isLoading.value"
      :error="deliveries.error.value"
      @retry="deliveries.refetch()"
    >
      <div v-if="!deliveries.data.value?.length" class="empty">
        {{
          state === 'parked'
            ? 'Nothing is parked: whatever was raised has arrived or is being tried.'
            : 'No delivery here.'
        }}
      </div>
      <table v-else>
        <thead>
          <tr>
            <th>Event</th>
            <th>About</th>
            <th>To</th>
            <th>State</th>
            <th class="right">Tries</th>
            <th>What came of it</th>
            <th>When</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="one in deliveries.data.value" :key="one.number">
            <tr :data-test="`delivery-${one.number}`">
              <td>
                <strong>{{ one.event.name }}</strong>
              </td>
              <td>
                <RouterLink
                  v-if="one.event.object && one.event.key"
                  :to="`/data/${one.event.object}/record/${encodeURIComponent(one.event.key)}`"
                  >{{ one.event.key }}</RouterLink
                >
              </td>
              <td>{{ one.target }}</td>
              <td>
                <Tag :color="COLOURS[one.state]">{{ one.state }}</Tag>
              </td>
              <td class="right">{{ one.tries }}</td>
              <td class="said">
                {{ one.said }}
                <span v-if="one.due && one.tries" class="quiet">next try {{ moment(one.due) }}</span>
              </td>
              <td class="quiet">{{ moment(one.event.at) }}</td>
              <td class="buttons">
                <Button size="small" @click="opened = opened === one.number ? undefined : one.number"
                  >Tries</Button
                >
                <Button v-if="one.state !== 'waiting'" size="small" @click="again(one.number)"
                  >Deliver again</Button
                >
                <RouterLink v-if="one.trace" :to="`/activity/${one.trace}`">Steps</RouterLink>
              </td>
            </tr>
            <tr v-if="opened === one.number">
              <td colspan="8" class="tries">
                <div>
                  Told: <code class="told">{{ JSON.stringify(one.event.data) }}</code>
                </div>
                <p v-if="detail.data.value && !detail.data.value.tries.length" class="quiet">
                  {{
                    one.target.startsWith('webhook')
                      ? 'It was not sent yet.'
                      : 'Handlers and schedules run here in the service; see Runs and Steps.'
                  }}
                </p>
                <div v-for="(attempt, at) in detail.data.value?.tries ?? []" :key="at" class="attempt">
                  <div>
                    {{ moment(attempt.at) }} · {{ attempt.status || 'no answer' }} · {{ attempt.millis }} ms ·
                    {{ attempt.said }}
                  </div>
                  <pre tabindex="0">{{ attempt.request }}</pre>
                  <pre v-if="attempt.answer" tabindex="0">{{ attempt.answer }}</pre>
                </div>
              </td>
            </tr>
          </template>
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
.spacer {
  flex: 1;
}
.buttons {
  white-space: nowrap;
  text-align: right;
}
.buttons > * {
  margin-left: 6px;
}
.tries {
  background: var(--sunken);
  padding: 8px 12px;
}
.attempt {
  margin-top: 6px;
}
pre {
  margin: 2px 0;
  font-size: 12px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  color: var(--quiet);
  max-height: 160px;
  overflow: auto;
}
</style>
