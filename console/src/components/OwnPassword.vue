<script setup lang="ts">
import { Alert, InputPassword, Modal } from 'ant-design-vue'
import { ref } from 'vue'
import OwnSessions from './OwnSessions.vue'
import { api, unwrap } from '@/api/client'

/** The password of whoever is signed in, whose change ends every session, and those sessions. */
const emit = defineEmits<{ changed: []; left: [] }>()
const current = ref('')
const next = ref('')
const problem = ref('')
const busy = ref(false)

async function save() {
  busy.value = true
  problem.value = ''
  try {
    await unwrap(
      api.POST('/manage/v1/users/me/password', { body: { current: current.value, next: next.value } }),
    )
    emit('changed')
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
    title="Your password and sessions"
    ok-text="Change the password"
    :width="520"
    :ok-button-props="{ loading: busy, disabled: !current || next.length < 8 }"
    @ok="save"
    @cancel="emit('left')"
  >
    <div class="form">
      <label>
        Now
        <InputPassword
          v-model:value="current"
          autocomplete="current-password"
          aria-label="Current password"
        />
      </label>
      <label>
        From now on
        <InputPassword
          v-model:value="next"
          autocomplete="new-password"
          placeholder="8 characters or more"
          aria-label="New password"
          @press-enter="save"
        />
      </label>
      <p class="quiet">You sign in again with the new one, here and wherever else you are signed in.</p>
      <Alert v-if="problem" type="error" :message="problem" />
      <OwnSessions />
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
