<script setup lang="ts">
import { Alert, Button, Popconfirm } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { count, moment } from '@/composables/format'
import { useSession } from '@/composables/session'

/** Values that releases took out of use, for as long as they can come back; nothing when there are none. */
const queries = useQueryClient()
const { may } = useSession()
const kept = useQuery({ queryKey: ['kept'], queryFn: () => unwrap(api.GET('/manage/v1/kept-values')) })
const problem = ref('')

async function forget(number: number) {
  problem.value = ''
  try {
    await unwrap(api.DELETE('/manage/v1/kept-values/{number}', { params: { path: { number } } }))
    await queries.invalidateQueries()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <section v-if="kept.data.value?.length" class="card" data-test="kept">
    <h2>Kept aside</h2>
    <p class="quiet">Values that a release removed. They are there again when what they belong to is.</p>
    <div v-for="one in kept.data.value" :key="one.number" class="row one">
      <span class="what">
        <strong>{{ one.what }}</strong>
        <span class="quiet">
          {{ count(one.rows) }} {{ one.rows === 1 ? 'value' : 'values' }} · last in release
          {{ one.release }} · until {{ moment(one.until) }}
        </span>
      </span>
      <Popconfirm
        v-if="may('release')"
        :title="`Drop ${one.what} for good?`"
        ok-text="Drop"
        @confirm="forget(one.number)"
      >
        <Button size="small" type="text" danger :aria-label="`drop ${one.what}`">drop</Button>
      </Popconfirm>
    </div>
    <Alert v-if="problem" type="error" show-icon :message="problem" />
  </section>
</template>

<style scoped>
.one {
  justify-content: space-between;
  padding: 4px 0;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
}
</style>
