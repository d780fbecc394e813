<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Input, Modal, Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap, type ClientView } from '@/api/client'
import { choices, grantOf, textOf, type Grant } from './grants'

const props = defineProps<{ client: ClientView | null }>()
const emit = defineEmits<{ saved: [made?: { name: string; secret: string }]; left: [] }>()

const services = useQuery({
  queryKey: ['services'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services')),
})
const name = ref(props.client?.name ?? '')
const label = ref(props.client?.label ?? '')
const grants = ref<Grant[]>((props.client?.grants ?? []).map(grantOf))
const problem = ref('')
const busy = ref(false)

const options = (names: string[]) => names.map((one) => ({ value: one, label: one === '*' ? 'all' : one }))
const rows = computed(() => grants.value.map((grant) => choices(services.data.value ?? [], grant)))

function add() {
  grants.value.push(grantOf(services.data.value?.[0]?.name ?? ''))
}

async function save() {
  busy.value = true
  problem.value = ''
  const body = { label: label.value || undefined, grants: grants.value.map(textOf) }
  try {
    if (props.client) {
      await unwrap(
        api.PATCH('/manage/v1/clients/{name}', { params: { path: { name: props.client.name } }, body }),
      )
      emit('saved')
    } else {
      const made = await unwrap(api.POST('/manage/v1/clients', { body: { ...body, name: name.value } }))
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
        <p v-if="!grants.length" class="quiet">Nothing yet.</p>
        <div v-for="(grant, at) in grants" :key="at" class="grant">
          <Select v-model:value="grant.service" :options="options(rows[at].services)" aria-label="Service" />
          <Select
            v-model:value="grant.resource"
            :options="options(rows[at].resources)"
            aria-label="Resource"
          />
          <Select
            v-model:value="grant.operation"
            :options="options(rows[at].operations)"
            aria-label="Operation"
          />
          <Button aria-label="Take away" @click="grants.splice(at, 1)"><DeleteOutlined /></Button>
          <Input
            v-model:value="grant.where"
            class="where mono"
            addon-before="where"
            placeholder='every record, or a condition such as state = "Departed"'
            aria-label="Condition"
          />
        </div>
        <Button @click="add"><PlusOutlined /> Grant</Button>
      </div>
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
.grant {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 6px;
  margin-bottom: 6px;
}
.where {
  grid-column: 1 / -2;
}
</style>
