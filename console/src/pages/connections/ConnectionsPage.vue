<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { findConnections, type ConnectionView } from '@/api/connections'
import LoadState from '@/components/LoadState.vue'
import { useSession } from '@/composables/session'
import { useTold } from '../access/told'
import NewConnection from './NewConnection.vue'
import ReachForm from './ReachForm.vue'

const { may } = useSession()
const told = useTold()
const connections = useQuery({ queryKey: ['connections'], queryFn: findConnections })
const reached = ref<ConnectionView>()
const making = ref(false)

async function saved() {
  reached.value = undefined
  await told(Promise.resolve(), 'Kept.')
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Connections</h1>
      <span class="quiet">Outside services whose codes and answers are used here</span>
      <div class="spacer"></div>
      <Button v-if="may('design')" type="primary" @click="making = true"
        ><PlusOutlined /> New connection</Button
      >
    </div>
    <LoadState
      :loading="connections.isLoading.value"
      :error="connections.error.value"
      @retry="connections.refetch()"
    >
      <div v-if="!connections.data.value?.length" class="empty">
        None yet. Make one from the OpenAPI document of a service: its codes fill pick lists, and functions
        ask it.
      </div>
      <section v-else class="card">
        <table>
          <thead>
            <tr>
              <th>Connection</th>
              <th>Gives</th>
              <th>Reached at</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in connections.data.value" :key="one.name" :data-test="one.name">
              <td>
                <RouterLink v-if="may('design')" :to="`/connections/${one.name}`"
                  ><strong>{{ one.label }}</strong></RouterLink
                >
                <strong v-else>{{ one.label }}</strong>
                <Tag v-if="!one.live" color="blue" class="state">not released yet</Tag>
                <Tag v-if="one.leftAlone" color="red" class="state">does not answer</Tag>
                <div v-if="one.describe" class="quiet">{{ one.describe }}</div>
              </td>
              <td>
                <div v-for="lookup in one.lookups" :key="lookup.name">
                  <code>{{ lookup.name }}</code> <span class="quiet">codes</span>
                </div>
                <div v-for="call in one.calls" :key="call.name">
                  <code>{{ call.name }}({{ call.parameters.map((each) => each.name).join(', ') }})</code>
                </div>
              </td>
              <td>
                <template v-if="one.reach">
                  <code class="address">{{ one.reach.address }}</code>
                  <div class="quiet">
                    {{ one.reach.scheme === 'none' ? 'no credentials' : one.reach.scheme }}
                  </div>
                </template>
                <span v-else class="missing">No address yet</span>
              </td>
              <td class="actions">
                <Button v-if="may('operate')" size="small" @click="reached = one">{{
                  one.reach ? 'Change' : 'Give an address'
                }}</Button>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </LoadState>
    <ReachForm v-if="reached" :connection="reached" @saved="saved" @left="reached = undefined" />
    <NewConnection v-if="making" @left="making = false" />
  </div>
</template>

<style scoped src="../../components/listing.css"></style>

<style scoped>
.missing {
  color: var(--bad);
}
</style>
