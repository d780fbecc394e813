<script setup lang="ts">
import { Alert, Input, Modal, Select } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import type { ConnectionView } from '@/api/connections'
import { ApiProblem } from '@/api/http'

/** Where this instance reaches a service outside, and by what it is known there. */
const props = defineProps<{ connection: ConnectionView; proposed?: string }>()
const emit = defineEmits<{ saved: []; left: [] }>()

const SCHEMES = [
  { value: 'none', label: 'No credentials' },
  { value: 'basic', label: 'Name and password (Basic)' },
  { value: 'bearer', label: 'A token (bearer)' },
  { value: 'client-credentials', label: 'OAuth 2.0 client credentials' },
]
const there = props.connection.reach
const address = ref(there?.address ?? props.proposed ?? '')
const scheme = ref(there?.scheme ?? 'none')
const user = ref(there?.user ?? '')
const secret = ref('')
const tokenAddress = ref(there?.tokenAddress ?? '')
const scope = ref(there?.scope ?? '')
const problem = ref('')
const messages = ref<Record<string, string>>({})
const busy = ref(false)

const isNamed = computed(() => scheme.value === 'basic' || scheme.value === 'client-credentials')
const secretWord = computed(
  () => ({ basic: 'Password', bearer: 'Token' })[scheme.value] ?? 'Secret of the client',
)
const isKept = computed(() => there?.hasSecret && there.scheme === scheme.value)

async function save() {
  busy.value = true
  problem.value = ''
  messages.value = {}
  try {
    await unwrap(
      api.PUT('/manage/v1/connections/reaches/{setting}', {
        params: { path: { setting: props.connection.setting } },
        body: {
          address: address.value,
          scheme: scheme.value,
          ...(isNamed.value ? { user: user.value } : {}),
          ...(secret.value ? { secret: secret.value } : {}),
          ...(scheme.value === 'client-credentials'
            ? { tokenAddress: tokenAddress.value, scope: scope.value }
            : {}),
        },
      }),
    )
    emit('saved')
  } catch (error) {
    if (error instanceof ApiProblem) messages.value = error.byField()
    problem.value = Object.keys(messages.value).length ? '' : (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    :title="`How ${connection.label} is reached`"
    ok-text="Save"
    :confirm-loading="busy"
    @ok="save"
    @cancel="emit('left')"
  >
    <p class="quiet">
      This belongs to the instance and travels in no package. The secret is sealed and never shown again.
    </p>
    <Alert v-if="problem" type="error" show-icon :message="problem" class="field" />
    <div class="field">
      <label for="r-address">Address</label>
      <Input id="r-address" v-model:value="address" class="mono" placeholder="https://tides.example" />
      <div class="wrong">{{ messages.address }}</div>
    </div>
    <div class="field">
      <label for="r-scheme">Credentials</label>
      <Select id="r-scheme" v-model:value="scheme" :options="SCHEMES" style="width: 100%" />
    </div>
    <div v-if="isNamed" class="field">
      <label for="r-user">{{ scheme === 'basic' ? 'Name' : 'Client' }}</label>
      <Input id="r-user" v-model:value="user" class="mono" autocomplete="off" />
      <div class="wrong">{{ messages.user }}</div>
    </div>
    <div v-if="scheme !== 'none'" class="field">
      <label for="r-secret">{{ secretWord }}</label>
      <Input.Password
        id="r-secret"
        v-model:value="secret"
        autocomplete="new-password"
        :placeholder="isKept ? 'The one there is stays' : ''"
      />
      <div class="wrong">{{ messages.secret }}</div>
    </div>
    <template v-if="scheme === 'client-credentials'">
      <div class="field">
        <label for="r-token">Where tokens are had</label>
        <Input
          id="r-token"
          v-model:value="tokenAddress"
          class="mono"
          placeholder="https://login.example/token"
        />
        <div class="wrong">{{ messages.tokenAddress }}</div>
      </div>
      <div class="field">
        <label for="r-scope">Scope</label>
        <Input id="r-scope" v-model:value="scope" class="mono" placeholder="None" />
      </div>
    </template>
  </Modal>
</template>

<style scoped>
.field {
  margin-bottom: 10px;
}
label {
  display: block;
  color: var(--quiet);
  margin-bottom: 3px;
}
.wrong {
  color: var(--bad);
  font-size: 12.5px;
}
</style>
