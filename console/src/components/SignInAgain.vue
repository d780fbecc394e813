<script setup lang="ts">
import { Alert, Button, InputPassword, Modal } from 'ant-design-vue'
import { ref } from 'vue'
import { useSession } from '@/composables/session'

/** Signs in again over the page, whose typing stays as it is. */
const { me, ended, signIn } = useSession()
const password = ref('')
const problem = ref('')
const busy = ref(false)

async function again() {
  busy.value = true
  problem.value = ''
  try {
    await signIn(me.value!.name, password.value)
    password.value = ''
  } catch (wrong) {
    problem.value = (wrong as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal :open="ended" title="Your session has ended" :closable="false" :mask-closable="false">
    <p>What you typed is still here. Sign in as {{ me?.name }} to go on.</p>
    <label for="again">Password</label>
    <InputPassword id="again" v-model:value="password" autocomplete="current-password" @press-enter="again" />
    <Alert v-if="problem" type="error" show-icon :message="problem" class="problem" />
    <template #footer>
      <Button type="primary" :loading="busy" :disabled="!password" @click="again">Sign in</Button>
    </template>
  </Modal>
</template>

<style scoped>
.problem {
  margin-top: 8px;
}
</style>
