<script setup lang="ts">
import { Segmented } from 'ant-design-vue'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import DeliveriesPane from './DeliveriesPane.vue'
import EventsPane from './EventsPane.vue'
import RequestsPane from './RequestsPane.vue'
import RunsPane from './RunsPane.vue'

defineProps<{ trace?: string }>()
const route = useRoute()
const router = useRouter()

const VIEWS = {
  requests: {
    label: 'Requests',
    pane: RequestsPane,
    says: 'What requests did, step by step: all that were refused, and those that asked for it',
  },
  events: { label: 'Events', pane: EventsPane, says: 'What has happened, newest first' },
  deliveries: {
    label: 'Deliveries',
    pane: DeliveriesPane,
    says: 'Each event on its way to a handler or a webhook',
  },
  runs: { label: 'Runs', pane: RunsPane, says: 'Each run of a function, a handler or a schedule' },
}
type View = keyof typeof VIEWS
const view = computed<View>(() => {
  const asked = String(route.query.show ?? 'requests')
  return asked in VIEWS ? (asked as View) : 'requests'
})
const options = Object.entries(VIEWS).map(([value, one]) => ({ value, label: one.label }))
</script>

<template>
  <div class="page activity">
    <div class="page-head">
      <h1>Activity</h1>
      <Segmented
        :value="view"
        :options="options"
        @change="(now) => router.replace({ path: '/activity', query: { show: String(now) } })"
      />
      <span class="quiet">{{ VIEWS[view].says }}</span>
    </div>
    <div class="pane">
      <RequestsPane v-if="view === 'requests'" :trace="trace" />
      <component :is="VIEWS[view].pane" v-else />
    </div>
  </div>
</template>

<style scoped>
.activity {
  display: flex;
  flex-direction: column;
}
.pane {
  flex: 1;
  min-height: 0;
}
</style>
