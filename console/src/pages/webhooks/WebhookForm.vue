<script setup lang="ts">
import { Alert, Input, Modal, Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap, type WebhookView } from '@/api/client'
import { ApiProblem } from '@/api/http'
import ConditionInput from '@/conditions/ConditionInput.vue'

const props = defineProps<{ webhook?: WebhookView }>()
const emit = defineEmits<{ saved: [made?: { webhook: WebhookView; secret: string }]; left: [] }>()

const name = ref(props.webhook?.name ?? '')
const label = ref(props.webhook?.label ?? '')
const address = ref(props.webhook?.address ?? '')
const events = ref<string[]>(props.webhook?.events ?? [])
const filter = ref(props.webhook?.filter ?? '')
const problem = ref('')
const messages = ref<Record<string, string>>({})
const busy = ref(false)

const model = useQuery({
  queryKey: ['model', 'LIVE'],
  queryFn: () => unwrap(api.GET('/manage/v1/model', { params: { query: { of: 'LIVE' } } })),
})
/** Events that somebody declared come before those that every object has. */
const options = computed(() =>
  [...(model.data.value?.events ?? [])]
    .sort((one, other) => Number(one.inherent) - Number(other.inherent))
    .map((one) => ({ value: one.name, label: one.name })),
)

/** What all of the chosen events tell. */
const told = computed(() => {
  const chosen = (model.data.value?.events ?? []).filter((one) => events.value.includes(one.name))
  const [first, ...rest] = chosen
  return (first?.fields ?? [])
    .filter((field) => rest.every((one) => one.fields.some((other) => other.name === field.name)))
    .flatMap((one) => (one.field ? [{ ...one.field, name: one.name, label: one.label }] : []))
})

async function save() {
  busy.value = true
  problem.value = ''
  messages.value = {}
  const body = { label: label.value, address: address.value, events: events.value, filter: filter.value }
  try {
    if (props.webhook) {
      const path = { name: props.webhook.name }
      await unwrap(api.PATCH('/manage/v1/webhooks/{name}', { params: { path }, body }))
      emit('saved')
    } else {
      emit('saved', await unwrap(api.POST('/manage/v1/webhooks', { body: { name: name.value, ...body } })))
    }
  } catch (error) {
    if (error instanceof ApiProblem) messages.value = error.byField()
    problem.value = Object.keys(messages.value).length ? '' : (error as Error).message
  } finally {
    busy.value = false
  }
}
const said = (field: string) =>
  Object.entries(messages.value)
    .filter(([path]) => path === field || path.startsWith(`${field}/`))
    .map(([, message]) => message)
    .join(' ')
</script>

<template>
  <Modal
    open
    :title="webhook ? webhook.label : 'New webhook'"
    ok-text="Save"
    :confirm-loading="busy"
    @ok="save"
    @cancel="emit('left')"
  >
    <Alert v-if="problem" type="error" show-icon :message="problem" class="field" />
    <div v-if="!webhook" class="field">
      <label for="w-name">Name</label>
      <Input id="w-name" v-model:value="name" class="mono" placeholder="bookkeeping" />
      <div class="wrong">{{ said('name') }}</div>
    </div>
    <div class="field">
      <label for="w-label">Label</label>
      <Input id="w-label" v-model:value="label" placeholder="The bookkeeping" />
      <div class="wrong">{{ said('label') }}</div>
    </div>
    <div class="field">
      <label for="w-address">Address</label>
      <Input id="w-address" v-model:value="address" class="mono" placeholder="https://books.example/events" />
      <div class="wrong">{{ said('address') }}</div>
    </div>
    <div class="field">
      <label>Events</label>
      <Select
        v-model:value="events"
        mode="multiple"
        :options="options"
        placeholder="What it hears"
        aria-label="Events"
        style="width: 100%"
      />
      <div class="wrong">{{ said('events') }}</div>
    </div>
    <div class="field">
      <div class="name">Only when</div>
      <ConditionInput
        :text="filter"
        role="EXPRESSION"
        :objects="[]"
        :plain="told"
        label="Only when"
        placeholder="Always; a condition over what the events tell keeps it to some."
        unchecked
        @update="(now) => (filter = now)"
      />
      <div class="wrong">{{ said('filter') }}</div>
    </div>
  </Modal>
</template>

<style scoped>
.field {
  margin-bottom: 10px;
}
label,
.name {
  display: block;
  color: var(--quiet);
  margin-bottom: 3px;
}
.wrong {
  color: var(--bad);
  font-size: 12.5px;
}
</style>
