<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { versionsOf } from '@/api/draft'
import { ago, count, day } from '@/composables/format'
import { useSession } from '@/composables/session'
import SmallBars from './SmallBars.vue'

/** How it runs: calls of services, deliveries, examples, and what colleagues did to the draft. */
const { may, me } = useSession()
const DAYS = 14
const A_MINUTE = 60_000
const traffic = useQuery({
  queryKey: ['traffic', 'home'],
  queryFn: () => unwrap(api.GET('/manage/v1/traffic', { params: { query: { days: DAYS } } })),
})
const seesDeliveries = computed(() => may('design') || may('operate'))
const deliveries = useQuery({
  queryKey: ['deliveries', 'counts'],
  queryFn: () => unwrap(api.GET('/manage/v1/deliveries/counts')),
  enabled: seesDeliveries,
})
const requirements = useQuery({
  queryKey: ['requirements'],
  queryFn: () => unwrap(api.GET('/manage/v1/requirements')),
  // Each asking plays every example; they do not change by looking.
  staleTime: A_MINUTE,
  enabled: computed(() => may('design')),
})
const versions = useQuery({
  queryKey: ['draft-versions'],
  queryFn: () => versionsOf(),
  enabled: computed(() => may('design')),
})
const days = computed(() =>
  (traffic.data.value?.byDay ?? []).map((one) => ({
    day: day(one.day),
    all: one.calls,
    failed: one.errors,
  })),
)
const today = computed(() => days.value.at(-1) ?? { all: 0, failed: 0 })
const MOST = 5
/** The latest file of each person, others first. */
const drafting = computed(() => {
  const seen = new Set<string>()
  return (versions.data.value ?? [])
    .filter((one) => {
      const key = `${one.by} ${one.path}`
      return !seen.has(key) && seen.add(key)
    })
    .sort((a, b) => Number(a.by === me.value?.name) - Number(b.by === me.value?.name))
    .slice(0, MOST)
})
</script>

<template>
  <section class="running">
    <RouterLink to="/services" class="card">
      <h2>Calls today</h2>
      <div class="row">
        <strong data-test="calls-today">{{ count(today.all) }}</strong>
        <span v-if="today.failed" class="bad">{{ count(today.failed) }} failed</span>
        <span class="spacer"></span>
        <SmallBars v-if="days.length" :days="days" label="Calls a day" />
      </div>
    </RouterLink>
    <RouterLink
      v-if="seesDeliveries"
      to="/activity"
      :class="['card', { warm: deliveries.data.value?.parked }]"
    >
      <h2>Deliveries parked</h2>
      <strong>{{ deliveries.data.value?.parked ?? '–' }}</strong>
      <span class="quiet"> {{ deliveries.data.value?.waiting ?? 0 }} on their way</span>
    </RouterLink>
    <RouterLink
      v-if="may('design')"
      to="/requirements"
      :class="['card', { warm: requirements.data.value?.failing }]"
    >
      <h2>Requirements failing</h2>
      <strong>{{ requirements.data.value?.failing ?? '–' }}</strong>
      <span class="quiet">
        {{ requirements.data.value?.proved ?? 0 }} proved, {{ requirements.data.value?.open ?? 0 }} open</span
      >
    </RouterLink>
    <div v-if="drafting.length" class="card">
      <h2>In the draft of late</h2>
      <div v-for="one in drafting" :key="one.by + one.path" class="file">
        <RouterLink :to="`/packages/file/${one.path}`">{{ one.path.split('/').at(-1) }}</RouterLink>
        <span class="quiet"> by {{ one.by }}, {{ ago(one.at) }}</span>
      </div>
    </div>
  </section>
</template>

<style scoped>
.running {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 12px;
  margin-bottom: 16px;
}
a.card {
  color: var(--text);
}
a.card:hover {
  text-decoration: none;
  border-color: var(--action);
}
h2 {
  margin: 0 0 4px;
  font-size: 13px;
  font-weight: 500;
  color: var(--quiet);
}
strong {
  margin-right: 8px;
  font-size: 22px;
  font-weight: 600;
}
.row {
  align-items: flex-end;
}
.warm {
  background: var(--sand-soft);
}
.bad {
  color: var(--bad);
}
.file {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
