<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { ago, moment } from '@/composables/format'
import LoadState from './LoadState.vue'
import { browserOf } from './browserName'

/** Where whoever looks is signed in, to end what is not wanted any more. */
const sessions = useQuery({
  queryKey: ['own-sessions'],
  queryFn: () => unwrap(api.GET('/manage/v1/sessions')),
})
const problem = ref('')

async function end(id: string) {
  problem.value = ''
  try {
    await unwrap(api.DELETE('/manage/v1/sessions/{id}', { params: { path: { id } } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
  await sessions.refetch()
}
</script>

<template>
  <section aria-label="Where you are signed in">
    <h3>Where you are signed in</h3>
    <LoadState :loading="sessions.isLoading.value" :error="sessions.error.value" @retry="sessions.refetch()">
      <ul>
        <li v-for="one in sessions.data.value" :key="one.id">
          <div>
            {{ browserOf(one.agent) }} <span class="quiet">from {{ one.address }}</span>
            <div class="quiet">since {{ moment(one.begun) }}, used {{ ago(one.used) }}</div>
          </div>
          <span v-if="one.own" class="quiet">this one</span>
          <Button v-else size="small" @click="end(one.id)">End it</Button>
        </li>
      </ul>
      <p v-if="problem" role="alert">{{ problem }}</p>
    </LoadState>
  </section>
</template>

<style scoped>
h3 {
  margin: 8px 0 0;
  font-size: 14px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 240px;
  overflow: auto;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
li:last-child {
  border-bottom: 0;
}
</style>
