<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Popconfirm, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, unwrap, type RoleView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { grantWords } from './grants'
import RoleForm from './RoleForm.vue'
import { useSession } from '@/composables/session'
import { useTold } from './told'

const told = useTold()
const { may } = useSession()
const roles = useQuery({ queryKey: ['roles'], queryFn: () => unwrap(api.GET('/manage/v1/roles')) })
const edited = ref<RoleView | 'new' | null>(null)

const remove = (role: RoleView) =>
  told(
    unwrap(api.DELETE('/manage/v1/roles/{name}', { params: { path: { name: role.name } } })),
    `${role.label} is removed.`,
  )

async function saved() {
  edited.value = null
  await told(Promise.resolve(), 'The role is kept; it holds from the next request on.')
}
</script>

<template>
  <section class="card">
    <div class="row">
      <h2>Roles</h2>
      <div class="spacer"></div>
      <Button size="small" @click="edited = 'new'"><PlusOutlined /> New role</Button>
    </div>
    <p class="quiet">
      What the people who hold them may do. Whoever has several may do what one of them allows.
    </p>
    <LoadState :loading="roles.isLoading.value" :error="roles.error.value" @retry="roles.refetch()">
      <table>
        <thead>
          <tr>
            <th>Role</th>
            <th>Records</th>
            <th>Duties and services</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="role in roles.data.value" :key="role.name" :data-test="`role-${role.name}`">
            <td>
              <strong>{{ role.label }}</strong>
              <div class="quiet">{{ role.describe }}</div>
              <div v-if="role.from" class="quiet">comes with the package {{ role.from }}</div>
              <div v-if="role.users.length" class="quiet">held by {{ role.users.join(', ') }}</div>
            </td>
            <td>
              <div v-for="(grant, place) in role.objects" :key="place">
                {{ grantWords(grant) }}
              </div>
            </td>
            <td>
              <Tag v-for="duty in role.duties" :key="duty">{{ duty.toLowerCase() }}</Tag>
              <div v-for="grant in role.services" :key="grant">
                <code>{{ grant }}</code>
              </div>
            </td>
            <td v-if="role.from" class="actions">
              <RouterLink v-if="may('design')" to="/packages">Package</RouterLink>
            </td>
            <td v-else class="actions">
              <Button size="small" @click="edited = role">Change</Button>
              <Popconfirm title="Remove it?" ok-text="Remove" placement="left" @confirm="remove(role)">
                <Button
                  size="small"
                  type="text"
                  class="leave"
                  :disabled="!!role.users.length"
                  :title="role.users.length ? 'Take it from the people who hold it first' : undefined"
                  >Remove</Button
                >
              </Popconfirm>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
    <RoleForm
      v-if="edited"
      :role="edited === 'new' ? null : edited"
      :taken="roles.data.value?.map((one) => one.name) ?? []"
      @saved="saved"
      @left="edited = null"
    />
  </section>
</template>

<style scoped src="./access-card.css"></style>
