<script setup lang="ts">
import { Segmented, Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { ServiceView } from '@/api/client'
import { call } from '@/api/http'
import LoadState from '@/components/LoadState.vue'
import { exampleAnswer, exampleBody, exampleQuery, type Contract } from './contract'
import { PROTOCOLS } from './forms'
import { offersOf } from './offers'

/** A request and its answer as they will be, in each protocol, made from the draft. */
const props = defineProps<{ service: ServiceView; resource: string }>()

const spoken = computed(() => PROTOCOLS.filter((one) => props.service.protocols.includes(one.name)))
const title = ref('')
const protocol = computed(() => spoken.value.find((one) => one.title === title.value) ?? spoken.value[0])
const base = computed(() => `/manage/v1/contracts/${props.service.name}/v${props.service.version}`)
const FROM = { rest: 'openapi.json', soap: 'soap-examples', odata: 'odata-examples' }
const address = computed(() => `${base.value}/${FROM[protocol.value.name as keyof typeof FROM]}?of=DRAFT`)
const made = useQuery({
  queryKey: computed(() => ['contract', 'preview', address.value]),
  queryFn: () => call<unknown>('GET', address.value),
})

/** A request with what is sent and what comes back; nothing when it is empty. */
interface Shown {
  name: string
  line: string
  sent?: string
  answer?: string
}
const pretty = (value: unknown) => JSON.stringify(value, null, 2)

const shown = computed<Shown[]>(() => {
  const data = made.data.value
  if (!data) return []
  if (protocol.value.name === 'soap')
    return (data as { operation: string; describe: string; envelope: string }[]).map((one) => ({
      name: one.operation,
      line: one.describe,
      sent: one.envelope,
    }))
  if (protocol.value.name === 'odata')
    return (data as { label: string; method: string; path: string; body: string | null }[]).map((one) => ({
      name: one.label,
      line: `${one.method} ${one.path}`,
      sent: one.body ?? undefined,
    }))
  const contract = data as Contract
  const resource = props.service.resources.find((one) => one.name === props.resource)
  return offersOf(resource).map((offer) => {
    const path = `/${props.resource}${offer.keyed ? '/{key}' : ''}${offer.below ?? ''}`
    const answer = exampleAnswer(contract, path, offer.method)
    return {
      name: offer.label,
      line: `${offer.method} ${path}${exampleQuery(contract, path, offer.method)}`,
      sent: offer.body ? pretty(exampleBody(contract, props.resource, offer.method)) : undefined,
      answer: answer && `${answer.status}\n${answer.body === undefined ? '' : pretty(answer.body)}`,
    }
  })
})
const name = ref('')
const chosen = computed(() => shown.value.find((one) => one.name === name.value) ?? shown.value[0])
</script>

<template>
  <div class="preview">
    <div class="row">
      <Segmented
        v-if="spoken.length > 1"
        :value="protocol.title"
        :options="spoken.map((one) => one.title)"
        aria-label="Protocol"
        @change="(now) => (title = String(now))"
      />
      <Select
        v-if="chosen"
        :value="chosen.name"
        :options="shown.map((one) => ({ value: one.name }))"
        aria-label="Operation"
        style="flex: 1; min-width: 0"
        @change="(now) => (name = String(now))"
      />
    </div>
    <LoadState :loading="made.isLoading.value" :error="made.error.value" @retry="made.refetch()">
      <template v-if="chosen">
        <code class="line">{{ chosen.line }}</code>
        <pre v-if="chosen.sent" tabindex="0" data-test="sent">{{ chosen.sent }}</pre>
        <template v-if="chosen.answer">
          <span class="quiet">Answer</span>
          <pre tabindex="0" data-test="answered">{{ chosen.answer }}</pre>
        </template>
      </template>
      <p v-else class="quiet">Tick a field in the column of an operation, and it is offered.</p>
    </LoadState>
  </div>
</template>

<style scoped>
.preview {
  display: grid;
  gap: 8px;
  align-content: start;
  overflow: auto;
  padding: 0 12px 12px;
}
.line {
  font-weight: 600;
  word-break: break-all;
}
pre {
  margin: 4px 0 8px;
  padding: 8px 10px;
  background: var(--sunken);
  border: 1px solid var(--line);
  border-radius: 6px;
  font-size: 12px;
  white-space: pre-wrap;
  word-break: break-word;
}
</style>
