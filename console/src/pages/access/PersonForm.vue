<script setup lang="ts">
import { Alert, Checkbox, Input, InputPassword, Modal, Select } from 'ant-design-vue'
import { ref } from 'vue'
import { api, unwrap, type RoleView } from '@/api/client'

/** A new person, or a new password for one that has forgotten theirs. */
const props = defineProps<{ user: string | null; roles: RoleView[] }>()
const emit = defineEmits<{ saved: []; left: [] }>()

const name = ref('')
const label = ref('')
const password = ref('')
const chosen = ref<string[]>([])
const temporary = ref(true)
const problem = ref('')
const busy = ref(false)

async function save() {
  busy.value = true
  problem.value = ''
  try {
    if (props.user)
      await unwrap(
        api.PATCH('/manage/v1/users/{name}', {
          params: { path: { name: props.user } },
          body: { password: password.value, temporary: temporary.value },
        }),
      )
    else
      await unwrap(
        api.POST('/manage/v1/users', {
          body: {
            name: name.value,
            label: label.value || undefined,
            password: password.value,
            roles: chosen.value,
            temporary: temporary.value,
          },
        }),
      )
    emit('saved')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    :title="user ? `New password for ${user}` : 'New person'"
    :ok-text="user ? 'Set it' : 'Add'"
    :ok-button-props="{ loading: busy, disabled: password.length < 8 || (!user && !name) }"
    @ok="save"
    @cancel="emit('left')"
  >
    <div class="form">
      <template v-if="!user">
        <label>
          Name
          <Input v-model:value="name" placeholder="for signing in" autocomplete="off" aria-label="Name" />
        </label>
        <label>
          Label
          <Input v-model:value="label" placeholder="What people read" aria-label="Label" />
        </label>
        <label>
          Roles
          <Select
            v-model:value="chosen"
            mode="multiple"
            :options="roles.map((one) => ({ value: one.name, label: one.label }))"
            placeholder="no role"
            aria-label="Roles"
          />
        </label>
      </template>
      <label>
        Password
        <InputPassword
          v-model:value="password"
          autocomplete="new-password"
          placeholder="8 characters or more"
          aria-label="Password"
        />
      </label>
      <Checkbox v-model:checked="temporary">Choose an own password at the next sign-in</Checkbox>
      <p v-if="user" class="quiet">Ends every open session of {{ user }}.</p>
      <Alert v-if="problem" type="error" :message="problem" />
    </div>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
label {
  display: grid;
  gap: 4px;
}
p {
  margin: 0;
}
</style>
