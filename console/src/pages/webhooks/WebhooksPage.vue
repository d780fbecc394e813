<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Popconfirm, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, unwrap, type WebhookView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import SecretOnce from '@/components/SecretOnce.vue'
import { moment } from '@/composables/format'
import { useTold } from '../access/told'
import WebhookForm from './WebhookForm.vue'

const told = useTold()
const webhooks = useQuery({
  queryKey: ['webhooks'],
  queryFn: () => unwrap(api.GET('/manage/v1/webhooks')),
})
const edited = ref<WebhookView | 'new'>()
const made = ref<{ webhook: WebhookView; secret: string }>()
const path = (one: WebhookView) => ({ params: { path: { name: one.name } } })

const rotate = (one: WebhookView) =>
  told(
    unwrap(api.POST('/manage/v1/webhooks/{name}/rotate', { ...path(one), body: {} })).then(
      (answer) => (made.value = answer),
    ),
  )
const test = (one: WebhookView) =>
  told(
    unwrap(api.POST('/manage/v1/webhooks/{name}/test', path(one))),
    'A test is on its way; see Deliveries on the page Activity.',
  )
const disable = (one: WebhookView, disabled: boolean) =>
  told(
    unwrap(api.PATCH('/manage/v1/webhooks/{name}', { ...path(one), body: { disabled } })),
    disabled ? `${one.label} hears nothing now.` : `${one.label} hears again.`,
  )
const remove = (one: WebhookView) =>
  told(unwrap(api.DELETE('/manage/v1/webhooks/{name}', path(one))), `${one.label} is removed.`)

async function saved(fresh?: { webhook: WebhookView; secret: string }) {
  edited.value = undefined
  made.value = fresh
  await told(Promise.resolve())
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Webhooks</h1>
      <span class="quiet"
        >Outside systems that are told of events, signed and again and again until they take it</span
      >
      <div class="spacer"></div>
      <RouterLink :to="{ path: '/activity', query: { show: 'deliveries' } }">Deliveries</RouterLink>
      <Button type="primary" @click="edited = 'new'"><PlusOutlined /> New webhook</Button>
    </div>
    <LoadState :loading="webhooks.isLoading.value" :error="webhooks.error.value" @retry="webhooks.refetch()">
      <div v-if="!webhooks.data.value?.length" class="empty">
        None yet. Make one for each system that wants to hear of events; what it is sent is in the AsyncAPI
        document of a service.
      </div>
      <section v-else class="card">
        <table>
          <thead>
            <tr>
              <th>Webhook</th>
              <th>Hears</th>
              <th>Address</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in webhooks.data.value" :key="one.name" :data-test="one.name">
              <td>
                <strong>{{ one.label }}</strong>
                <Tag v-if="one.disabled" color="red" class="state">disabled</Tag>
                <div class="quiet">
                  <code>{{ one.name }}</code>
                </div>
                <div v-if="one.previousUntil" class="quiet">
                  old secret signs too until {{ moment(one.previousUntil) }}
                </div>
              </td>
              <td>
                <div v-for="event in one.events" :key="event">
                  <code>{{ event }}</code>
                </div>
                <div v-if="one.filter" class="quiet">
                  when <code>{{ one.filter }}</code>
                </div>
              </td>
              <td>
                <code class="address">{{ one.address }}</code>
              </td>
              <td class="actions">
                <Button size="small" @click="test(one)">Send a test</Button>
                <Button size="small" @click="edited = one">Change</Button>
                <Popconfirm
                  title="Make a new secret? For 24 hours both sign."
                  ok-text="Make it"
                  @confirm="rotate(one)"
                >
                  <Button size="small">New secret</Button>
                </Popconfirm>
                <Button size="small" @click="disable(one, !one.disabled)">{{
                  one.disabled ? 'Enable' : 'Disable'
                }}</Button>
                <Popconfirm
                  title="Remove it for good?"
                  ok-text="Remove"
                  placement="left"
                  @confirm="remove(one)"
                >
                  <Button size="small" type="text" class="leave">Remove</Button>
                </Popconfirm>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </LoadState>
    <WebhookForm
      v-if="edited"
      :webhook="edited === 'new' ? undefined : edited"
      @saved="saved"
      @left="edited = undefined"
    />
    <SecretOnce
      v-if="made"
      :secret="made.secret"
      :until="made.webhook.previousUntil"
      @noted="made = undefined"
    >
      The receiver of <code>{{ made.webhook.name }}</code> checks signatures with this secret.
    </SecretOnce>
  </div>
</template>

<style scoped src="../../components/listing.css"></style>
