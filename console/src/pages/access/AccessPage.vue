<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { api, unwrap } from '@/api/client'
import { moment } from '@/composables/format'
import ClientsCard from './ClientsCard.vue'
import PeopleCard from './PeopleCard.vue'
import RolesCard from './RolesCard.vue'

const log = useQuery({
  queryKey: ['access-log'],
  queryFn: () => unwrap(api.GET('/manage/v1/access-log')),
})
</script>

<template>
  <div class="page">
    <div class="page-head"><h1>Access</h1></div>
    <ClientsCard />
    <PeopleCard />
    <RolesCard />
    <section class="card">
      <h2>Latest changes of access</h2>
      <div v-for="(one, place) in log.data.value?.slice(0, 12)" :key="place" class="quiet">
        {{ moment(one.at) }}: {{ one.by }}, {{ one.what }} <strong>{{ one.subject }}</strong>
        {{ one.detail }}
      </div>
    </section>
  </div>
</template>

<style scoped>
section {
  margin-bottom: 14px;
}
h2 {
  margin: 0 0 4px;
}
</style>
