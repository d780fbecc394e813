<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { Timeline, TimelineItem } from 'ant-design-vue'
import { computed } from 'vue'
import { recordHistory, type RecordView } from '@/api/records'
import { moment } from '@/composables/format'

/** What happened to a record, newest first. */
const props = defineProps<{ object: string; record: RecordView }>()
const history = useQuery({
  queryKey: computed(() => ['history', props.object, props.record.id, props.record.version]),
  queryFn: () => recordHistory(props.object, props.record.id),
})

/** A value as people read it: of a file its name, not by what it is known. */
const said = (value: string | null) =>
  value?.replace(/^(.+); type=[^;]+(?:;[^;]+)*; size=\d+; sha256=[0-9a-f]{64}$/, '$1') ?? 'empty'
</script>

<template>
  <section class="card">
    <h2>History</h2>
    <Timeline v-if="history.data.value" data-test="history">
      <TimelineItem v-for="entry in history.data.value.entries" :key="entry.version" color="var(--action)">
        <div>
          <strong>{{ entry.operation }}</strong> by {{ entry.by }}
          <div class="quiet">{{ moment(entry.at) }} · {{ entry.via }}</div>
        </div>
        <div v-for="one in entry.operation === 'created' ? [] : entry.changes" :key="one.path" class="change">
          <span class="mono">{{ one.path }}</span>
          <span class="quiet"> {{ said(one.before) }} → </span>{{ said(one.after) }}
        </div>
      </TimelineItem>
    </Timeline>
  </section>
</template>

<style scoped>
.change {
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.change .mono {
  margin-right: 6px;
}
</style>
