<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Select, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, unwrap } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import PersonForm from './PersonForm.vue'
import { useTold } from './told'

const told = useTold()
const users = useQuery({ queryKey: ['users'], queryFn: () => unwrap(api.GET('/manage/v1/users')) })
const roles = useQuery({ queryKey: ['roles'], queryFn: () => unwrap(api.GET('/manage/v1/roles')) })
const adding = ref(false)
const renewed = ref<string | null>(null)

const changeUser = (name: string, body: { roles?: string[]; disabled?: boolean }) =>
  told(
    unwrap(api.PATCH('/manage/v1/users/{name}', { params: { path: { name } }, body })),
    `${name} is changed.`,
  )

async function saved() {
  const done = renewed.value ? `${renewed.value} has a new password.` : 'Added.'
  adding.value = false
  renewed.value = null
  await told(Promise.resolve(), done)
}
</script>

<template>
  <section class="card">
    <div class="row">
      <h2>People</h2>
      <div class="spacer"></div>
      <Button size="small" @click="adding = true"><PlusOutlined /> New person</Button>
    </div>
    <LoadState :loading="users.isLoading.value" :error="users.error.value" @retry="users.refetch()">
      <table>
        <thead>
          <tr>
            <th>Name</th>
            <th>Roles</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="user in users.data.value" :key="user.name">
            <td>
              <strong>{{ user.label }}</strong>
              <Tag v-if="user.disabled" color="red" class="state">disabled</Tag>
              <Tag v-if="user.temporary" class="state">temporary password</Tag>
              <div class="quiet">
                <code>{{ user.name }}</code>
              </div>
            </td>
            <td>
              <Select
                mode="multiple"
                :value="user.roles"
                :options="roles.data.value?.map((one) => ({ value: one.name, label: one.label }))"
                placeholder="no role"
                style="min-width: 260px"
                :aria-label="`Roles of ${user.name}`"
                @change="(now) => changeUser(user.name, { roles: now as string[] })"
              />
              <Tag v-for="duty in user.duties" :key="duty" class="state">{{ duty }}</Tag>
            </td>
            <td class="actions">
              <Button size="small" @click="renewed = user.name">New password</Button>
              <Button size="small" @click="changeUser(user.name, { disabled: !user.disabled })">
                {{ user.disabled ? 'Enable' : 'Disable' }}
              </Button>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadState>
    <PersonForm
      v-if="adding || renewed"
      :user="renewed"
      :roles="roles.data.value ?? []"
      @saved="saved"
      @left="((adding = false), (renewed = null))"
    />
  </section>
</template>

<style scoped src="./access-card.css"></style>
