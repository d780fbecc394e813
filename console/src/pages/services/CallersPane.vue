<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Tag } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap, type ServiceView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import SecretOnce from '@/components/SecretOnce.vue'
import { ago } from '@/composables/format'
import ClientForm from '@/pages/access/ClientForm.vue'
import { grantOf } from '@/pages/access/grants'
import { caller } from './caller'

/** Who may call a service: its clients and roles, one to be made, and to be tried as. */
const props = defineProps<{ service: ServiceView }>()
const emit = defineEmits<{ tried: [] }>()

const queries = useQueryClient()
const clients = useQuery({ queryKey: ['clients'], queryFn: () => unwrap(api.GET('/manage/v1/clients')) })
const roles = useQuery({ queryKey: ['roles'], queryFn: () => unwrap(api.GET('/manage/v1/roles')) })
const reaches = (grants: string[]) =>
  grants.filter((text) => ['*', props.service.name].includes(grantOf(text).service))
const callers = computed(() =>
  (clients.data.value ?? [])
    .map((one) => ({ ...one, grants: reaches(one.grants) }))
    .filter((one) => one.grants.length),
)
const people = computed(() =>
  (roles.data.value ?? [])
    .map((one) => ({ ...one, services: reaches(one.services) }))
    .filter((one) => one.services.length),
)
const making = ref(false)
const made = ref<{ name: string; secret: string }>()
async function saved(secret?: { name: string; secret: string }) {
  making.value = false
  made.value = secret
  await queries.invalidateQueries({ queryKey: ['clients'] })
}
function tryAs(name: string) {
  caller.value = name
  emit('tried')
}
</script>

<template>
  <div class="callers">
    <div class="row">
      <p class="quiet">Outside systems call as clients; people with the roles below call it, too.</p>
      <span class="spacer"></span>
      <Button type="primary" size="small" @click="making = true"
        ><PlusOutlined /> Client for this service</Button
      >
    </div>
    <LoadState :loading="clients.isLoading.value" :error="clients.error.value" @retry="clients.refetch()">
      <p v-if="!callers.length" class="quiet">
        No client may call it yet. Make one, hand its secret to whoever runs the other system, and try the
        service as that client.
      </p>
      <table v-else>
        <thead>
          <tr>
            <th>Client</th>
            <th>May call</th>
            <th>Last used</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in callers" :key="one.name">
            <td>
              <strong>{{ one.label }}</strong> <Tag v-if="one.disabled" color="red">disabled</Tag>
            </td>
            <td>
              <code v-for="grant in one.grants" :key="grant" class="grant">{{ grant }}</code>
            </td>
            <td class="quiet">{{ one.lastUsed ? ago(one.lastUsed) : 'never' }}</td>
            <td class="last">
              <Button size="small" :disabled="one.disabled" @click="tryAs(one.name)"
                >Try as this client</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
    <template v-if="people.length">
      <h2>Roles</h2>
      <ul>
        <li v-for="one in people" :key="one.name">
          <RouterLink to="/access">{{ one.label }}</RouterLink>
          <span class="quiet">
            · {{ one.users.length ? one.users.join(', ') : 'nobody has it yet' }} ·
            {{ one.services.join('; ') }}</span
          >
        </li>
      </ul>
    </template>
    <ClientForm
      v-if="making"
      :client="null"
      :grants="[`${service.name}/*/*`]"
      @saved="saved"
      @left="making = false"
    />
    <SecretOnce v-if="made" :secret="made.secret" @noted="made = undefined">
      Give <code>{{ made.name }}</code> this secret. It is kept only as a hash and cannot be shown again.
    </SecretOnce>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
}
td,
th {
  padding: 5px 8px 5px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
.grant {
  display: block;
}
.last {
  text-align: right;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
