<script setup lang="ts">
import { Button, Input, Select, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { ResourceView, ServiceView } from '@/api/client'
import { PLACE } from '@/api/place'
import { asCurl, type Trial } from './curl'
import { exampleBody, type Contract } from './contract'
import { functionsOf, offersOf } from './offers'
import TriedAnswer from './TriedAnswer.vue'
import { prettyAnswer, useTrial } from './tried'

const props = defineProps<{ service: ServiceView; contract: Contract | undefined }>()

const resourceName = ref('')
const operation = ref('query')
const key = ref('')
const filter = ref('')
const body = ref('{}')
const { answer, problem, busy, send } = useTrial(prettyAnswer)

/** What is chosen in the place of a resource for functions on no record. */
const FUNCTIONS = 'functions'
const isFunctions = computed(() => resourceName.value === FUNCTIONS && props.service.functions.length > 0)
const resource = computed<ResourceView | undefined>(
  () => props.service.resources.find((one) => one.name === resourceName.value) ?? props.service.resources[0],
)
const offered = computed(() => (isFunctions.value ? functionsOf(props.service) : offersOf(resource.value)))
const places = computed(() => [
  ...props.service.resources.map((one) => one.name),
  ...(props.service.functions.length ? [FUNCTIONS] : []),
])
const chosen = computed(() => offered.value.find((one) => one.value === operation.value) ?? offered.value[0])

watch(
  [resource, chosen, () => props.contract],
  () => {
    answer.value = null
    if (resource.value && chosen.value?.body) {
      body.value = JSON.stringify(
        chosen.value.example ?? exampleBody(props.contract, resource.value.name, chosen.value.method),
        null,
        2,
      )
    }
  },
  { immediate: true },
)

// What was read last is what a change is based on, until another version is written here.
const ifMatch = ref('')
const isChange = computed(() => !!chosen.value?.keyed && chosen.value.method !== 'GET')
watch(answer, (now) => {
  if (now?.tag) ifMatch.value = now.tag
})
watch(key, () => (ifMatch.value = ''))

const trial = computed<Trial>(() => {
  const place = isFunctions.value ? chosen.value?.value.replace('call ', '') : resource.value?.name
  const base = `/api/${props.service.name}/v${props.service.version}/${place ?? ''}`
  const path = chosen.value?.keyed
    ? `${base}/${encodeURIComponent(key.value)}${chosen.value.below ?? ''}`
    : base
  const query =
    chosen.value?.value === 'query'
      ? '?' + new URLSearchParams({ ...(filter.value ? { filter: filter.value } : {}), limit: '5' })
      : ''
  return {
    method: chosen.value?.method ?? 'GET',
    path: path + query,
    body: chosen.value?.body ? body.value : undefined,
    ifMatch: (isChange.value && ifMatch.value) || undefined,
  }
})
const curl = computed(() => asCurl(trial.value, location.origin + PLACE))
</script>

<template>
  <div v-if="resource && chosen" class="try">
    <div class="row wrap">
      <Select
        :value="isFunctions ? FUNCTIONS : resource.name"
        :options="places.map((value) => ({ value }))"
        style="width: 130px"
        aria-label="Resource"
        @change="(now) => (resourceName = String(now))"
      />
      <Select
        :value="chosen.value"
        :options="offered.map((one) => ({ value: one.value, label: one.label }))"
        style="width: 110px"
        aria-label="Operation"
        @change="(now) => (operation = String(now))"
      />
      <Input
        v-if="chosen.keyed"
        v-model:value="key"
        :placeholder="resource.key.join(', ') || 'id'"
        style="flex: 1"
        aria-label="Key"
      />
      <Input
        v-if="isChange"
        v-model:value="ifMatch"
        class="mono"
        placeholder="ETag"
        addon-before="If-Match"
        style="width: 170px"
        aria-label="If-Match"
      />
      <Input
        v-if="chosen.value === 'query'"
        v-model:value="filter"
        class="mono"
        :placeholder="
          resource.filterable.length ? `filter over ${resource.filterable.slice(0, 4).join(', ')} …` : ''
        "
        style="flex: 1"
        aria-label="Filter"
        @press-enter="send(trial)"
      />
      <Button type="primary" :loading="busy" :disabled="chosen.keyed && !key" @click="send(trial)"
        >Send</Button
      >
    </div>
    <Textarea
      v-if="chosen.body"
      v-model:value="body"
      class="mono"
      :auto-size="{ minRows: 4, maxRows: 12 }"
      aria-label="Body"
    />
    <TriedAnswer
      :curl="curl"
      :changes="chosen.method !== 'GET'"
      :problem="problem"
      :answer="answer"
      test="answer"
    />
  </div>
</template>

<style scoped>
.try {
  display: grid;
  gap: 10px;
}
.wrap {
  flex-wrap: wrap;
}
</style>
