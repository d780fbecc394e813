<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Popconfirm, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, unwrap, type ClientView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import SecretOnce from '@/components/SecretOnce.vue'
import { count, ago, moment } from '@/composables/format'
import ClientForm from './ClientForm.vue'
import { useTold } from './told'

const told = useTold()
const clients = useQuery({
  queryKey: ['clients'],
  queryFn: () => unwrap(api.GET('/manage/v1/clients')),
})
const edited = ref<ClientView | 'new' | null>(null)
const made = ref<{ name: string; secret: string; until?: string } | null>(null)
const path = (client: ClientView) => ({ params: { path: { name: client.name } } })
const limitOf = (client: ClientView) =>
  client.callsPerMinute ? `${count(client.callsPerMinute)} a minute` : 'as usual'

async function rotate(client: ClientView) {
  await told(
    unwrap(api.POST('/manage/v1/clients/{name}/secret', { ...path(client), body: {} })).then((answer) => {
      made.value = {
        name: client.name,
        secret: answer.secret,
        until: answer.client.previousUntil,
      }
    }),
  )
}

const disable = (client: ClientView, disabled: boolean) =>
  told(
    unwrap(api.PATCH('/manage/v1/clients/{name}', { ...path(client), body: { disabled } })),
    disabled ? `${client.label} can call nothing now.` : `${client.label} can call again.`,
  )

const remove = (client: ClientView) =>
  told(unwrap(api.DELETE('/manage/v1/clients/{name}', path(client))), `${client.label} is removed.`)

async function saved(secret?: { name: string; secret: string }) {
  edited.value = null
  if (secret) made.value = secret
  await told(Promise.resolve())
}
</script>

<template>
  <section class="card">
    <div class="row">
      <h2>Clients</h2>
      <div class="spacer"></div>
      <Button type="primary" size="small" @click="edited = 'new'"><PlusOutlined /> New client</Button>
    </div>
    <p class="quiet">Outside systems. Each may call what is granted to it and nothing else.</p>
    <LoadState :loading="clients.isLoading.value" :error="clients.error.value" @retry="clients.refetch()">
      <p v-if="!clients.data.value?.length" class="quiet">
        None yet. Make one for each system that calls, so that each can be stopped alone.
      </p>
      <table v-else>
        <thead>
          <tr>
            <th>Client</th>
            <th>May call</th>
            <th>Limit</th>
            <th>Last used</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="client in clients.data.value" :key="client.name" :data-test="client.name">
            <td>
              <strong>{{ client.label }}</strong>
              <Tag v-if="client.disabled" color="red" class="state">disabled</Tag>
              <Tag v-if="client.digests" class="state">digests</Tag>
              <div class="quiet">
                <code>{{ client.name }}</code>
              </div>
              <div v-if="client.previousUntil" class="quiet">
                old secret right until {{ moment(client.previousUntil) }}
              </div>
            </td>
            <td>
              <div v-for="grant in client.grants" :key="grant">
                <code>{{ grant }}</code>
              </div>
              <span v-if="!client.grants.length" class="quiet">nothing</span>
            </td>
            <td>{{ limitOf(client) }}</td>
            <td>{{ client.lastUsed ? ago(client.lastUsed) : 'never' }}</td>
            <td class="actions">
              <Button size="small" @click="edited = client">Grants</Button>
              <Popconfirm
                title="Make a new secret? The old one stays right for 24 hours."
                ok-text="Make it"
                @confirm="rotate(client)"
              >
                <Button size="small">New secret</Button>
              </Popconfirm>
              <Button v-if="client.disabled" size="small" @click="disable(client, false)">Enable</Button>
              <Button v-else size="small" @click="disable(client, true)">Disable</Button>
              <Popconfirm
                title="Remove it for good?"
                ok-text="Remove"
                placement="left"
                @confirm="remove(client)"
              >
                <Button size="small" type="text" class="leave">Remove</Button>
              </Popconfirm>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
    <ClientForm
      v-if="edited"
      :client="edited === 'new' ? null : edited"
      @saved="saved"
      @left="edited = null"
    />
    <SecretOnce v-if="made" :secret="made.secret" :until="made.until" @noted="made = null">
      Give <code>{{ made.name }}</code> this secret. It is kept only as a hash and cannot be shown again.
    </SecretOnce>
  </section>
</template>

<style scoped src="./access-card.css"></style>
