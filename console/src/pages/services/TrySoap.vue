<script setup lang="ts">
import { Alert, Button, Select, Tag, Textarea } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import type { ServiceView } from '@/api/client'
import { call, forgeryToken } from '@/api/http'
import LoadState from '@/components/LoadState.vue'
import { asCurl } from './curl'
import { indented } from './xml'

const props = defineProps<{ service: ServiceView }>()

interface Example {
  operation: string
  describe: string
  envelope: string
}

const path = computed(() => `${props.service.name}/v${props.service.version}`)
const examples = useQuery({
  queryKey: computed(() => ['soap-examples', path.value]),
  queryFn: () => call<Example[]>('GET', `/manage/v1/contracts/${path.value}/soap-examples`),
})
const operation = ref('')
const envelope = ref('')
const answer = ref<{ status: number; millis: number; text: string } | null>(null)
const problem = ref('')
const busy = ref(false)

const chosen = computed(
  () =>
    examples.data.value?.find((one) => one.operation === operation.value) ??
    examples.data.value?.find((one) => one.operation.startsWith('Find')) ??
    examples.data.value?.[0],
)
watch(
  chosen,
  (now) => {
    answer.value = null
    envelope.value = now?.envelope ?? ''
  },
  { immediate: true },
)

const address = computed(() => `/soap/${path.value}`)
const curl = computed(() =>
  asCurl({ method: 'POST', path: address.value, body: envelope.value, type: 'text/xml' }, location.origin),
)

async function send() {
  busy.value = true
  problem.value = ''
  const start = performance.now()
  try {
    const response = await fetch(address.value, {
      method: 'POST',
      headers: { 'Content-Type': 'text/xml', 'X-XSRF-TOKEN': forgeryToken() },
      body: envelope.value,
    })
    const xml = await response.text()
    answer.value = {
      status: response.status,
      millis: Math.round(performance.now() - start),
      text: indented(xml),
    }
  } catch {
    problem.value = 'The service does not answer.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <LoadState :loading="examples.isLoading.value" :error="examples.error.value" @retry="examples.refetch()">
    <div v-if="chosen" class="try">
      <div class="row">
        <Select
          :value="chosen.operation"
          :options="examples.data.value?.map((one) => ({ value: one.operation, label: one.operation }))"
          style="width: 220px"
          aria-label="SOAP operation"
          @change="(now) => (operation = String(now))"
        />
        <span class="quiet">{{ chosen.describe }}</span>
        <div class="spacer"></div>
        <Button type="primary" :loading="busy" @click="send">Send</Button>
      </div>
      <Textarea
        v-model:value="envelope"
        class="mono"
        :auto-size="{ minRows: 6, maxRows: 18 }"
        aria-label="Envelope"
      />
      <Alert
        v-if="!/^(Find|Get)/.test(chosen.operation)"
        type="warning"
        message="This changes the live data, as a call from outside would."
      />
      <pre class="curl">{{ curl }}</pre>
      <Alert v-if="problem" type="error" :message="problem" />
      <template v-if="answer">
        <div class="row">
          <Tag :color="answer.status < 300 ? 'green' : 'red'">{{ answer.status }}</Tag>
          <span class="quiet">{{ answer.millis }} ms</span>
        </div>
        <pre data-test="soap-answer">{{ answer.text }}</pre>
      </template>
    </div>
  </LoadState>
</template>

<style scoped>
.try {
  display: grid;
  gap: 10px;
}
pre {
  margin: 0;
  padding: 10px;
  background: var(--sunken);
  border-radius: 6px;
  overflow: auto;
  font-size: 12px;
  max-height: 320px;
}
.curl {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-height: 160px;
}
</style>
