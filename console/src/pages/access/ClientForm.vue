<script setup lang="ts">
import { Alert, Checkbox, Input, InputNumber, Modal } from 'ant-design-vue'
import { ref } from 'vue'
import { api, unwrap, type ClientView } from '@/api/client'
import GrantRows from './GrantRows.vue'
import { grantOf, textOf, type Grant } from './grants'

const props = defineProps<{
  client: ClientView | null
  /** What a new one may call to begin with. */
  grants?: string[]
}>()
const emit = defineEmits<{ saved: [made?: { name: string; secret: string }]; left: [] }>()

const name = ref(props.client?.name ?? '')
const label = ref(props.client?.label ?? '')
const grants = ref<Grant[]>((props.client?.grants ?? props.grants ?? []).map(grantOf))
const callsPerMinute = ref<number | null>(props.client?.callsPerMinute || null)
const digests = ref(props.client?.digests ?? false)
const problem = ref('')
const busy = ref(false)

async function save() {
  busy.value = true
  problem.value = ''
  const body = {
    label: label.value || undefined,
    grants: grants.value.map(textOf),
    callsPerMinute: callsPerMinute.value ?? 0,
  }
  try {
    if (props.client) {
      await unwrap(
        api.PATCH('/manage/v1/clients/{name}', { params: { path: { name: props.client.name } }, body }),
      )
      emit('saved')
    } else {
      const made = await unwrap(
        api.POST('/manage/v1/clients', { body: { ...body, name: name.value, digests: digests.value } }),
      )
      emit('saved', { name: made.client.name, secret: made.secret })
    }
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
    :title="client ? client.label : 'New client'"
    :ok-text="client ? 'Save' : 'Make it'"
    :ok-button-props="{ loading: busy, disabled: !client && !name }"
    :width="640"
    @ok="save"
    @cancel="emit('left')"
  >
    <div class="form">
      <label v-if="!client">
        Name
        <Input v-model:value="name" placeholder="booking-site" aria-label="Client name" />
      </label>
      <label>
        Label
        <Input v-model:value="label" placeholder="What people read" aria-label="Label" />
      </label>
      <div>
        <div class="head">It may call</div>
        <GrantRows v-model="grants" />
      </div>
      <label>
        Calls a minute
        <InputNumber
          :value="callsPerMinute ?? undefined"
          :min="1"
          :max="1000000"
          :precision="0"
          placeholder="as usual"
          style="width: 160px"
          aria-label="Calls a minute"
          @change="(now) => (callsPerMinute = now ? Number(now) : null)"
        />
      </label>
      <Checkbox v-if="!client" v-model:checked="digests">
        Signs in with password digests (SOAP); its secret is kept sealed for that
      </Checkbox>
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
.head {
  margin-bottom: 6px;
}
</style>
