<script setup lang="ts">
import { Alert } from 'ant-design-vue'
import type { Schemas } from '@/api/client'
import { count, moment } from '@/composables/format'

/** What recorded calls are answered on the copy, without the draft and with it. */
defineProps<{ of: Schemas['ReplayView'] }>()
</script>

<template>
  <p v-if="!of.differences.length" class="quiet">
    {{ count(of.played) }} {{ of.played === 1 ? 'call' : 'calls' }}
    <template v-if="of.since">recorded since {{ moment(of.since) }}</template>
    {{ of.played === 1 ? 'was' : 'were' }} played without the draft and with it; all are answered alike.
  </p>
  <Alert v-else type="warning" show-icon message="Recorded calls that would be answered otherwise">
    <template #description>
      <p>
        {{ count(of.played) }} calls, recorded
        <template v-if="of.since">since {{ moment(of.since) }}</template
        >, were played without the draft and with it.
      </p>
      <table>
        <thead>
          <tr>
            <th>Call</th>
            <th>Now</th>
            <th>With the draft</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, place) in of.differences" :key="place">
            <td>
              <strong>{{ count(one.count) }} of {{ count(one.of) }}</strong> {{ one.call }}
              <div class="quiet example">{{ one.example }}</div>
            </td>
            <td>{{ one.now }}</td>
            <td>{{ one.then }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </Alert>
  <p v-if="of.skipped" class="quiet">
    {{ count(of.skipped) }} could not be played, as of clients that are no longer there.
  </p>
</template>

<style scoped>
p {
  margin: 10px 0;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th:first-child {
  width: 46%;
}
th {
  font-weight: 600;
  text-align: left;
}
th,
td {
  padding: 4px 12px 4px 0;
  vertical-align: top;
  border-bottom: 1px solid var(--line);
}
tr:last-child td {
  border-bottom: 0;
}
.example {
  overflow-wrap: anywhere;
  font-size: 12px;
}
</style>
